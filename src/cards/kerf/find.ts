import { numbersOf, wordOf, type Ask, type Seen } from '../../core/card/asks';
import { CALIPER, caliperAsk } from '../../core/card/caliper-ask';
import { DROP } from '../../core/card/usual-asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import type { Layout } from '../../core/card/layout';
import { farOff } from '../../core/card/gauge-reading';
import { kerfAlong, oddReadings, type KerfAlong } from '../../core/fit/kerf';
import { formatLength, plainNumber } from '../../core/quantities/format';

const REPEATS = 3;
const OF_SIZE = { repeats: REPEATS, near: 'size' } as const;

export const KERF_ASKS: readonly Ask[] = [
  DROP,
  caliperAsk('width-x', 'Its width along X, by the outside jaws at several places', OF_SIZE),
  caliperAsk('width-y', 'Its width along Y, by the outside jaws at several places', OF_SIZE),
  caliperAsk('hole-x', 'The hole it left, along X, by the inside jaws', OF_SIZE),
  caliperAsk('hole-y', 'The hole it left, along Y, by the inside jaws', OF_SIZE),
];

/** No caliper tells less. */
export const thousandth = (mm: number): number => Math.round(mm * 1000) / 1000;

/** What did not drop, or was not cut as it was meant to be. */
const STUCK: readonly string[] = ['knife', 'hangs', 'not-through', 'flare'];

export interface KerfPoint {
  readonly cellIndex: number;
  readonly side: 'part' | 'hole';
  readonly kerfMm: number;
}

export interface AxisKerf extends KerfAlong {
  /** Cells whose readings stand out from the others; they are counted all the same. */
  readonly odd: readonly number[];
  readonly points: readonly KerfPoint[];
  /** What a square measures, and a hole: both, or one of them alone. */
  readonly sides: 'both' | 'part' | 'hole';
}

export interface KerfFinding extends BaseFinding {
  readonly x: AxisKerf | null;
  readonly y: AxisKerf | null;
  /** Squares that did not drop: what is read of them is not the kerf of a clean cut. */
  readonly stuck: readonly number[];
}

function alongAxis(layout: Layout, seen: Seen, axis: 'x' | 'y', usable: readonly number[]): AxisKerf | null {
  const pieces = usable.flatMap((cellIndex) =>
    (['part', 'hole'] as const).map((side) => ({
      cellIndex,
      side,
      drawnMm: layout.cells[cellIndex]!.levels.size as number,
      readingsMm: numbersOf(seen, `${side === 'part' ? 'width' : 'hole'}-${axis}`, cellIndex),
    })),
  );
  const points = pieces.flatMap(({ cellIndex, side, drawnMm, readingsMm }) =>
    readingsMm.map((reading) => ({ cellIndex, side, kerfMm: side === 'part' ? drawnMm - reading : reading - drawnMm })),
  );
  if (points.length === 0) return null;
  // Squares and holes differ by what the jaws and the axis are off by: each is held against its own kind.
  const odd = (['part', 'hole'] as const).flatMap((side) => {
    const own = points.filter((point) => point.side === side);
    return oddReadings(
      own.map(({ kerfMm }) => kerfMm),
      CALIPER.resolution,
    ).map((index) => own[index]!.cellIndex);
  });
  const sides = new Set(points.map(({ side }) => side));
  return {
    ...kerfAlong(pieces, CALIPER),
    odd: [...new Set(odd)].sort((a, b) => a - b),
    points,
    sides: sides.size === 2 ? 'both' : points[0]!.side,
  };
}

/** Readings that are no widths of what was drawn, in words: of another unit, or of something else. */
function strangeReadings(layout: Layout, seen: Seen, usable: readonly number[]): string[] {
  return usable.flatMap((cellIndex) =>
    KERF_ASKS.flatMap((ask) => {
      if (ask.by !== 'gauge') return [];
      const drawnMm = layout.cells[cellIndex]!.levels.size as number;
      return numbersOf(seen, ask.field, cellIndex).flatMap((reading) => {
        const why = farOff(reading, drawnMm);
        return why === null ? [] : [`Square ${cellIndex + 1}: ${why}`];
      });
    }),
  );
}

/**
 * Full kerf along each axis from what was read of the squares and their holes, with its uncertainty after the GUM, and how far the axis
 * itself goes wrong where two sizes tell; readings that stand out are named.
 */
export function findKerf(layout: Layout, seen: Seen, { pairing }: Known): KerfFinding {
  const liked = pairing.machine.likedUnits;
  const stuck = layout.order.filter((index) => STUCK.includes(wordOf(seen, DROP.field, index) ?? ''));
  const usable = layout.order.filter((index) => !stuck.includes(index));
  const missing = strangeReadings(layout, seen, usable);
  const [x, y] =
    missing.length > 0 ? [null, null] : (['x', 'y'] as const).map((axis) => alongAxis(layout, seen, axis, usable));
  if (usable.length === 0) missing.push('No square dropped: cut slower or with one pass more.');
  else if (missing.length === 0 && !x && !y) missing.push('Measure the squares along X and along Y.');
  const measured = [x, y].flatMap((axis) => axis ?? []);
  if (measured.some(({ kerf }) => kerf.mean + kerf.expanded95 < 0))
    missing.push(
      'What was cut measures as if the cut had added something: look at the drawn size, at which reading is the square’s and which the hole’s.',
    );
  const words = (axis: AxisKerf | null | undefined, name: string): string =>
    axis
      ? `along ${name} ${formatLength(axis.kerf.mean, liked, 3)} ± ${formatLength(axis.kerf.expanded95, liked, 2)} (95 %), ${formatLength(thousandth(axis.kerf.mean / 2), liked, 3)} per side`
      : `along ${name} not measured`;
  const few = measured.some(({ kerf }) => kerf.readings < 2);
  return {
    x: x ?? null,
    y: y ?? null,
    stuck,
    missing,
    says:
      missing.length > 0
        ? ''
        : [
            `Kerf, full width: ${words(x, 'X')}; ${words(y, 'Y')}.`,
            ...(few ? ['One reading alone shows no scatter: take more.'] : []),
          ].join(' '),
  };
}

/** What would make a kerf surer. */
export function surerBy({ kerf, sides, halvedBy }: AxisKerf): string {
  if (sides === 'part')
    return 'Measure the holes too: half of what hole and square differ by is the kerf, whatever the size was drawn and the caliper’s zero.';
  if (sides === 'hole')
    return 'Measure the squares too: half of what hole and square differ by is the kerf, whatever the size was drawn and the caliper’s zero.';
  if (halvedBy === null) return 'More readings would not halve the doubt: most of it is the caliper’s own error.';
  const more = Math.ceil(kerf.readings * (halvedBy - 1));
  return `About ${plainNumber(more, 2)} readings more would halve the doubt.`;
}

/** How far an axis goes for what it is told, in words; null where one size alone tells nothing of it. */
export function scaleWords({ scale }: AxisKerf): string | null {
  if (scale === null) return null;
  const per100 = (share: number): string => `${plainNumber(Math.abs(100 * share), 2)} mm`;
  if (Math.abs(scale.mean) <= scale.expanded95) return `true, to ${per100(scale.expanded95)} in 100 mm`;
  return `${per100(scale.mean)} in 100 mm too ${scale.mean > 0 ? 'far' : 'short'}, ± ${per100(scale.expanded95)}`;
}
