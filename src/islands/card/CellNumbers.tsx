import type { Ask, Seen } from '../../core/card/asks';
import type { Layout } from '../../core/card/layout';
import type { CellThrough } from '../../core/reading/backlit/observations';
import type { CellReading } from '../../core/reading/observations';
import { numberOf, numberSize, saidSize } from './cell-number';
import { saidSigns } from './look';
import styles from './LookStage.module.css';

interface Props {
  readonly layout: Layout;
  readonly asks: readonly Ask[];
  readonly seen: Seen;
  readonly readings: ReadonlyMap<number, CellReading>;
  /** What a light table shows, where its photo lies on the mat; null for what another one shows. */
  readonly throughs: ReadonlyMap<number, CellThrough> | null;
  readonly showNumbers: boolean;
  /** Whether the piece lies on the simulated light table, black where it stands and white where it is open. */
  readonly lit: boolean;
}

/** What was read and said of every cell, over it on the mat. */
export function CellNumbers({ layout, asks, seen, readings, throughs, showNumbers, lit }: Props) {
  return (
    <g className={`${styles.numbers} ${lit ? styles.lit : ''}`} aria-hidden="true">
      {layout.order.map((index) => {
        const { box } = layout.cells[index]!;
        const found = readings.get(index);
        const said = saidSigns(asks, seen, index).slice(0, 3).join(' ');
        const open = throughs?.get(index);
        const number = open ? (100 * open.through).toFixed(0) : found && numberOf(layout.cells[index]!, found);
        const isDark = open ? open.through < 0.2 : found !== undefined && found.lightness < 50;
        return (
          <g key={index} className={isDark ? styles.onDark : styles.onLight}>
            <rect className={styles.outline} {...box} />
            {showNumbers && number !== undefined && (
              <text x={box.x + box.width / 2} y={box.y + box.height / 2 - 0.1} fontSize={numberSize(box, number)}>
                {number}
              </text>
            )}
            {said.length > 0 && (
              <text x={box.x + box.width / 2} y={box.y + box.height * 0.86} fontSize={saidSize(box, said)}>
                {said}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
