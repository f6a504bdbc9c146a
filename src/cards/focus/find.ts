import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import type { Layout } from '../../core/card/layout';
import { likedBest, likedWords, surelyLiked, type LikedBest } from '../../core/card/liked';
import { BETTER } from '../../core/card/usual-asks';
import { formatLength, type LikedUnits } from '../../core/quantities/format';
import { isAbove } from '../../core/reading/lines/by-the-eye';
import type { LinesSeen } from '../../core/reading/lines/lines-of-fill';
import { focusOf, type FocusFit, type RippleAtOffset } from '../../core/fit/focus';

export const GAPS_FIELD = 'gaps';

export const FOCUS_ASKS: readonly Ask[] = [
  { field: 'fill', by: 'photo', measure: 'lines' },
  eyeAsk(GAPS_FIELD, 'How do its lines look, close up?', [
    ['sharp', 's', 'sharp, gaps between'],
    ['closed', 'c', 'gaps just closed'],
    ['blurred', 'b', 'blurred and pale'],
  ]),
  BETTER,
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

/** On a tilted board the focus is set so far beside its mark, as a standard deviation. From memory, without a source. */
const BESIDE_MARK_MM = 1;
/** The fall of a board is sure to this share of itself, by spacers that are not what they say and stand beside their place. From memory, without a source. */
const FALL_SHARE = 0.02;

/** What a photo says of the lines of a patch, where it is sure of it. */
function wordByPhoto(lines: LinesSeen | null): JudgedOffset['word'] | null {
  if (!lines) return null;
  const [plain, there] = [isAbove(lines, PLAIN), isAbove(lines, HARDLY)];
  if (plain === true) return 'sharp';
  if (there === false) return 'blurred';
  return plain === false && there === true ? 'closed' : null;
}

/** How strongly a patch's lines show in a photo. */
export interface PatchRipple extends RippleAtOffset {
  readonly cellIndex: number;
}

export interface FocusFinding extends BaseFinding {
  readonly patches: readonly JudgedOffset[];
  readonly ripples: readonly PatchRipple[];
  /** The beam's own law through what a photo shows; null where it shows too little, or the eye has it elsewhere. */
  readonly fit: FocusFit | null;
  /** Where lines show most in a photo, or else the middle of what is sharp to the eye; null when neither tells it. */
  readonly waistMm: number | null;
  /** Standard uncertainty of the waist: by how strongly lines show where a photo tells it, else by the step between patches. */
  readonly waistSigmaMm: number | null;
  /** So far to either side lines are nearly as sharp; null where only the eye tells. */
  readonly depthMm: number | null;
  /** The offset for fills: the least one from the waist at which gaps close. */
  readonly fillMm: number | null;
  /** The patch that is burned most like it. */
  readonly cellIndex: number | null;
  readonly sigmaMm: number | null;
  /** No offset was better than another. */
  readonly flat: boolean;
  /** What the operator likes best, as a fill, of the patches that were compared; it goes before what lines say where it is sure. */
  readonly liked: LikedBest | null;
}

/** No head is set to less than a hundredth of a millimetre. */
export const offsetWords = (mm: number, liked: LikedUnits): string => {
  const told = Math.round(mm * 100) / 100 + 0;
  return `${told > 0 ? '+' : ''}${formatLength(told, liked, 3)}`;
};
const plusMinus = (sigmaMm: number | null, liked: LikedUnits): string =>
  sigmaMm === null ? '' : ` ± ${formatLength(2 * sigmaMm, liked, 2)}`;

/** The offset for fills, and how sure it is. */
interface Fill {
  readonly mm: number;
  readonly sigmaMm: number;
}

/** By the patches of which the eye says that gaps just close: the least one from the waist, the raised one of two equals. */
function fillByEye(patches: readonly JudgedOffset[], waistMm: number, sigmaMm: number): Fill | null {
  const [closed] = patches
    .filter(({ word }) => word === 'closed')
    .sort((a, b) => Math.abs(a.offsetMm - waistMm) - Math.abs(b.offsetMm - waistMm) || b.offsetMm - a.offsetMm);
  return closed ? { mm: closed.offsetMm, sigmaMm } : null;
}

/** By the beam's law: above the waist, which keeps the head clear; below it where the patches end before. */
function fillByPhoto({ waistMm, fillMm, fillSigmaMm }: FocusFit, [low, high]: readonly [number, number]): Fill | null {
  const mm = [fillMm, 2 * waistMm - fillMm].find((one) => one >= low && one <= high);
  return mm === undefined ? null : { mm, sigmaMm: fillSigmaMm };
}

/** The least distance of two offsets. */
const stepOf = (offsetsMm: readonly number[]): number => {
  const sorted = [...offsetsMm].sort((a, b) => a - b);
  return Math.min(...sorted.slice(1).map((offsetMm, index) => offsetMm - sorted[index]!));
};
/** Standard uncertainty of one of some offsets that are so far apart, set with that scatter. */
const sigmaBetween = (stepMm: number, scatterMm: number): number => Math.hypot(stepMm / Math.sqrt(12), scatterMm);

/**
 * The offset for fills of the patch that the operator likes best, where comparisons of two at a time make that sure, or else what `byTheLines` of all
 * patches says; that stands beside it then, and its waist stays.
 */
export function findFocus(layout: Layout, seen: Seen, known: Known): FocusFinding {
  const units = known.pairing.machine.likedUnits;
  const liked = likedBest(layout, seen);
  const lines = byTheLines(layout, seen, known);
  const top = surelyLiked(liked);
  if (!liked || !top) return { ...lines, liked };
  // Over a tilted board no setting says it.
  const offsetOf = (index: number): number => layout.cells[index]!.levels.focus as number;
  const fillMm = offsetOf(top.cellIndex);
  const beside =
    lines.fillMm === null || Math.abs(lines.fillMm - fillMm) < 0.005
      ? ''
      : ` By its lines it would be ${offsetWords(lines.fillMm, units)}.`;
  return {
    ...lines,
    liked,
    flat: false,
    fillMm,
    cellIndex: top.cellIndex,
    sigmaMm: sigmaBetween(stepOf(liked.ranking.map((one) => offsetOf(one.cellIndex))), scatterOf(layout)),
    missing: [],
    says: `For fills ${offsetWords(fillMm, units)}: ${likedWords(liked, 'patches')}.${beside}`,
  };
}

/** How far beside its mark a focus may be set, as a standard deviation: by its spacers, and where a patch stands on a tilted board. */
const scatterOf = ({ focusScatterMm, tilt }: Layout): number =>
  Math.hypot(focusScatterMm ?? 0, tilt ? BESIDE_MARK_MM * tilt.fallMmPerMm : 0);

/**
 * Two things told apart: the waist, where lines show most in a photo or else in the middle of what is sharp, and the offset for fills, the least one away from it at which the
 * gaps close (the raised one of two equals: it keeps the head clear). The eye's word goes before the photo's. All alike is said to be flat. One-sided answers say what is missing.
 */
function byTheLines(layout: Layout, seen: Seen, { pairing }: Known): Omit<FocusFinding, 'liked'> {
  const liked = pairing.machine.likedUnits;
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  // Over a tilted board no setting says it.
  const offsetOf = (index: number): number => layout.cells[index]!.levels.focus as number;
  const patches = layout.order
    .flatMap((index): JudgedOffset[] => {
      const said = wordOf(seen, GAPS_FIELD, index) as JudgedOffset['word'] | null;
      const word = said ?? wordByPhoto(readings.get(index)?.lines ?? null);
      return word === null
        ? []
        : [{ cellIndex: index, offsetMm: offsetOf(index), word, by: said === null ? 'photo' : 'eye' }];
    })
    .sort((a, b) => a.offsetMm - b.offsetMm);
  const ripples = seen.readings
    .flatMap(({ cellIndex, lines }): PatchRipple[] =>
      lines
        ? [{ cellIndex, offsetMm: offsetOf(cellIndex), visibility: lines.visibility, sigma: lines.visibilitySigma }]
        : [],
    )
    .sort((a, b) => a.offsetMm - b.offsetMm);
  const none = {
    patches,
    ripples,
    fit: null,
    waistMm: null,
    waistSigmaMm: null,
    depthMm: null,
    fillMm: null,
    cellIndex: null,
    sigmaMm: null,
    flat: false,
    says: '',
  };
  const scatterMm = scatterOf(layout);
  const byPhoto = focusOf(ripples, scatterMm);
  if (patches.length < 3 && !byPhoto)
    return {
      ...none,
      missing: [
        seen.readings.length > 0
          ? 'The photo tells the lines of too few patches: say of at least three how they look, or take it nearer.'
          : 'Say of at least three patches how their lines look, or let a photo be read.',
      ],
    };
  const offsets = layout.order.map(offsetOf).sort((a, b) => a - b);
  const looked = patches.length > 1 ? patches.map(({ offsetMm }) => offsetMm) : offsets;
  const step = stepOf(looked);
  const sigmaMm = sigmaBetween(step, scatterMm);
  if (patches.every((patch) => patch.word === patches[0]!.word) && (!byPhoto || patches[0]!.word === 'blurred')) {
    if (patches[0]!.word === 'blurred')
      return {
        ...none,
        missing: ['Every patch is blurred: the set focus is far off. Set it again, or test a wider range.'],
      };
    const middle = patches.find((patch) => patch.offsetMm === 0);
    return {
      ...none,
      fillMm: 0,
      cellIndex: middle?.cellIndex ?? null,
      sigmaMm,
      flat: true,
      missing: [],
      says: `All offsets look alike: the depth of focus is larger than this range${layout.tilt ? ', or the board lay level' : ''}. Stay at 0.`,
    };
  }
  const sharp = patches.filter((patch) => patch.word === 'sharp');
  if (sharp.length > 1) {
    const inner = patches.filter(({ offsetMm }) => offsetMm > sharp[0]!.offsetMm && offsetMm < sharp.at(-1)!.offsetMm);
    if (inner.some((patch) => patch.word === 'blurred'))
      return { ...none, missing: ['A blurred patch lies between sharp ones: look again at them.'] };
  }
  const ends = [patches[0], patches.at(-1)];
  const oneSided = sharp.length > 0 && ends.some((end) => end?.word === 'sharp');
  const byWords = sharp.length > 0 && !oneSided ? (sharp[0]!.offsetMm + sharp.at(-1)!.offsetMm) / 2 : null;
  // What the eye calls sharp is believed over the photo: the waist lies among it, or a step beside.
  const agrees = ({ waistMm: at }: FocusFit): boolean =>
    sharp.length === 0 || (at >= sharp[0]!.offsetMm - step && at <= sharp.at(-1)!.offsetMm + step);
  const fit = byPhoto && agrees(byPhoto) ? byPhoto : null;
  const waistMm = fit?.waistMm ?? byWords;
  /** Of an offset along a tilted board, whose fall is not known better than its spacer. */
  const onTilt = (mm: number, ownMm: number): number => (layout.tilt ? Math.hypot(ownMm, FALL_SHARE * mm) : ownMm);
  const waistSigmaMm = waistMm === null ? null : onTilt(waistMm, fit?.waistSigmaMm ?? sigmaMm);
  const eyed = patches.filter(({ by }) => by === 'eye');
  const fill =
    fillByEye(fit ? eyed : patches, waistMm ?? 0, sigmaMm) ?? (fit && fillByPhoto(fit, [offsets[0]!, offsets.at(-1)!]));
  const told = { patches, ripples, fit, waistMm, waistSigmaMm, depthMm: fit?.depthMm ?? null, flat: false };
  if (!fill) {
    const wanted = 'In no patch do the gaps just close: burn offsets between the sharp and the blurred ones.';
    // The waist alone is an answer too, where a photo tells it.
    if (!fit) return { ...none, waistMm, waistSigmaMm, missing: [wanted] };
    return {
      ...none,
      ...told,
      missing: [],
      says: `It is sharpest at ${offsetWords(fit.waistMm, liked)}${plusMinus(waistSigmaMm, liked)}. ${wanted}`,
    };
  }
  const nearest = layout.order.reduce((best, index) =>
    Math.abs(offsetOf(index) - fill.mm) < Math.abs(offsetOf(best) - fill.mm) ? index : best,
  );
  const waist =
    waistMm === null
      ? ' Where it is sharpest stays open: the sharp patches reach the end of the range.'
      : ` It is sharpest at about ${offsetWords(waistMm, liked)}${fit ? plusMinus(waistSigmaMm, liked) : ''}.`;
  return {
    ...told,
    fillMm: fill.mm,
    cellIndex: nearest,
    sigmaMm: onTilt(fill.mm, fill.sigmaMm),
    missing: [],
    says: `For fills ${offsetWords(fill.mm, liked)}: the least offset at which gaps close.${waist}`,
  };
}
