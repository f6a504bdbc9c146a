import { Controller, useFormContext, type FieldPath, type FieldValues } from 'react-hook-form';
import { QuantityField, type QuantityKind } from './QuantityField';

/** A quantity of the form around it. */
export function FormQuantity<Values extends FieldValues>({
  name,
  ...shown
}: {
  name: FieldPath<Values>;
  label: string;
  kind: QuantityKind;
  error?: string | undefined;
  hint?: string | undefined;
}) {
  const { control } = useFormContext<Values>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { value, onChange } }) => (
        <QuantityField {...shown} value={value ?? null} onChange={onChange} />
      )}
    />
  );
}
