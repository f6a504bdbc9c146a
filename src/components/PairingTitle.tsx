import { SOURCE_NAMES } from '../core/machine/machine';
import type { Pairing } from '../core/card/contract';
import styles from './PairingTitle.module.css';

/** Whose bench this is: stock, machine, lens. */
export function PairingTitle({ pairing, href }: { pairing: Pairing; href?: string }) {
  const { machine, lens, stock } = pairing;
  return (
    <header className={styles.title}>
      <h1>
        <span className={styles.swatch} style={{ background: stock.colour }} aria-hidden="true" />
        {href ? <a href={href}>{stock.name}</a> : stock.name}
      </h1>
      <p>
        {machine.name}, {SOURCE_NAMES[machine.sourceKind]} {machine.ratedPowerW} W, lens {lens.name}
      </p>
    </header>
  );
}
