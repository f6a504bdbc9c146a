import { plainNumber } from '../core/quantities/format';
import { SelectField } from './Field';
import { QuantityField } from './QuantityField';
import type { quantityKinds } from './quantity-kinds';

const CERTAINTIES = [0.9, 0.95, 0.98, 0.99] as const;

interface Props {
  /** Share of parts that must drop. */
  readonly certainty: number;
  /** Length of the outline of a part. */
  readonly outlineMm: number;
  readonly kinds: ReturnType<typeof quantityKinds>;
  readonly onSet: (change: { readonly certainty: number } | { readonly outlineMm: number }) => void;
}

/** How surely parts are to drop, and how long their outline is: a longer one meets more of what holds a part up. */
export function CertaintyFields({ certainty, outlineMm, kinds, onSet }: Props) {
  return (
    <>
      <SelectField
        label="Parts that must drop"
        value={String(certainty)}
        onChange={(event) => onSet({ certainty: Number(event.target.value) })}
      >
        {CERTAINTIES.map((share) => (
          <option key={share} value={String(share)}>
            {plainNumber(100 * share, 3)} of 100
          </option>
        ))}
      </SelectField>
      <QuantityField
        label="Outline of a part"
        kind={kinds.length}
        value={Math.round(outlineMm * 10) / 10}
        onChange={(value) => value !== null && value > 0 && onSet({ outlineMm: value })}
        hint="along all its cuts: a longer one meets more knots and glue"
      />
    </>
  );
}
