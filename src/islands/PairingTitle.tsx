import type { BenchView } from '../app/views';
import type { LadderRung } from '../core/book/ladder';
import { SOURCE_NAMES, type Lens, type Machine } from '../core/machine/machine';
import type { Stock } from '../core/stock/stock';
import styles from './PairingTitle.module.css';

/** Whose bench this is: stock, machine, lens. */
export function PairingTitle({ pairing }: { pairing: { machine: Machine; lens: Lens; stock: Stock } }) {
  const { machine, lens, stock } = pairing;
  return (
    <header className={styles.title}>
      <h1>
        <span className={styles.swatch} style={{ background: stock.colour }} aria-hidden="true" />
        {stock.name}
      </h1>
      <p>
        {machine.name}, {SOURCE_NAMES[machine.sourceKind]} {machine.ratedPowerW} W, lens {lens.name}
      </p>
    </header>
  );
}

/** Where each rung of a bench leads. */
export function ladderLinks(
  view: Pick<BenchView, 'pairing' | 'cards' | 'settingId' | 'proposal'>,
): Partial<Record<LadderRung['rung'], string>> {
  const { pairing, cards, settingId, proposal } = view;
  const plan = `/bench/${pairing.id}/plan`;
  const read = cards.find((card) => card.stage === 'read');
  return {
    stock: `/stock/${pairing.stock.id}`,
    safety: `/stock/${pairing.stock.id}#safety`,
    // Nothing is planned where the material or the wavelength stops it.
    ...(proposal ? { range: plan, grid: plan } : {}),
    ...(read ? { grid: `/cards/${read.id}` } : {}),
    ...(settingId === null ? {} : { book: `/book/${settingId}` }),
  };
}
