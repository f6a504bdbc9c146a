import type Joi from 'joi';
import parse from 'joi-to-json';
import { PROBLEMS } from '../app/problems';
import type { AnyOperation } from './operation';

interface SchemaObject {
  readonly properties?: Record<string, object>;
  readonly required?: readonly string[];
}

/** Joi's schema in the dialect of OpenAPI 3.1. */
function schemaOf(schema: Joi.Schema): SchemaObject {
  const { $schema: _dialect, ...rest } = parse(schema, 'open-api-3.1') as SchemaObject & { $schema?: string };
  return rest;
}

function parametersOf(schema: Joi.ObjectSchema | undefined, place: 'path' | 'query'): object[] {
  if (!schema) return [];
  const { properties = {}, required = [] } = schemaOf(schema);
  return Object.entries(properties).map(([name, property]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema: property,
  }));
}

const KEY_HEADER = {
  name: 'Idempotency-Key',
  in: 'header',
  required: false,
  description: 'Of your making, 8 to 200 characters; the same key sent twice does the work once.',
  schema: { type: 'string', minLength: 8, maxLength: 200 },
};

function bodyOf(body: AnyOperation['body']): object | undefined {
  if (body === undefined) return undefined;
  if (body === 'drawing') return { required: true, content: { 'image/svg+xml': { schema: { type: 'string' } } } };
  if (body === 'image') {
    const binary = { schema: { type: 'string', format: 'binary' } };
    return { required: true, content: { 'image/jpeg': binary, 'image/png': binary, 'image/webp': binary } };
  }
  return { required: true, content: { 'application/json': { schema: schemaOf(body) } } };
}

/** The HTTP interface as an OpenAPI 3.1 document. Deterministic. */
export function openApiFile(operations: readonly AnyOperation[]): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const { id, method, path, summary, tag, params, query, body, answers } of operations) {
    const requestBody = bodyOf(body);
    (paths[path] ??= {})[method.toLowerCase()] = {
      operationId: id,
      summary,
      tags: [tag],
      parameters: [
        ...parametersOf(params, 'path'),
        ...parametersOf(query, 'query'),
        ...(method === 'POST' ? [KEY_HEADER] : []),
      ],
      ...(requestBody ? { requestBody } : {}),
      responses: {
        '2XX': {
          description: 'As asked',
          content: answers === 'application/json' ? { 'application/json': {} } : { '*/*': {} },
        },
        default: { $ref: '#/components/responses/Problem' },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Glass Ladder',
      version: '1',
      description: 'Everything the interface does goes through these endpoints.',
    },
    servers: [{ url: '/' }],
    paths,
    components: {
      responses: {
        Problem: {
          description: 'What happened, what is safe, what to do (RFC 9457)',
          content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
        },
      },
      schemas: {
        Problem: {
          type: 'object',
          required: ['type', 'title', 'status', 'detail', 'code', 'whatIsSafe', 'whatToDo'],
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            code: { enum: Object.keys(PROBLEMS) },
            whatIsSafe: { type: 'string' },
            whatToDo: { type: 'string' },
            fields: {
              type: 'array',
              items: { type: 'object', properties: { field: { type: 'string' }, message: { type: 'string' } } },
            },
          },
        },
      },
    },
  };
}
