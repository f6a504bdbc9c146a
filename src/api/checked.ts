import type Joi from 'joi';
import { Problem } from '../app/problems';
import type { FieldProblem } from '../views/problem';

/** Joi's messages without the quotes around labels and with a capital first. */
function fieldProblems(error: Joi.ValidationError): FieldProblem[] {
  return error.details.map(({ path, message }) => {
    const plain = message.replace(/^"[^"]*" /, '').replace(/"/g, '');
    return { field: path.join('.'), message: plain.charAt(0).toUpperCase() + plain.slice(1) };
  });
}

/** A value as its schema has it. Throws the Problem that names every field at fault. */
export function checked<T>(schema: Joi.ObjectSchema | undefined, value: unknown, what: string): T {
  if (!schema) return value as T;
  const result = schema.validate(value, { abortEarly: false });
  if (result.error) {
    const fields = fieldProblems(result.error);
    const list = fields.slice(0, 6).map(({ field, message }) => (field ? `${field}: ${message}` : message));
    throw new Problem('invalid-input', `${what}: ${list.join('; ')}.`, 'Nothing was changed.', fields);
  }
  return result.value as T;
}
