import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { squareFillTimeS } from '../../core/card/fill-time';
import { mainBurn, type Layout } from '../../core/card/layout';
import { formatDuration, formatInterval } from '../../core/quantities/format';

export const LINES_FIELD = 'lines';

export const INTERVAL_ASKS: readonly Ask[] = [
  eyeAsk(LINES_FIELD, 'How does this strip look from where it will be seen?', [
    ['apart', 'l', 'lines show'],
    ['even', 'e', 'even'],
    ['mud', 'm', 'muddy'],
  ]),
];

/** The eye tells lines apart down to this pitch at 300 mm: one minute of arc for half a pitch (common practice). */
export const EYE_PITCH_MM = 0.175;

export interface JudgedStrip {
  readonly cellIndex: number;
  readonly intervalMm: number;
  readonly word: 'apart' | 'even' | 'mud';
  /** Seconds for a square of 100 mm. */
  readonly timeS: number;
}

export interface IntervalFinding extends BaseFinding {
  readonly strips: readonly JudgedStrip[];
  readonly intervalMm: number | null;
  readonly cellIndex: number | null;
  /** Standard uncertainty: the true limit lies somewhere up to the next coarser strip. */
  readonly sigmaMm: number | null;
}

const SQUARE_MM = 100;

/**
 * The coarsest interval that the eye called even: it costs the least time. Where no strip is even, or a coarser one is called muddy
 * than one whose lines show, what is missing is said instead.
 */
export function findInterval(layout: Layout, seen: Seen, { pairing }: Known): IntervalFinding {
  const liked = pairing.machine.likedUnits;
  const strips = layout.order
    .flatMap((index): JudgedStrip[] => {
      const word = wordOf(seen, LINES_FIELD, index) as JudgedStrip['word'] | null;
      if (word === null) return [];
      const { settings } = mainBurn(layout.cells[index]!);
      const timeS = squareFillTimeS(settings, pairing.machine, SQUARE_MM);
      return [{ cellIndex: index, intervalMm: settings.intervalMm, word, timeS }];
    })
    .sort((a, b) => a.intervalMm - b.intervalMm);
  const none = { strips, intervalMm: null, cellIndex: null, sigmaMm: null, says: '' };
  if (strips.length === 0)
    return { ...none, missing: ['Say of each strip whether lines show, it is even, or it is muddy.'] };
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
  const sigmaMm = coarser ? (coarser.intervalMm - chosen.intervalMm) / Math.sqrt(12) : null;
  const open = coarser ? '' : ' Coarser strips may be even too: none was tried.';
  const eye = chosen.intervalMm > EYE_PITCH_MM ? ' Nearer than 300 mm an eye may see such lines.' : '';
  return {
    strips,
    intervalMm: chosen.intervalMm,
    cellIndex: chosen.cellIndex,
    sigmaMm,
    missing: [],
    says: `${formatInterval(chosen.intervalMm, liked)} is the coarsest that looks even; 10 × 10 cm take ${formatDuration(chosen.timeS)}.${open}${eye}`,
  };
}
