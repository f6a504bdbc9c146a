import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { LineDirection } from '../../core/card/settings';
import { sweepLimits } from '../../core/machine/machine';
import { runUpMm as runUpNeeded } from '../../core/motion/move';
import { formatLength, formatSpeed, plainNumber } from '../../core/quantities/format';
import type { CellReading } from '../../core/reading/observations';
import { meanAndSpread } from '../../core/stats/robust';

export const ENDS_FIELD = 'ends';

export const RUN_UP_ASKS: readonly Ask[] = [
  { field: 'along', by: 'photo', measure: 'tone' },
  eyeAsk(ENDS_FIELD, 'How do the ends of this bar look against its middle?', [
    ['even', 'e', 'even'],
    ['strong', 's', 'burned more'],
    ['weak', 'w', 'burned less'],
  ]),
];

/** L* by which the ends of a bar may differ before an eye sees it, side by side (from memory, without a source). */
export const SEEN_L = 2;

/** The bars of one run-up. */
export interface JudgedRunUp {
  readonly runUpMm: number;
  /** L* by which the worse end is burned more than the middle, whichever way this stock turns; null where only the eye said something. */
  readonly strongerBy: number | null;
  readonly sigma: number | null;
  readonly sound: boolean;
  readonly by: 'eye' | 'photo';
  readonly cells: readonly number[];
}

export interface RunUpFinding extends BaseFinding {
  readonly direction: LineDirection;
  readonly speedMmPerS: number;
  readonly bars: readonly JudgedRunUp[];
  /** The shortest run-up from which on all bars are even; null where none is. */
  readonly leastMm: number | null;
  /** The longest that is not even; null where every one is. */
  readonly shortMm: number | null;
  /** The true limit lies anywhere between those two; null where nothing shorter was tried. */
  readonly sigmaMm: number | null;
}

/**
 * The shortest run-up from which on bars are as even at their ends as in their middle, by a photo, or by the eye where it said something: what it
 * says counts. A bar whose ends a photo is not sure of counts as uneven, since more run-up only costs time. Where the longest is not even yet, or
 * nothing was told of it, what is missing is said instead.
 */
export function findRunUp(layout: Layout, seen: Seen, { pairing }: Known): RunUpFinding {
  const { machine } = pairing;
  const liked = machine.likedUnits;
  const { direction, speedMmPerS } = mainBurn(layout.cells[0]!).settings;
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const levels = [...new Set(layout.order.map((index) => Number(layout.cells[index]!.levels.runUp)))].sort(
    (a, b) => a - b,
  );
  const bars = levels.flatMap((runUpMm): JudgedRunUp[] => {
    const cells = layout.order.filter((index) => layout.cells[index]!.levels.runUp === runUpMm);
    const words = cells.flatMap((index) => wordOf(seen, ENDS_FIELD, index) ?? []);
    const told = cells.flatMap((index) => readings.get(index) ?? []).flatMap((cell) => strongerAtEnds(cell) ?? []);
    if (words.length === 0 && told.length === 0) return [];
    const photo = told.length === 0 ? null : worseEnd(told);
    if (words.length > 0)
      return [
        {
          runUpMm,
          strongerBy: photo?.mean ?? null,
          sigma: photo?.sigma ?? null,
          sound: words.every((word) => word === 'even'),
          by: 'eye',
          cells,
        },
      ];
    const { mean, sigma } = photo!;
    return [{ runUpMm, strongerBy: mean, sigma, sound: Math.abs(mean) + sigma <= SEEN_L, by: 'photo', cells }];
  });
  const none = { direction, speedMmPerS, bars, leastMm: null, shortMm: null, sigmaMm: null, says: '' };
  if (bars.length === 0)
    return {
      ...none,
      missing: [
        seen.readings.length > 0
          ? 'The photo tells nothing of the ends: bars must be 6 mm long and stand clear. Say of each bar how its ends look.'
          : 'Say of each bar how its ends look against its middle, or let a photo be read.',
      ],
    };
  const longest = bars.at(-1)!;
  if (longest.runUpMm < levels.at(-1)!)
    return { ...none, missing: ['Nothing was told of the bars with the longest run-up: say how their ends look.'] };
  const short = bars.filter((bar) => !bar.sound).at(-1) ?? null;
  if (short === longest)
    return {
      ...none,
      shortMm: short.runUpMm,
      missing: [
        `Even ${formatLength(short.runUpMm, liked, 2)} leaves the ends uneven: burn longer run-ups, or slower. If longer ones change nothing, ends may be uneven for another reason, as a loose belt or a lens off its middle.`,
      ],
    };
  const least = bars.find((bar) => short === null || bar.runUpMm > short.runUpMm)!;
  const { accelerationMmPerS2 } = sweepLimits(machine, direction);
  const record = runUpNeeded(speedMmPerS, accelerationMmPerS2);
  const at = formatSpeed(speedMmPerS, liked);
  const says =
    least.runUpMm === 0
      ? `No run-up is needed at ${at}: bars are as even at their ends as in their middle without any.`
      : `${formatLength(least.runUpMm, liked, 2)} on each side is enough at ${at}; ${formatLength(record, liked, 2)} are what the recorded acceleration asks for.`;
  return {
    ...none,
    leastMm: least.runUpMm,
    shortMm: short?.runUpMm ?? null,
    sigmaMm: short ? (least.runUpMm - short.runUpMm) / Math.sqrt(12) : null,
    missing: [],
    says,
  };
}

/** By how much each end of a bar is burned more than its middle, in L* the way this burn turned; null where the photo does not tell it. */
function strongerAtEnds({
  ends,
  deltaLightness,
}: CellReading): { by: readonly [number, number]; sigma: number } | null {
  if (!ends || deltaLightness === 0) return null;
  const way = Math.sign(deltaLightness);
  return { by: [way * ends.first, way * ends.last], sigma: ends.sigma };
}

/**
 * The end of bars alike that lies further from their middle, by its mean over them, no surer than they scatter. Not the mean of both ends: one
 * burned more and one burned less are two faults, and none together.
 */
function worseEnd(bars: readonly { by: readonly [number, number]; sigma: number }[]): { mean: number; sigma: number } {
  const own = Math.sqrt(bars.reduce((sum, { sigma }) => sum + sigma ** 2, 0)) / bars.length;
  const [first, last] = ([0, 1] as const).map((end) => {
    const { mean, spread } = meanAndSpread(bars.map(({ by }) => by[end]));
    return { mean, sigma: Math.max(own, bars.length > 1 ? spread / Math.sqrt(bars.length) : 0) };
  }) as [{ mean: number; sigma: number }, { mean: number; sigma: number }];
  return Math.abs(first.mean) > Math.abs(last.mean) ? first : last;
}

/** What a photo or an eye says of one run-up, in words. */
export const judgedWords = ({ strongerBy, sigma, sound, by }: JudgedRunUp): string => {
  const tone =
    strongerBy === null ? '' : `worse end ${plainNumber(strongerBy, 2)} L* ± ${plainNumber(2 * sigma!, 1)} stronger, `;
  return `${tone}${sound ? 'even' : 'uneven'}${by === 'eye' ? ' by eye' : ''}`;
};
