import { numbersOf, wordOf, type Ask, type Seen } from '../../core/card/asks';
import { DROP } from '../../core/card/usual-asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import type { Layout } from '../../core/card/layout';
import { oddReadings, outsideKerf } from '../../core/fit/kerf';
import { formatLength } from '../../core/quantities/format';
import type { Measured } from '../../core/stats/measured';

export const WIDTH_X = 'width-x';
export const WIDTH_Y = 'width-y';
const REPEATS = 3;
/** Step of usual digital calipers, and the error that their makers usually state (common practice). */
export const CALIPER = { resolution: 0.01, statedError: 0.02 } as const;

const width = (field: 'width-x' | 'width-y', along: string): Ask => ({
  field,
  by: 'gauge',
  of: 'cell',
  measures: field,
  question: `Its width along ${along}, measured at several places`,
  unit: 'mm',
  repeats: REPEATS,
  resolution: CALIPER.resolution,
});

export const KERF_ASKS: readonly Ask[] = [DROP, width(WIDTH_X, 'X'), width(WIDTH_Y, 'Y')];

/** What did not drop, or was not cut as it was meant to be. */
const STUCK: readonly string[] = ['knife', 'hangs', 'not-through', 'flare'];

export interface AxisKerf {
  readonly kerf: Measured;
  /** Cells whose readings stand out from the others; they are counted all the same. */
  readonly odd: readonly number[];
  readonly points: readonly { readonly cellIndex: number; readonly kerfMm: number }[];
}

export interface KerfFinding extends BaseFinding {
  readonly x: AxisKerf | null;
  readonly y: AxisKerf | null;
  /** Squares that did not drop: what is read of them is not the kerf of a clean cut. */
  readonly stuck: readonly number[];
}

function alongAxis(layout: Layout, seen: Seen, field: string, usable: readonly number[]): AxisKerf | null {
  const read = usable.map((index) => {
    const cell = layout.cells[index]!;
    return { cellIndex: index, drawnMm: cell.levels.size as number, readingsMm: numbersOf(seen, field, index) };
  });
  const points = read.flatMap(({ cellIndex, drawnMm, readingsMm }) =>
    readingsMm.map((reading) => ({ cellIndex, kerfMm: drawnMm - reading })),
  );
  if (points.length === 0) return null;
  const odd = oddReadings(
    points.map(({ kerfMm }) => kerfMm),
    CALIPER.resolution,
  ).map((index) => points[index]!.cellIndex);
  return { kerf: outsideKerf(read, CALIPER), odd: [...new Set(odd)], points };
}

/** Full kerf along each axis from what was read of the squares, with its uncertainty after the GUM; readings that stand out are named. */
export function findKerf(layout: Layout, seen: Seen, { pairing }: Known): KerfFinding {
  const liked = pairing.machine.likedUnits;
  const stuck = layout.order.filter((index) => STUCK.includes(wordOf(seen, DROP.field, index) ?? ''));
  const usable = layout.order.filter((index) => !stuck.includes(index));
  const x = alongAxis(layout, seen, WIDTH_X, usable);
  const y = alongAxis(layout, seen, WIDTH_Y, usable);
  const missing: string[] = [];
  if (usable.length === 0) missing.push('No square dropped: cut slower or with one pass more.');
  else if (!x && !y) missing.push('Measure the squares along X and along Y.');
  const few = [x, y].some((axis) => axis && axis.kerf.readings < 2);
  const grown = [x, y].find((axis) => axis && axis.kerf.mean + axis.kerf.expanded95 < 0);
  if (grown) missing.push('The squares measure larger than they were drawn: look at the drawn size and the readings.');
  const words = (axis: AxisKerf | null, name: string): string =>
    axis
      ? `along ${name} ${formatLength(axis.kerf.mean, liked, 3)} ± ${formatLength(axis.kerf.expanded95, liked, 2)} (95 %), ${formatLength(axis.kerf.mean / 2, liked, 3)} per side`
      : `along ${name} not measured`;
  const doubt = few ? ' One reading alone shows no scatter: take more.' : '';
  return {
    x,
    y,
    stuck,
    missing,
    says: missing.length > 0 ? '' : `Kerf, full width: ${words(x, 'X')}; ${words(y, 'Y')}.${doubt}`,
  };
}
