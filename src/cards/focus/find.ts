import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { formatLength, type LikedUnits } from '../../core/quantities/format';

export const GAPS_FIELD = 'gaps';

export const FOCUS_ASKS: readonly Ask[] = [
  eyeAsk(GAPS_FIELD, 'How do its lines look, close up?', [
    ['sharp', 's', 'sharp, gaps between'],
    ['closed', 'c', 'gaps just closed'],
    ['blurred', 'b', 'blurred and pale'],
  ]),
];

export interface JudgedOffset {
  readonly cellIndex: number;
  readonly offsetMm: number;
  readonly word: 'sharp' | 'closed' | 'blurred';
}

export interface FocusFinding extends BaseFinding {
  readonly patches: readonly JudgedOffset[];
  /** The middle of the offsets that are sharp: where the waist is; null when none is. */
  readonly waistMm: number | null;
  /** The offset for fills: the least one from the waist at which gaps close. */
  readonly fillMm: number | null;
  readonly cellIndex: number | null;
  readonly sigmaMm: number | null;
  /** No offset was better than another. */
  readonly flat: boolean;
}

const words = (mm: number, liked: LikedUnits): string => `${mm > 0 ? '+' : ''}${formatLength(mm, liked, 3)}`;

/**
 * Two things told apart: the waist, in the middle of what is sharp, and the offset for fills, the least one away from it at which the
 * gaps close (the raised one of two equals: it keeps the head clear). All alike is said to be flat. One-sided answers say what is missing.
 */
export function findFocus(layout: Layout, seen: Seen, { pairing }: Known): FocusFinding {
  const liked = pairing.machine.likedUnits;
  const patches = layout.order
    .flatMap((index): JudgedOffset[] => {
      const word = wordOf(seen, GAPS_FIELD, index) as JudgedOffset['word'] | null;
      const offsetMm = mainBurn(layout.cells[index]!).settings.focusOffsetMm;
      return word === null ? [] : [{ cellIndex: index, offsetMm, word }];
    })
    .sort((a, b) => a.offsetMm - b.offsetMm);
  const none = { patches, waistMm: null, fillMm: null, cellIndex: null, sigmaMm: null, flat: false, says: '' };
  if (patches.length < 3) return { ...none, missing: ['Say of at least three patches how their lines look.'] };
  const step = Math.min(...patches.slice(1).map((patch, index) => patch.offsetMm - patches[index]!.offsetMm));
  const sigmaMm = step / Math.sqrt(12);
  if (patches.every((patch) => patch.word === patches[0]!.word)) {
    if (patches[0]!.word === 'blurred')
      return {
        ...none,
        missing: ['Every patch is blurred: the set focus is far off. Set it again, or test a wider range.'],
      };
    const middle = patches.find((patch) => patch.offsetMm === 0);
    return {
      ...none,
      waistMm: 0,
      fillMm: 0,
      cellIndex: middle?.cellIndex ?? null,
      sigmaMm,
      flat: true,
      missing: [],
      says: 'All offsets look alike: the depth of focus is larger than this range. Stay at 0.',
    };
  }
  const sharp = patches.filter((patch) => patch.word === 'sharp');
  const closed = patches.filter((patch) => patch.word === 'closed');
  if (sharp.length > 1) {
    const inner = patches.filter(({ offsetMm }) => offsetMm > sharp[0]!.offsetMm && offsetMm < sharp.at(-1)!.offsetMm);
    if (inner.some((patch) => patch.word === 'blurred'))
      return { ...none, missing: ['A blurred patch lies between sharp ones: look again at them.'] };
  }
  const ends = [patches[0]!, patches.at(-1)!];
  const oneSided = sharp.length > 0 && ends.some((end) => end.word === 'sharp');
  const waistMm = sharp.length > 0 && !oneSided ? (sharp[0]!.offsetMm + sharp.at(-1)!.offsetMm) / 2 : null;
  const from = waistMm ?? 0;
  const fill = [...closed].sort(
    (a, b) => Math.abs(a.offsetMm - from) - Math.abs(b.offsetMm - from) || b.offsetMm - a.offsetMm,
  )[0];
  if (!fill)
    return {
      ...none,
      waistMm,
      missing: ['In no patch do the gaps just close: burn offsets between the sharp and the blurred ones.'],
    };
  const waist =
    waistMm === null
      ? ' Where it is sharpest stays open: the sharp patches reach the end of the range.'
      : ` It is sharpest at about ${words(waistMm, liked)}.`;
  return {
    patches,
    waistMm,
    fillMm: fill.offsetMm,
    cellIndex: fill.cellIndex,
    sigmaMm,
    flat: false,
    missing: [],
    says: `For fills ${words(fill.offsetMm, liked)}: the least offset at which gaps close.${waist}`,
  };
}
