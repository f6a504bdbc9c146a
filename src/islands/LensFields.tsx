import { SelectField, TextField } from '../components/Field';
import { Button } from '../components/Button';
import { QuantityField } from '../components/QuantityField';
import type { QuantityKinds } from '../components/quantity-kinds';
import type { Lens } from '../core/machine/machine';

export type LensDraft = Lens;

interface Props {
  readonly lens: LensDraft;
  readonly onChange: (lens: LensDraft) => void;
  readonly kinds: QuantityKinds;
  /** Spot by the beam formulas for a 6 mm beam, or null when it cannot be computed. */
  readonly computedSpotMm: number | null;
  readonly error: (field: string) => string | undefined;
}

export function LensFields({ lens, onChange, kinds, computedSpotMm, error }: Props) {
  const number = (value: number | null): number => value ?? NaN;
  return (
    <>
      <TextField
        label="Lens name"
        value={lens.name}
        maxLength={60}
        onChange={(event) => onChange({ ...lens, name: event.target.value })}
        error={error('name')}
      />
      <QuantityField
        label="Focal length"
        kind={kinds.length}
        value={lens.focalLengthMm}
        onChange={(value) => onChange({ ...lens, focalLengthMm: number(value) })}
        error={error('focalLengthMm')}
      />
      <QuantityField
        label="Spot along X"
        kind={kinds.length}
        value={lens.spotXMm}
        onChange={(value) => onChange({ ...lens, spotXMm: number(value), spotOrigin: 'measured' })}
        error={error('spotXMm')}
      />
      <QuantityField
        label="Spot along Y"
        kind={kinds.length}
        value={lens.spotYMm}
        onChange={(value) => onChange({ ...lens, spotYMm: number(value), spotOrigin: 'measured' })}
        error={error('spotYMm')}
      />
      <SelectField
        label="Spot is"
        value={lens.spotOrigin}
        onChange={(event) => onChange({ ...lens, spotOrigin: event.target.value as Lens['spotOrigin'] })}
      >
        <option value="measured">measured</option>
        <option value="computed">computed</option>
      </SelectField>
      {computedSpotMm !== null && (
        <Button
          onClick={() => {
            const spot = Math.round(computedSpotMm * 1e4) / 1e4;
            onChange({ ...lens, spotXMm: spot, spotYMm: spot, spotOrigin: 'computed' });
          }}
        >
          Compute it: {kinds.length.format(computedSpotMm)} for a 6 mm beam, M² 1.2
        </Button>
      )}
    </>
  );
}
