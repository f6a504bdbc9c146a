import type { LadderRung } from '../core/book/ladder';
import { dayOf } from '../core/quantities/day';
import styles from './Ladder.module.css';

const STATE_WORDS = {
  empty: 'open',
  predicted: 'predicted',
  measured: 'measured',
  stale: 'stale',
  stopped: 'stop',
} as const;

/** Feet that carry their name. */
const NAMED: ReadonlySet<LadderRung['foot']> = new Set(['engrave', 'cut', 'machine']);

const wordOf = (rung: LadderRung): string =>
  rung.rung === 'safety' && rung.state === 'measured' ? 'looked at' : STATE_WORDS[rung.state];

function Bar({ rung, small }: { rung: LadderRung; small: boolean }) {
  const stands = rung.standsOn.length > 0 ? `Stands on: ${rung.standsOn.join(', ')}.` : '';
  const since = rung.since ? ` Since ${dayOf(rung.since)}.` : '';
  const inside = (
    <>
      <span className={styles.head}>
        <span className={styles.name}>{rung.name}</span>
        <span className={styles.state}>{wordOf(rung)}</span>
      </span>
      {!small && rung.value && (
        <span className={styles.value} title={rung.value}>
          {rung.value}
        </span>
      )}
      {!small && rung.reason && (
        <span className={styles.reason} title={rung.reason}>
          {rung.reason}
        </span>
      )}
    </>
  );
  const title = `${rung.question} ${stands}${since}`.trim();
  return rung.href && !small ? (
    <a className={styles.bar} href={rung.href} title={title}>
      {inside}
    </a>
  ) : (
    <span className={styles.bar} title={title}>
      {inside}
    </span>
  );
}

/**
 * The rungs of one pairing as bars of glass between two rails: the engrave and cut sides above the common step, and under that, side by side, what
 * holds for every stock of the machine.
 */
export function Ladder({ rungs, small = false }: { rungs: readonly LadderRung[]; small?: boolean }) {
  const foot = (which: LadderRung['foot'], name: string) => {
    const upwards = rungs.filter((rung) => rung.foot === which).reverse();
    if (upwards.length === 0) return null;
    return (
      <div className={`${styles.foot} ${styles[which]}`}>
        {!small && NAMED.has(which) && (
          <p className={styles.side} aria-hidden="true">
            {name}
          </p>
        )}
        <ol className={styles.rungs} aria-label={`${name}, top rung first`} reversed>
          {upwards.map((rung) => (
            <li key={rung.rung} className={`${styles.rung} ${styles[rung.state]}`}>
              <Bar rung={rung} small={small} />
            </li>
          ))}
        </ol>
      </div>
    );
  };
  return (
    <div className={`${styles.ladder} ${small ? styles.small : ''}`}>
      <div className={styles.sides}>
        {foot('engrave', 'Engrave')}
        {foot('cut', 'Cut')}
      </div>
      {foot('common', 'Common step')}
      {foot('machine', 'Machine')}
    </div>
  );
}
