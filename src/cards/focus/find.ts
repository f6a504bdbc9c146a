import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { formatLength, type LikedUnits } from '../../core/quantities/format';
import { isAbove } from '../../core/reading/lines/by-the-eye';
import type { LinesSeen } from '../../core/reading/lines/lines-of-fill';
import { waistOfRipples } from './waist';

export const GAPS_FIELD = 'gaps';

export const FOCUS_ASKS: readonly Ask[] = [
  { field: 'fill', by: 'photo', measure: 'lines' },
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
  readonly by: 'eye' | 'photo';
}

/**
 * Ripples of lines, as their amplitude over the mean, that look plain, and that are hardly there, when looked at closely: between them gaps just
 * close. From memory, without a source.
 */
const PLAIN = 0.17;
const HARDLY = 0.04;

/** What a photo says of the lines of a patch, where it is sure of it. */
function wordByPhoto(lines: LinesSeen | null): JudgedOffset['word'] | null {
  if (!lines) return null;
  const [plain, there] = [isAbove(lines, PLAIN), isAbove(lines, HARDLY)];
  if (plain === true) return 'sharp';
  if (there === false) return 'blurred';
  return plain === false && there === true ? 'closed' : null;
}

export interface FocusFinding extends BaseFinding {
  readonly patches: readonly JudgedOffset[];
  /** The middle of the offsets that are sharp: where the waist is; null when none is. */
  readonly waistMm: number | null;
  /** Standard uncertainty of the waist: by how strongly lines show where a photo tells it, else by the step between patches. */
  readonly waistSigmaMm: number | null;
  /** The offset for fills: the least one from the waist at which gaps close. */
  readonly fillMm: number | null;
  readonly cellIndex: number | null;
  readonly sigmaMm: number | null;
  /** No offset was better than another. */
  readonly flat: boolean;
}

const words = (mm: number, liked: LikedUnits): string => `${mm > 0 ? '+' : ''}${formatLength(mm, liked, 3)}`;

/**
 * Two things told apart: the waist, where lines show most in a photo or else in the middle of what is sharp, and the offset for fills, the least one away from it at which the
 * gaps close (the raised one of two equals: it keeps the head clear). All alike is said to be flat. One-sided answers say what is missing.
 */
export function findFocus(layout: Layout, seen: Seen, { pairing }: Known): FocusFinding {
  const liked = pairing.machine.likedUnits;
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const offsetOf = (index: number): number => mainBurn(layout.cells[index]!).settings.focusOffsetMm;
  const patches = layout.order
    .flatMap((index): JudgedOffset[] => {
      const said = wordOf(seen, GAPS_FIELD, index) as JudgedOffset['word'] | null;
      const word = said ?? wordByPhoto(readings.get(index)?.lines ?? null);
      return word === null
        ? []
        : [{ cellIndex: index, offsetMm: offsetOf(index), word, by: said === null ? 'photo' : 'eye' }];
    })
    .sort((a, b) => a.offsetMm - b.offsetMm);
  const none = { patches, waistMm: null, waistSigmaMm: null, fillMm: null, cellIndex: null, sigmaMm: null, flat: false, says: '' }; // prettier-ignore
  if (patches.length < 3)
    return {
      ...none,
      missing: [
        seen.readings.length > 0
          ? 'The photo tells the lines of too few patches: say of at least three how they look, or take it nearer.'
          : 'Say of at least three patches how their lines look, or let a photo be read.',
      ],
    };
  const step = Math.min(...patches.slice(1).map((patch, index) => patch.offsetMm - patches[index]!.offsetMm));
  const sigmaMm = step / Math.sqrt(12);
  const byPhoto = waistOfRipples(
    seen.readings.flatMap(({ cellIndex, lines }) => (lines ? [{ offsetMm: offsetOf(cellIndex), lines }] : [])),
  );
  if (patches.every((patch) => patch.word === patches[0]!.word) && (!byPhoto || patches[0]!.word === 'blurred')) {
    if (patches[0]!.word === 'blurred')
      return {
        ...none,
        missing: ['Every patch is blurred: the set focus is far off. Set it again, or test a wider range.'],
      };
    const middle = patches.find((patch) => patch.offsetMm === 0);
    return {
      ...none,
      waistMm: 0,
      waistSigmaMm: sigmaMm,
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
  const byWords = sharp.length > 0 && !oneSided ? (sharp[0]!.offsetMm + sharp.at(-1)!.offsetMm) / 2 : null;
  // What the eye calls sharp is believed over the photo: the waist lies among it, or a step beside.
  const agrees = ({ waistMm: at }: { waistMm: number }): boolean =>
    sharp.length === 0 || (at >= sharp[0]!.offsetMm - step && at <= sharp.at(-1)!.offsetMm + step);
  const told = byPhoto && agrees(byPhoto) ? byPhoto : null;
  const waistMm = told?.waistMm ?? byWords;
  const waistSigmaMm = told?.sigmaMm ?? (byWords === null ? null : sigmaMm);
  const from = waistMm ?? 0;
  const fill = [...closed].sort(
    (a, b) => Math.abs(a.offsetMm - from) - Math.abs(b.offsetMm - from) || b.offsetMm - a.offsetMm,
  )[0];
  if (!fill)
    return {
      ...none,
      waistMm,
      waistSigmaMm,
      missing: ['In no patch do the gaps just close: burn offsets between the sharp and the blurred ones.'],
    };
  const waist =
    waistMm === null
      ? ' Where it is sharpest stays open: the sharp patches reach the end of the range.'
      : ` It is sharpest at about ${words(waistMm, liked)}.`;
  return {
    patches,
    waistMm,
    waistSigmaMm,
    fillMm: fill.offsetMm,
    cellIndex: fill.cellIndex,
    sigmaMm,
    flat: false,
    missing: [],
    says: `For fills ${words(fill.offsetMm, liked)}: the least offset at which gaps close.${waist}`,
  };
}
