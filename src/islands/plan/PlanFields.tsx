import { DrawingField } from '../../components/DrawingField';
import { PictureField, type NamedPicture } from '../../components/PictureField';
import { CheckField, SelectField, TextField } from '../../components/Field';
import { QuantityField } from '../../components/QuantityField';
import { kindOfField, type QuantityKinds } from '../../components/quantity-kinds';
import type { Crop } from '../../core/picture/sample';
import type { Drawing } from '../../core/part/drawing';
import { valueAt, withValueAt, type PlanField } from '../../core/card/plan-fields';

interface Props<Plan extends object> {
  readonly fields: readonly PlanField[];
  readonly plan: Plan;
  /** The plan with a field changed, and which one that is. */
  readonly onPlan: (plan: Plan, path: string) => void;
  readonly kinds: QuantityKinds;
  readonly errors: Readonly<Record<string, string>>;
  readonly reasons: Readonly<Record<string, string>>;
}

/** Where a plan with a picture holds the part of it that is wanted. */
const CROP_PATH = 'crop';

/** A kind's fields, each typed as it is asked for, with why it was proposed. */
export function PlanFields<Plan extends object>({ fields, plan, onPlan, kinds, errors, reasons }: Props<Plan>) {
  return fields.map((field) => {
    const value = valueAt(plan, field.path);
    const set = (next: unknown): void => onPlan(withValueAt(plan, field.path, next), field.path);
    const hint = reasons[field.path] ?? field.hint;
    const error = errors[field.path];
    if (field.as === 'picture')
      return (
        <PictureField
          key={field.path}
          label={field.label}
          picture={value as NamedPicture}
          crop={valueAt(plan, CROP_PATH) as Crop}
          hint={hint}
          error={error}
          onChange={(picture, crop) =>
            onPlan(withValueAt(withValueAt(plan, field.path, picture), CROP_PATH, crop), field.path)
          }
        />
      );
    if (field.as === 'drawing')
      return (
        <DrawingField
          key={field.path}
          label={field.label}
          drawing={value as Drawing}
          says={field.hint}
          hint={reasons[field.path]}
          error={error}
          onChange={set}
        />
      );
    if (field.as === 'flag')
      return (
        <CheckField
          key={field.path}
          label={field.label}
          hint={hint}
          checked={value === true}
          onChange={(event) => set(event.target.checked)}
        />
      );
    if (field.as === 'choice')
      return (
        <SelectField
          key={field.path}
          label={field.label}
          value={String(value)}
          error={error}
          hint={hint}
          onChange={(event) => set(event.target.value)}
        >
          {field.options?.map((option) => (
            <option key={option.value} value={option.value}>
              {option.name}
            </option>
          ))}
        </SelectField>
      );
    if (field.as === 'text')
      return (
        <TextField
          key={field.path}
          label={field.label}
          value={String(value ?? '')}
          maxLength={80}
          error={error}
          hint={hint}
          onChange={(event) => set(event.target.value)}
        />
      );
    const optional = field.as === 'run-up' || field.optional === true;
    return (
      <QuantityField
        key={field.path}
        label={field.label}
        kind={kindOfField(field, kinds)}
        value={(value as number | null) ?? null}
        onChange={(next) => set(next ?? (optional ? null : NaN))}
        optional={optional}
        error={error}
        hint={hint}
      />
    );
  });
}
