import { numbersOf, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { farOff } from '../../core/card/gauge-reading';
import type { Layout } from '../../core/card/layout';
import type { BurnSettings } from '../../core/card/settings';
import { caliperAsk } from '../../core/card/caliper-ask';
import { DROP } from '../../core/card/usual-asks';
import { meanAndSpread } from '../../core/stats/robust';
import { formatLength } from '../../core/quantities/format';
import { FOCUS_WAYS, type FocusWay } from './plan';

const OF_SIZE = { repeats: 2, near: 'size' } as const;

export const CUT_FOCUS_ASKS: readonly Ask[] = [
  DROP,
  caliperAsk('width-x', 'Its width along X at the lower face, jaws flat on it', OF_SIZE),
  caliperAsk('top-x', 'Its width along X at the upper face, by the tips of the jaws', OF_SIZE),
];

export const WAY_WORDS: Readonly<Record<FocusWay, string>> = {
  top: 'on the face',
  middle: 'in the middle of the sheet',
  stepped: 'lower with each pass',
};

/** What became of the squares of one way. */
export interface TriedWay {
  readonly way: FocusWay;
  readonly cells: readonly number[];
  readonly burns: readonly BurnSettings[];
  readonly told: number;
  readonly dropped: number;
  /** By how much squares are wider at the lower face than at the upper one: the mean, and its standard uncertainty; null where not measured. */
  readonly taper: { readonly mm: number; readonly sigmaMm: number } | null;
}

export interface CutFocusFinding extends BaseFinding {
  readonly ways: readonly TriedWay[];
  readonly best: TriedWay | null;
}

const DROPPED: readonly string[] = ['clean', 'charred', 'tip'];
/** A caliper’s own error is the same at both faces; its step and the hand are not. */
const READ_SIGMA_MM = 0.008;

function taperOf(seen: Seen, cells: readonly number[]): TriedWay['taper'] {
  const tapers = cells.flatMap((index) => {
    const mean = (field: string): number | null => {
      const read = numbersOf(seen, field, index);
      return read.length === 0 ? null : read.reduce((sum, mm) => sum + mm, 0) / read.length;
    };
    const [bottom, top] = [mean('width-x'), mean('top-x')];
    return bottom === null || top === null ? [] : [bottom - top];
  });
  if (tapers.length === 0) return null;
  const { mean, spread } = meanAndSpread(tapers);
  const read = READ_SIGMA_MM * Math.SQRT2;
  return { mm: mean, sigmaMm: Math.max(read, tapers.length > 1 ? spread : read) / Math.sqrt(tapers.length) };
}

/** With which focus squares drop, and have the straightest edge: least wider at one face than at the other. */
export function findCutFocus(layout: Layout, seen: Seen, { pairing }: Known): CutFocusFinding {
  const liked = pairing.machine.likedUnits;
  const strange = layout.order.flatMap((index) =>
    ['width-x', 'top-x'].flatMap((field) =>
      numbersOf(seen, field, index).flatMap((mm) => {
        const why = farOff(mm, Number(layout.cells[index]!.levels.size));
        return why === null ? [] : [`Square ${index + 1}: ${why}`];
      }),
    ),
  );
  const ways = FOCUS_WAYS.flatMap((way): TriedWay[] => {
    const cells = layout.order.filter((index) => layout.cells[index]!.levels.side === way);
    if (cells.length === 0) return [];
    const words = cells.flatMap((index) => wordOf(seen, DROP.field, index) ?? []);
    return [
      {
        way,
        cells,
        burns: layout.cells[cells[0]!]!.burns.map(({ settings }) => settings),
        told: words.length,
        dropped: words.filter((word) => DROPPED.includes(word)).length,
        taper: strange.length > 0 ? null : taperOf(seen, cells),
      },
    ];
  });
  const lacks = (missing: readonly string[]): CutFocusFinding => ({ ways, best: null, missing, says: '' });
  if (strange.length > 0) return lacks(strange);
  if (ways.some(({ told }) => told === 0)) return lacks(['Tap the sheet and say of every square what happens.']);
  const through = ways.filter(({ told, dropped }) => dropped === told);
  if (through.length === 0) return lacks(['At no focus did every square drop: burn a card with more energy, slower.']);
  const measured = through.filter(({ taper }) => taper !== null);
  const length = (mm: number): string => formatLength(Math.round(mm * 1000) / 1000, liked, 2);
  const words = ({ way }: TriedWay): string => WAY_WORDS[way];
  if (measured.length === 0) {
    if (through.length > 1)
      return lacks(['Measure the squares at both faces: several ways drop, and one is the straightest.']);
    return {
      ways,
      best: through[0]!,
      missing: [],
      says: `Focus ${words(through[0]!)}: elsewhere not every square drops. How straight its edge is nobody measured.`,
    };
  }
  const [best, next] = [...measured].sort((a, b) => Math.abs(a.taper!.mm) - Math.abs(b.taper!.mm));
  const isClear =
    next === undefined ||
    Math.abs(next.taper!.mm) - Math.abs(best!.taper!.mm) > 2 * Math.hypot(next.taper!.sigmaMm, best!.taper!.sigmaMm);
  return {
    ways,
    best: best!,
    missing: [],
    says: `Focus ${words(best!)}: parts are ${length(Math.abs(best!.taper!.mm))} ± ${length(2 * best!.taper!.sigmaMm)} ${best!.taper!.mm >= 0 ? 'wider below' : 'wider above'}${isClear ? ', the straightest' : `, no clearer than ${words(next)}`}.`,
  };
}
