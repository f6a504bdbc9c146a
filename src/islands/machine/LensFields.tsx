import { SelectField, TextField } from '../../components/Field';
import { Button } from '../../components/Button';
import { Notice } from '../../components/Notice';
import { QuantityField } from '../../components/QuantityField';
import type { QuantityKinds } from '../../components/quantity-kinds';
import { computedSpotMm, spotDoubt, USUAL_BEAM } from '../../core/beam/usual-beam';
import type { Lens, Machine } from '../../core/machine/machine';

export type LensDraft = Lens;

interface Props {
  readonly lens: LensDraft;
  readonly onChange: (lens: LensDraft) => void;
  readonly kinds: QuantityKinds;
  /** The source that the lens stands behind. */
  readonly source: Pick<Machine, 'sourceKind' | 'wavelengthNm' | 'head'>;
  readonly error: (field: string) => string | undefined;
}

export function LensFields({ lens, onChange, kinds, source, error }: Props) {
  const number = (value: number | null): number => value ?? NaN;
  const computed = computedSpotMm(source, lens.focalLengthMm);
  const beam = USUAL_BEAM[source.sourceKind];
  const doubt =
    spotDoubt(source, lens.focalLengthMm, lens.spotXMm) ?? spotDoubt(source, lens.focalLengthMm, lens.spotYMm);
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
      {source.head === 'galvo' && (
        <QuantityField
          label="Field, side of the square"
          kind={kinds.length}
          value={lens.fieldMm}
          onChange={(value) => onChange({ ...lens, fieldMm: value })}
          optional
          error={error('fieldMm')}
          hint="what the mirrors reach through this lens; empty for the machine’s work area"
        />
      )}
      <SelectField
        label="Spot is"
        value={lens.spotOrigin}
        onChange={(event) => onChange({ ...lens, spotOrigin: event.target.value as Lens['spotOrigin'] })}
      >
        <option value="measured">measured</option>
        <option value="computed">computed</option>
      </SelectField>
      {doubt !== null && <Notice look="straw">{doubt}</Notice>}
      {source.sourceKind === 'blue-diode' && (
        <p>
          A diode’s spot is the picture of its emitters: no beam formula gives it. Burn single lines and measure them.
        </p>
      )}
      {computed !== null && (
        <Button
          onClick={() => {
            const spot = Math.round(computed * 1e4) / 1e4;
            onChange({ ...lens, spotXMm: spot, spotYMm: spot, spotOrigin: 'computed' });
          }}
        >
          Compute it: {kinds.length.format(computed)} for a {kinds.length.format(beam.diameterMm)} beam, M²{' '}
          {beam.beamQuality}
        </Button>
      )}
    </>
  );
}
