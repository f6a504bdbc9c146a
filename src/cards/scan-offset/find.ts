import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { mainBurn, type Cell, type Layout } from '../../core/card/layout';
import type { LineDirection } from '../../core/card/settings';
import { dotFit, type DotFit, type DotSeen } from '../../core/fit/dot-length';
import { lagFit, offsetSigmaAt, type LagFit, type OffsetAtSpeed } from '../../core/fit/lag';
import { shorterAt } from '../../core/motion/dot-length';
import { scanOffsetAt } from '../../core/motion/lag';
import { formatLength, formatSpeed, plainNumber } from '../../core/quantities/format';
import { barsOf, type BarsSeen } from '../../core/reading/lines/bars-of-cell';
import { offsetBetween } from '../../core/reading/lines/single-line';

export const BARS_FIELD = 'bars';

export const SCAN_OFFSET_ASKS: readonly Ask[] = [
  { field: 'apart', by: 'photo', measure: 'lines' },
  eyeAsk(BARS_FIELD, 'Do both bars stand there?', [
    ['both', 'b', 'both'],
    ['one', 'o', 'only one'],
    ['nothing', 'n', 'nothing'],
  ]),
];

/** What a pair of bars asks for. */
export interface PairOffset extends OffsetAtSpeed {
  readonly cellIndex: number;
}

/** How much longer than drawn the two bars of a pair came out along the sweep. */
export interface PairLength extends DotSeen {
  readonly cellIndex: number;
}

/** How long a dot comes out by speed, along the lines: every line of a bar is one. */
export interface DotsFound {
  readonly pairs: readonly PairLength[];
  /** Null where too few were told, or they scatter too much; then with what is missing. */
  readonly law: DotFit | null;
  readonly missing: string;
  /** How much longer than drawn a dot comes out at the fastest speed, and how much shorter than at rest that is. */
  readonly fastest: { readonly longerMm: number; readonly shorterMm: number; readonly shorterSigmaMm: number } | null;
}

export interface ScanOffsetFinding extends BaseFinding {
  /** The axis that the lines run along. */
  readonly direction: LineDirection;
  readonly pairs: readonly PairOffset[];
  /** Null where pairs of fewer than two speeds were told, or fewer than three pairs. */
  readonly law: LagFit | null;
  /** What undoes it at the fastest speed of the card, with its standard uncertainty. */
  readonly fastest: { readonly speedMmPerS: number; readonly offsetMm: number; readonly sigmaMm: number } | null;
  readonly dots: DotsFound;
}

/** Two bars a few millimetres apart are placed to no better than this by a photo: the card's scale and the lens there. */
const LEAST_SIGMA_MM = 0.003;
/** Pairs that scatter so much more than their own sigmas do not follow one lag. */
const MOST_MISFIT = 3;
/** A standing part within so many of its sigmas of none is none that shows. */
const SHOWS = 2;

/** Pairs with more energy than so many times the strongest of the fastest ones are left out. */
const ALIKE = 1.1;

/** Dots are drawn longer by what is surer than this, as a standard uncertainty: by less, drawing them as they are is as right. */
const MOST_DOUBT_MM = 0.01;

const NO_DOTS: DotsFound = { pairs: [], law: null, missing: '', fastest: null };

const TOO_FAR =
  'The photo tells no pair of bars: 15 pixels to a millimetre are needed, and bars that stand clear of bare stock no further than half of their distance beside their place. Take the photo from closer by, or burn darker bars.';

/**
 * By how much the lines of the way back must be laid further along to meet those of the way there, over speed. Pairs that the operator called
 * incomplete are left out. What was set on the card is added: with it off, the finding is all of the machine's offset.
 */
