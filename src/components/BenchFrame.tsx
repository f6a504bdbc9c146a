import type { ReactNode } from 'react';
import { useNarrow } from './use-narrow';
import styles from './BenchFrame.module.css';

/** The three parts of a bench screen: ladder, mat, ticket. */
export function BenchFrame({
  title,
  ladder,
  mat,
  ticket,
  cardFirst = false,
  side = 'Ladder',
}: {
  title: ReactNode;
  ladder: ReactNode;
  mat: ReactNode;
  ticket: ReactNode;
  /** On a phone the card comes before the numbers: for looking and choosing. */
  cardFirst?: boolean;
  /** What stands where the ladder does. */
  side?: string;
}) {
  const narrow = useNarrow();
  return (
    <div className={`${styles.frame} ${cardFirst ? styles.cardFirst : ''}`}>
      <section className={styles.ladder} aria-label={side}>
        {title}
        {narrow ? (
          <details className={styles.fold}>
            <summary>{side}</summary>
            {ladder}
          </details>
        ) : (
          ladder
        )}
      </section>
      <section className={styles.mat} aria-label="Mat">
        {mat}
      </section>
      <section className={styles.ticket} aria-label="Ticket">
        {ticket}
      </section>
    </div>
  );
}

export function Figures({ rows }: { rows: readonly (readonly [label: string, value: ReactNode])[] }) {
  return (
    <dl className={styles.figures}>
      {rows.map(([label, value]) => (
        <div key={label}>
          <dt>{label}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

export function TicketPart({ title, children }: { title?: string; children: ReactNode }) {
  return (
    <div className={styles.part}>
      {title && <h2>{title}</h2>}
      {children}
    </div>
  );
}
