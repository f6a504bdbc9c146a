import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { LineDirection } from '../../core/card/settings';
import { lagFit, offsetSigmaAt, type LagFit, type OffsetAtSpeed } from '../../core/fit/lag';
import { scanOffsetAt } from '../../core/motion/lag';
import { formatLength, formatSpeed, plainNumber } from '../../core/quantities/format';
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

export interface ScanOffsetFinding extends BaseFinding {
  /** The axis that the lines run along. */
  readonly direction: LineDirection;
  readonly pairs: readonly PairOffset[];
  /** Null where pairs of fewer than two speeds were told, or fewer than three pairs. */
  readonly law: LagFit | null;
  /** What undoes it at the fastest speed of the card, with its standard uncertainty. */
  readonly fastest: { readonly speedMmPerS: number; readonly offsetMm: number; readonly sigmaMm: number } | null;
}

/** Two bars a few millimetres apart are placed to no better than this by a photo: the card's scale and the lens there. */
const LEAST_SIGMA_MM = 0.003;
/** Pairs that scatter so much more than their own sigmas do not follow one lag. */
const MOST_MISFIT = 3;
/** A standing part within so many of its sigmas of none is none that shows. */
const SHOWS = 2;

const TOO_FAR =
  'The photo tells no pair of bars: 15 pixels to a millimetre are needed, and bars that stand clear of bare stock no further than half of their distance beside their place. Take the photo from closer by, or burn darker bars.';

/**
 * By how much the lines of the way back must be laid further along to meet those of the way there, over speed. Pairs that the operator called
 * incomplete are left out. What was set on the card is added: with it off, the finding is all of the machine's offset.
 */
export function findScanOffset(layout: Layout, seen: Seen, { pairing }: Known): ScanOffsetFinding {
  const liked = pairing.machine.likedUnits;
  const { direction } = mainBurn(layout.cells[0]!).settings;
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const pairs = layout.order
    .flatMap((cellIndex): PairOffset[] => {
      const bars = readings.get(cellIndex)?.bars;
      const word = wordOf(seen, BARS_FIELD, cellIndex);
      if (!bars || word === 'one' || word === 'nothing') return [];
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
  const none = { direction, pairs, law: null, fastest: null, says: '' };
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
    missing: [],
    says: `${offsetWords(offsetMm, sigmaMm, (mm) => formatLength(mm, liked, 2), formatSpeed(speedMmPerS, liked))} ${lagWords(law, (mm) => formatLength(mm, liked, 2))}`,
  };
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