export function findScanOffset(layout: Layout, seen: Seen, { pairing }: Known): ScanOffsetFinding {
  const liked = pairing.machine.likedUnits;
  const { direction } = mainBurn(layout.cells[0]!).settings;
  const pairs = layout.order
    .flatMap((cellIndex): PairOffset[] => {
      const bars = barsSeen(seen, cellIndex);
      if (!bars) return [];
      const { speedMmPerS, scanOffsetMm } = mainBurn(layout.cells[cellIndex]!).settings;
      const apart = offsetBetween(bars.there, bars.back);
      return [
        {
          cellIndex,
          speedMmPerS,
          offsetMm: scanOffsetMm + apart.mm,
          sigmaMm: Math.hypot(LEAST_SIGMA_MM, apart.sigmaMm),
        },
      ];
    })
    .sort((a, b) => a.speedMmPerS - b.speedMmPerS || a.cellIndex - b.cellIndex);
  const dots = dotsOf(layout, seen, pairing);
  const none = { direction, pairs, law: null, fastest: null, dots, says: '' };
  if (seen.readings.length === 0)
    return { ...none, missing: ['No photo of this card was read yet: it tells how far the bars lie from each other.'] };
  if (pairs.length === 0) return { ...none, missing: [TOO_FAR] };
  const law = lagFit(pairs);
  if (!law)
    return {
      ...none,
      missing: ['Too few pairs were told: three of at least two speeds say whether the offset grows with speed.'],
    };
  if (law.misfit > MOST_MISFIT)
    return {
      ...none,
      missing: [
        `Pairs scatter ${plainNumber(law.misfit, 2)} times as much as the photo’s own doubt: no one lag explains them. Look at the bars that lie off the line, and burn the card again where the sheet moved or a belt slips.`,
      ],
    };
  const speedMmPerS = law.toMmPerS;
  const offsetMm = scanOffsetAt(law, speedMmPerS);
  const sigmaMm = offsetSigmaAt(law, speedMmPerS);
  return {
    direction,
    pairs,
    law,
    fastest: { speedMmPerS, offsetMm, sigmaMm },
    dots,
    missing: [],
    says: [
      offsetWords(offsetMm, sigmaMm, (mm) => formatLength(mm, liked, 2), formatSpeed(speedMmPerS, liked)),
      lagWords(law, (mm) => formatLength(mm, liked, 2)),
      dotWords(dots, (mm) => formatLength(mm, liked, 2), formatSpeed(speedMmPerS, liked)),
    ]
      .filter(Boolean)
      .join(' '),
  };
}

/** A pair's bars as the photo has them; null where it tells none, or where the operator sees no more than one. */
function barsSeen(seen: Seen, cellIndex: number): BarsSeen | null {
  const word = wordOf(seen, BARS_FIELD, cellIndex);
  if (word === 'one' || word === 'nothing') return null;
  return seen.readings.find((reading) => reading.cellIndex === cellIndex)?.bars ?? null;
}

/** How much longer than drawn both bars of a cell came out, in the mean, and how deep; null where the photo tells no widths. */
function dotsOfCell(cell: Cell, { there, back }: BarsSeen): PairLength | null {
  const drawn = barsOf(cell);
  if (!drawn || there.widthMm === null || back.widthMm === null) return null;
  const { direction, lengthenMm, speedMmPerS } = mainBurn(cell).settings;
  const along = direction === 'horizontal' ? drawn.there.width : drawn.there.height;
  return {
    cellIndex: cell.index,
    speedMmPerS,
    longerMm: (there.widthMm + back.widthMm) / 2 - along - lengthenMm,
    sigmaMm: Math.hypot(LEAST_SIGMA_MM, there.widthSigmaMm!, back.widthSigmaMm!) / Math.SQRT2,
    depth: ((there.depth ?? NaN) + (back.depth ?? NaN)) / 2,
  };
}

/** Two energies that differ by this factor are two. */
const APART = 1.1;

/** Whether pairs of two energies were told at two speeds or more: without them, what noise makes of depth would pass for how length goes with it. */
function tellsDepth(pairs: readonly PairLength[], energyOf: (cellIndex: number) => number): boolean {
  const speeds = [...new Set(pairs.map(({ speedMmPerS }) => speedMmPerS))];
  const hasBoth = (speed: number): boolean => {
    const own = pairs.filter(({ speedMmPerS }) => speedMmPerS === speed).map(({ cellIndex }) => energyOf(cellIndex));
    return Math.max(...own) >= APART * Math.min(...own);
  };
  return speeds.filter(hasBoth).length >= 2;
}

