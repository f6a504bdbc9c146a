import type { LadderRung } from '../core/book/ladder';
import styles from './Ladder.module.css';

const STATE_WORDS = {
  empty: 'open',
  predicted: 'predicted',
  measured: 'measured',
  stale: 'stale',
  stopped: 'stop',
} as const;

const wordOf = (rung: LadderRung): string =>
  rung.rung === 'safety' && rung.state === 'measured' ? 'cleared' : STATE_WORDS[rung.state];

/** The rungs of one pairing as bars of glass between two rails; the ground is at the bottom. */
export function Ladder({
  rungs,
  links,
  small = false,
}: {
  rungs: readonly LadderRung[];
  links?: Partial<Record<LadderRung['rung'], string>>;
  small?: boolean;
}) {
  const upwards = [...rungs].reverse();
  return (
    <ol
      className={`${styles.ladder} ${small ? styles.small : ''}`}
      aria-label="Ladder of this pairing, top rung first"
      reversed
    >
      {upwards.map((rung) => {
        const href = links?.[rung.rung];
        const inside = (
          <>
            <span className={styles.head}>
              <span className={styles.name}>{rung.name}</span>
              <span className={styles.state}>{wordOf(rung)}</span>
            </span>
            {!small && <span className={styles.value}>{rung.value || rung.question}</span>}
            {!small && rung.reason && <span className={styles.reason}>{rung.reason}</span>}
          </>
        );
        return (
          <li key={rung.rung} className={`${styles.rung} ${styles[rung.state]}`}>
            {href && !small ? (
              <a className={styles.bar} href={href}>
                {inside}
              </a>
            ) : (
              <span className={styles.bar}>{inside}</span>
            )}
          </li>
        );
      })}
    </ol>
  );
}
