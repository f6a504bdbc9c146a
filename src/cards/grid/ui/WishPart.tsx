import { TicketPart } from '../../../components/BenchFrame';
import { Button } from '../../../components/Button';
import { CheckField, SelectField } from '../../../components/Field';
import { Notice } from '../../../components/Notice';
import { QuantityField } from '../../../components/QuantityField';
import { LIGHTNESS, type QuantityKinds } from '../../../components/quantity-kinds';
import { formatAgainstBare } from '../../../core/quantities/format';
import type { DarknessStop, GridFinding, GridWish, Pace } from '../find';
import styles from './Finding.module.css';

const STOPS: readonly DarknessStop[] = ['weak', 'medium', 'strong'];

interface Props {
  readonly finding: GridFinding;
  readonly wish: GridWish;
  readonly onWish: (wish: GridWish) => void;
  readonly onStop: (stop: DarknessStop) => void;
  /** Whether a photo on a light table was read. */
  readonly throughLight: boolean;
  readonly kinds: QuantityKinds;
}

/** How dark, how much power at most, how fast, how even and how clean; and the cell that is proposed for it. */
export function WishPart({ finding, wish, onWish, onStop, throughLight, kinds }: Props) {
  const { range, stops } = finding;
  if (!range || !stops) return null;
  const darkens = range.bare > range.strongest;
  return (
    <TicketPart title="What is wanted">
      <div className={styles.stops} role="group" aria-label="Strength of the mark">
        {STOPS.map((stop) => (
          <Button
            key={stop}
            aria-pressed={Math.abs((finding.wantedLightness ?? 0) - stops[stop]) < 0.5}
            onClick={() => {
              onWish({ ...wish, lightness: stops[stop] });
              onStop(stop);
            }}
          >
            {stop}
          </Button>
        ))}
      </div>
      <label className={styles.slider}>
        <span>
          Wanted <strong>{formatAgainstBare(finding.wantedLightness ?? 0, range.bare)}</strong>
        </span>
        <input
          type="range"
          min={Math.min(range.bare, range.strongest)}
          max={Math.max(range.bare, range.strongest)}
          step="0.5"
          value={finding.wantedLightness ?? 0}
          onChange={(event) => onWish({ ...wish, lightness: Number(event.target.value) })}
        />
        <span className={styles.ends}>
          <span>{darkens ? 'strongest cell' : 'bare stock'}</span>
          <span>{darkens ? 'bare stock' : 'strongest cell'}</span>
        </span>
      </label>
      <QuantityField
        label="Power cap"
        kind={kinds.power}
        value={wish.powerCap}
        onChange={(powerCap) =>
          powerCap !== null && powerCap > 0 && onWish({ ...wish, powerCap: Math.min(1, powerCap) })
        }
      />
      <SelectField
        label="Pace"
        value={wish.pace}
        onChange={(event) => onWish({ ...wish, pace: event.target.value as Pace })}
      >
        <option value="fast-and-strong">fast and strong: least time</option>
        <option value="slow-and-low">slow and low: minimum power</option>
      </SelectField>
      <QuantityField
        label="Unevenness at the most"
        hint="of the tone within a cell; empty for any"
        kind={LIGHTNESS}
        value={wish.unevenness ?? null}
        optional
        onChange={(unevenness) => (unevenness === null || unevenness > 0) && onWish({ ...wish, unevenness })}
      />
      <CheckField
        label="Only cells without residue"
        hint="by what you said of them: R at the look"
        checked={wish.clean ?? false}
        onChange={(event) => onWish({ ...wish, clean: event.target.checked })}
      />
      {throughLight && (
        <CheckField
          label="Only cells whose coat is off"
          hint="by the light table, whatever their tone"
          checked={wish.cleared ?? false}
          onChange={(event) => onWish({ ...wish, cleared: event.target.checked })}
        />
      )}
      <Notice look={finding.proposal ? 'plain' : 'straw'} title={finding.proposal ? 'Proposal' : 'No cell meets this'}>
        {finding.proposal?.reason ??
          (wish.cleared ? finding.says : null) ??
          'Widen the wish, or pick a cell by eye. Cells marked low-confidence count once you have graded them 4 or 5.'}
      </Notice>
    </TicketPart>
  );
}
