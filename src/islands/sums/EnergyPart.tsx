import { Figures, TicketPart } from '../../components/BenchFrame';
import { Notice } from '../../components/Notice';
import page from '../../components/Page.module.css';
import { QuantityField } from '../../components/QuantityField';
import { COUNT } from '../../components/quantity-kinds';
import { speedForEqualEnergy } from '../../core/quantities/equal-energy';
import { formatSpeed } from '../../core/quantities/format';
import styles from '../SumsScreen.module.css';
import type { Sums } from './address';
import { told, type SumsPartProps } from './sums-parts';

/** Another power, other passes or lines, at the same energy. */
export function EnergyPart({ sums, onSet, kinds, liked }: SumsPartProps) {
  const { power, speed, passes, interval, newPower, newPasses, newInterval } = sums;
  const ready = power !== null && speed !== null && passes !== null && newPower !== null && newPasses !== null;
  const { told: newSpeed, why } = told(() =>
    ready
      ? speedForEqualEnergy(
          { powerFraction: power, speedMmPerS: speed, passes, intervalMm: interval },
          {
            powerFraction: newPower,
            passes: newPasses,
            intervalMm: interval === null ? null : (newInterval ?? interval),
          },
        )
      : null,
  );
  const field = (label: string, name: keyof Sums, kind: typeof kinds.power, optional = false) => (
    <QuantityField
      label={label}
      kind={kind}
      optional={optional}
      value={sums[name]}
      onChange={(value) => onSet({ [name]: value })}
    />
  );
  return (
    <section className={page.group} aria-label="Equal energy">
      <h2>Equal energy</h2>
      <div className={styles.pair}>
        <div>
          {field('Power that works', 'power', kinds.power)}
          {field('Speed', 'speed', kinds.speed)}
          {field('Passes', 'passes', COUNT)}
          {field('Line interval, for fills', 'interval', kinds.interval, true)}
        </div>
        <div>
          {field('Power now', 'newPower', kinds.power)}
          {field('Passes now', 'newPasses', COUNT)}
          {interval !== null && field('Line interval now', 'newInterval', kinds.interval, true)}
        </div>
      </div>
      {why !== '' && <Notice look="heat">{why}</Notice>}
      {newSpeed !== null && (
        <TicketPart>
          <Figures
            rows={[
              ['Speed now', `${formatSpeed(newSpeed, liked)}, ${formatSpeed(newSpeed, { ...liked, speed: 'mm/min' })}`],
            ]}
          />
          <Notice look="straw">
            A first guess: equal energy cuts and engraves about alike, but no setting carries over surely. Burn a small
            card.
          </Notice>
        </TicketPart>
      )}
    </section>
  );
}