/** The law of the dots, by the pairs that got about as much energy as those of the fastest speed: far from there depth says no more how long a mark is. */
function dotsOf(layout: Layout, seen: Seen, pairing: Pairing): DotsFound {
  const energy = (cell: Cell): number => deliveredBy(mainBurn(cell).settings, pairing).lineJPerMm;
  const burned = layout.cells.filter(({ leftOut }) => !leftOut);
  const most = Math.max(...burned.map((cell) => mainBurn(cell).settings.speedMmPerS));
  const atMost = burned.filter((cell) => mainBurn(cell).settings.speedMmPerS === most);
  const strongest = Math.max(...atMost.map(energy));
  const alike = burned.filter((cell) => energy(cell) <= ALIKE * strongest);
  const pairs = alike
    .flatMap((cell) => {
      const bars = barsSeen(seen, cell.index);
      return (bars && dotsOfCell(cell, bars)) ?? [];
    })
    .filter(({ depth }) => Number.isFinite(depth))
    .sort((a, b) => a.speedMmPerS - b.speedMmPerS || a.cellIndex - b.cellIndex);
  if (pairs.length === 0 && !seen.readings.some(({ bars }) => bars)) return NO_DOTS;
  const law = tellsDepth(pairs, (index) => energy(layout.cells[index]!)) ? dotFit(pairs) : null;
  const untold = (why: string): DotsFound => ({
    ...NO_DOTS,
    pairs,
    missing: `How long dots come out is not told: ${why}`,
  });
  if (!law) {
    if (alike.length < burned.length)
      return untold('the source fires no weaker, so that slower bars got much more energy. Raise the slowest speed.');
    return untold(
      pairs.length === 0
        ? 'no bars show their width. Take the photo from closer by.'
        : 'that takes pairs of two energies at two speeds. Burn at least two of each, and take the photo so that they show.',
    );
  }
  if (law.misfit > MOST_MISFIT) return untold('bars scatter by more than the photo does.');
  const shorterMm = shorterAt(law, law.toMmPerS);
  const shorterSigmaMm = law.slowOnSigmaS * law.toMmPerS;
  if (shorterSigmaMm > MOST_DOUBT_MM) {
    const doubt = formatLength(2 * shorterSigmaMm, pairing.machine.likedUnits, 1);
    return untold(`this photo leaves ± ${doubt}. Burn darker bars, or take it from closer by.`);
  }
  return {
    pairs: pairs.map((pair, at) => ({ ...pair, ...law.atOneDepth[at]! })),
    law,
    missing: '',
    fastest: { longerMm: law.standingMm - shorterMm, shorterMm, shorterSigmaMm },
  };
}

function dotWords({ law, fastest, missing }: DotsFound, length: (mm: number) => string, speed: string): string {
  if (!law || !fastest) return missing;
  const { shorterMm, shorterSigmaMm } = fastest;
  if (Math.abs(shorterMm) <= SHOWS * shorterSigmaMm)
    return `Dots are as long at ${speed} as at rest, to ${length(SHOWS * shorterSigmaMm)}.`;
  const late = `${plainNumber(Math.abs(law.slowOnS) * 1000, 2)} ms`;
  return shorterMm > 0
    ? `At ${speed} dots come out ${length(shorterMm)} shorter than at rest: the beam comes on ${late} later than it goes out.`
    : `At ${speed} dots come out ${length(-shorterMm)} longer than at rest: the beam goes out ${late} later than it comes on.`;
}

function offsetWords(offsetMm: number, sigmaMm: number, length: (mm: number) => string, speed: string): string {
  if (Math.abs(offsetMm) <= SHOWS * sigmaMm) return `Both ways meet at ${speed}, to ${length(SHOWS * sigmaMm)}.`;
  const where = offsetMm < 0 ? 'less far' : 'further';
  return `At ${speed} lay the lines of the way back ${length(Math.abs(offsetMm))} ${where} along.`;
}

/** What is behind an offset, in words. */
function lagWords({ lagS, lagSigmaS, standingMm, standingSigmaMm }: LagFit, length: (mm: number) => string): string {
  const late = Math.abs(lagS) > SHOWS * lagSigmaS;
  const stands = Math.abs(standingMm) > SHOWS * standingSigmaMm;
  const lag = `${plainNumber(Math.abs(lagS) * 1000, 2)} ms ${lagS > 0 ? 'late' : 'early'}`;
  const play = `${length(Math.abs(standingMm))} stands at every speed, as play in the drive makes it`;
  if (late && stands) return `The beam is ${lag}, and ${play}.`;
  if (late) return `The beam is ${lag}: the offset grows with speed.`;
  return stands ? `${play[0]!.toUpperCase()}${play.slice(1)}.` : '';
}
