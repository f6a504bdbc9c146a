import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { squareFillTimeS } from '../../core/card/fill-time';
import { mainBurn, type Layout } from '../../core/card/layout';
import { likedBest, likedWords, surelyLiked, type LikedBest } from '../../core/card/liked';
import { BETTER } from '../../core/card/usual-asks';
import { formatDuration, formatInterval } from '../../core/quantities/format';
import { eyeSeesLines } from '../../core/reading/lines/by-the-eye';

export const LINES_FIELD = 'lines';

export const INTERVAL_ASKS: readonly Ask[] = [
  { field: 'fill', by: 'photo', measure: 'lines' },
  eyeAsk(LINES_FIELD, 'How does this strip look from where it will be seen?', [
    ['apart', 'l', 'lines show'],
    ['even', 'e', 'even'],
    ['mud', 'm', 'muddy'],
  ]),
  BETTER,
];

/** From where a piece in the hand is looked at. */
const VIEWED_FROM_MM = 300;
/** The eye tells lines apart down to this pitch from there: one minute of arc for half a pitch (common practice). */
const EYE_PITCH_MM = 0.175;

export interface JudgedStrip {
  readonly cellIndex: number;
  readonly intervalMm: number;
  readonly word: 'apart' | 'even' | 'mud';
  readonly by: 'eye' | 'photo';
  /** Seconds for a square of 100 mm. */
  readonly timeS: number;
}

export interface IntervalFinding extends BaseFinding {
  readonly strips: readonly JudgedStrip[];
  /** Strips that neither eye nor photo settles: what the photo shows of their lines is too near what an eye just sees, or too coarse. */
  readonly undecided: readonly number[];
  readonly intervalMm: number | null;
  readonly cellIndex: number | null;
  /** The next coarser strip: the true limit lies somewhere up to it; null where none was coarser. */
  readonly upToMm: number | null;
  /** Standard uncertainty, by how far that is, and by how eyes differ. */
  readonly sigmaMm: number | null;
  /** What the operator likes best of the strips that were compared; it goes before what their lines say where it is sure. */
  readonly liked: LikedBest | null;
}

const SQUARE_MM = 100;
/** One pair of eyes still sees lines that another does not, at intervals that differ by this share: one standard deviation, from memory. */
const EYES_DIFFER = 0.04;

/**
 * The strip that the operator likes best, where comparisons of two at a time make that sure, or else what `byTheLines` of all strips says; that stands
 * beside it then.
 */
export function findInterval(layout: Layout, seen: Seen, known: Known): IntervalFinding {
  const units = known.pairing.machine.likedUnits;
  const liked = likedBest(layout, seen);
  const lines = byTheLines(layout, seen, known);
  const top = surelyLiked(liked);
  if (!liked || !top) return { ...lines, liked };
  const intervals = layout.order.map((index) => mainBurn(layout.cells[index]!).settings.intervalMm);
  const { intervalMm } = mainBurn(layout.cells[top.cellIndex]!).settings;
  const coarser = intervals.filter((other) => other > intervalMm);
  const upToMm = coarser.length > 0 ? Math.min(...coarser) : null;
  const beside =
    lines.intervalMm === null || lines.intervalMm === intervalMm
      ? ''
      : ` By its lines it would be ${formatInterval(lines.intervalMm, units)}.`;
  return {
    ...lines,
    liked,
    intervalMm,
    cellIndex: top.cellIndex,
    upToMm,
    sigmaMm: sigmaOf(intervalMm, upToMm),
    missing: [],
    says: `${formatInterval(intervalMm, units)} is ${likedWords(liked, 'strips')}.${beside}`,
  };
}

/** Up to the next coarser strip the true limit may lie anywhere. */
const sigmaOf = (intervalMm: number, upToMm: number | null): number | null =>
  upToMm === null ? null : Math.hypot((upToMm - intervalMm) / Math.sqrt(12), EYES_DIFFER * intervalMm);

/**
 * The coarsest interval that looks even, to the eye or, where it said nothing, by what a photo shows of the lines: it costs the least time. That a
 * strip is muddy only the eye says. Where no strip is even, or a coarser one is than one whose lines show, what is missing is said instead.
 */
function byTheLines(layout: Layout, seen: Seen, { pairing }: Known): Omit<IntervalFinding, 'liked'> {
  const liked = pairing.machine.likedUnits;
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const undecided: number[] = [];
  const strips = layout.order
    .flatMap((index): JudgedStrip[] => {
      const { settings } = mainBurn(layout.cells[index]!);
      const { intervalMm } = settings;
      const said = wordOf(seen, LINES_FIELD, index) as JudgedStrip['word'] | null;
      const reading = readings.get(index);
      const shows = reading ? eyeSeesLines(reading.lines, intervalMm, VIEWED_FROM_MM) : null;
      const word = said ?? (shows === null ? null : shows ? 'apart' : 'even');
      if (word === null) {
        if (reading) undecided.push(index);
        return [];
      }
      const timeS = squareFillTimeS(settings, pairing.machine, SQUARE_MM);
      return [{ cellIndex: index, intervalMm, word, by: said === null ? 'photo' : 'eye', timeS }];
    })
    .sort((a, b) => a.intervalMm - b.intervalMm);
  const none = { strips, undecided, intervalMm: null, cellIndex: null, upToMm: null, sigmaMm: null, says: '' };
  if (strips.length === 0)
    return {
      ...none,
      missing: [
        undecided.length > 0
          ? 'The photo is too coarse for these lines, or they are too near what an eye just sees: say of each strip how it looks.'
          : 'Say of each strip whether lines show, it is even, or it is muddy, or let a photo be read.',
      ],
    };
  const even = strips.filter((strip) => strip.word === 'even');
  const chosen = even.at(-1);
  if (!chosen) {
    const apart = strips.every((strip) => strip.word === 'apart');
    const mud = strips.every((strip) => strip.word === 'mud');
    return {
      ...none,
      missing: [
        apart
          ? 'Lines show in every strip: burn finer ones, or widen the mark a little out of focus.'
          : mud
            ? 'Every strip is muddy: burn coarser ones, or less power.'
            : 'No strip is even: burn strips between the last muddy one and the first whose lines show.',
      ],
    };
  }
  const finerApart = strips.find((strip) => strip.word === 'apart' && strip.intervalMm < chosen.intervalMm);
  if (finerApart)
    return {
      ...none,
      missing: [
        `Lines show at ${formatInterval(finerApart.intervalMm, liked)} but not at the coarser ${formatInterval(chosen.intervalMm, liked)}: look again at both.`,
      ],
    };
  const coarser = strips.find((strip) => strip.intervalMm > chosen.intervalMm);
  const upToMm = coarser?.intervalMm ?? null;
  const open = coarser ? '' : ' Coarser strips may be even too: none was tried.';
  const eye = chosen.intervalMm > EYE_PITCH_MM ? ' Nearer than 300 mm an eye may see such lines.' : '';
  const doubt =
    undecided.length > 0
      ? ` ${undecided.length === 1 ? 'One strip' : `${undecided.length} strips`} could not be told: look there by eye.`
      : '';
  return {
    strips,
    undecided,
    intervalMm: chosen.intervalMm,
    cellIndex: chosen.cellIndex,
    upToMm,
    sigmaMm: sigmaOf(chosen.intervalMm, upToMm),
    missing: [],
    says: `${formatInterval(chosen.intervalMm, liked)} is the coarsest that looks even; 10 × 10 cm take ${formatDuration(chosen.timeS)}.${open}${eye}${doubt}`,
  };
}
