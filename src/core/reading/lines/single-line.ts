import type { Rect } from '../../geometry/point';
import { meanAndSpread, median } from '../../stats/robust';
import { BINS_A_PIXEL, lightAcross, type Across, type LinesRun } from './across';
import type { Blur } from './blur';
import type { FineLight } from './fine-light';
import { ownWidth, type SeenWidths } from './own-width';

/** Photo pixels to a millimetre below which a line's width and its ragged edges are not told, and its place is not. */
export const LEAST_PX_PER_MM_FOR_WIDTH = 40;
export const LEAST_PX_PER_MM_FOR_PLACE = 15;
/** How long each stretch of a line is that is looked at by itself: longer than what pixels share with their neighbours. */
const STRETCH_MM = 0.25;
const LEAST_STRETCHES = 6;
/** A line is less steep at a quarter and at three quarters of its height than half way up, and its width there is less sure by so much. */
const SHALLOWER = 1.5;
/** A normal law is 0.456 times as wide at three quarters of its height as at a quarter; what is softer than this, noise allowed for, is not a line alone. */
const SOFTEST = 0.4;
/** Blurs that are tried between the least and the most. */
const BETWEEN = [0, 0.25, 0.5, 0.75, 1] as const;
/** Less than this is no width. */
const NO_WIDER_MM = 1e-4;
/** A line this clear over the scatter of bare stock beside it is one. */
const CLEAR = 4;
/** No edge is placed better than to this part of a photo pixel, however little noise there is. */
const PLACED_PX = 0.06;
/** Share of the looked-at band on each side that is bare stock. */
const BARE_SIDE = 0.2;

/** A line by itself as a photo shows it. Each sigma is a standard uncertainty. */
export interface LineSeen {
  /** Its middle beside where it was asked for, in mm: positive is down, or to the right. */
  readonly besideMm: number;
  readonly besideSigmaMm: number;
  /** Between the places where half of its darkness is reached, without what the camera adds; null where the photo shows too few pixels for it. */
  readonly widthMm: number | null;
  readonly widthSigmaMm: number | null;
  /** Standard deviation of its edges about straight ones, without what the photo's noise makes; null as above. */
  readonly raggedMm: number | null;
  readonly raggedSigmaMm: number | null;
  /** How much of bare stock's light its middle takes, or adds, as a share; null as above, left out in readings from before it was told. */
  readonly depth?: number | null;
  /** How much of bare stock's light it takes, or adds, across it, in equal steps about its middle; null as above. */
  readonly profile: LineProfile | null;
}

/** Light taken across a line as shares of bare stock's; the middle one of an odd number lies on the line's middle. */
export interface LineProfile {
  readonly stepMm: number;
  readonly taken: readonly number[];
}

/** How far one line lies from another beyond what was asked for: positive where it lies further down, or to the right. */
export const offsetBetween = (from: LineSeen, to: LineSeen): { readonly mm: number; readonly sigmaMm: number } => ({
  mm: to.besideMm - from.besideMm,
  sigmaMm: Math.hypot(from.besideSigmaMm, to.besideSigmaMm),
});

/** A short part of a line by itself: how much less, or more, light comes back across it than from bare stock beside it. */
interface Stretch {
  /** Its middle along the line. */
  readonly along: number;
  readonly at: Float64Array;
  readonly depth: Float64Array;
  /** Scatter of bare stock beside it. */
  readonly noise: number;
  /** About where its middle is across the line, and where it takes most. */
  readonly middle: number;
  readonly top: number;
}

interface Edges {
  readonly along: number;
  readonly edges: readonly [number, number];
  /** How far an edge is off by noise as bare stock beside it has, and by how well any edge is placed. */
  readonly edgeNoise: number;
}

/** How a line is looked at across: what runs that way, the camera's blur, and the photo pixels to a millimetre from which its width is told, 40 where nothing else is said. */
interface LookAcross {
  readonly run: LinesRun;
  readonly blur: Blur | null;
  readonly widthFrom?: number;
}

/**
 * One straight line, darker or lighter than bare stock on both sides of it. `band` holds it and bare stock as wide as itself to both sides; the
 * line was asked for along the band's middle. It is looked at in stretches of a quarter of a millimetre, and its width is that of all of them laid
 * over each other, so that photo pixels sample it at every phase. Null below 15 pixels to a millimetre, and where too little of a line stands out;
 * width and raggedness from 40 on (or `widthFrom`), where the photo's blur is known. Errors of where the card's frame puts the band are not in the sigmas: they are alike for all lines of a card.
 */
export function lineIn(
  fine: FineLight,
  band: Rect,
  { run, blur, widthFrom = LEAST_PX_PER_MM_FOR_WIDTH }: LookAcross,
): LineSeen | null {
  if (fine.pxPerMm < LEAST_PX_PER_MM_FOR_PLACE) return null;
  const horizontal = run === 'horizontal';
  const [length, across] = horizontal ? [band.width, band.height] : [band.height, band.width];
  const pieces = Math.floor(length / STRETCH_MM);
  const least = Math.max(LEAST_STRETCHES, pieces / 2);
  const part = length / pieces;
  const stretches = Array.from({ length: pieces }, (_, k): Stretch | null => {
    const piece = horizontal
      ? { ...band, x: band.x + k * part, width: part }
      : { ...band, y: band.y + k * part, height: part };
    return stretchOf(lightAcross(fine, piece, run), (k + 0.5) * part, across);
  }).filter((stretch) => stretch !== null);
  if (stretches.length < least) return null;
  const whole = laidOver(stretches, BINS_A_PIXEL * fine.pxPerMm);
  const ends = halfWay(whole);
  if (!ends) return null;
  const edged = stretches.flatMap((stretch) => edgesOf(stretch, ends.level, PLACED_PX / fine.pxPerMm) ?? []);
  if (edged.length < least) return null;
  const middles = meanAndSpread(edged.map(({ edges }) => (edges[0] + edges[1]) / 2));
  const place = {
    besideMm: middles.mean - across / 2,
    besideSigmaMm: middles.spread / Math.sqrt(edged.length),
  };
  if (fine.pxPerMm < widthFrom || !blur) return { ...place, ...NO_WIDTH };
  const scatter = meanAndSpread(edged.map(({ edges }) => edges[1] - edges[0])).spread;
  const seen = widthsOf(whole, ends);
  // Any blur between the least and the most is as likely, and widths do not change evenly with it.
  const widths = BETWEEN.map((share) => ownWidth(seen, blur.leastMm + share * (blur.mostMm - blur.leastMm)));
  const own = meanAndSpread(widths);
  // Seen sharper than the camera is said to show anything: then it is not known how much of its width is the camera's.
  if (widths[0]! < NO_WIDER_MM) return { ...place, ...NO_WIDTH };
  const edgeSigma = scatter / Math.sqrt(edged.length);
  const placedMm = PLACED_PX / fine.pxPerMm;
  return {
    ...place,
    widthMm: own.mean,
    widthSigmaMm: Math.hypot(
      edgeSigma,
      own.spread,
      shapeSigma(
        seen,
        (blur.leastMm + blur.mostMm) / 2,
        seen.shapeIsSeen ? Math.hypot(SHALLOWER * edgeSigma, placedMm) : seen.halfMm,
      ),
    ),
    ...raggednessOf(edged),
    depth: 2 * ends.level,
    profile: profileOf(whole),
  };
}

/** Of a line whose place alone is told. */
const NO_WIDTH = {
  widthMm: null,
  widthSigmaMm: null,
  raggedMm: null,
  raggedSigmaMm: null,
  depth: null,
  profile: null,
} as const;

function stretchOf({ at, share, count }: Across, along: number, across: number): Stretch | null {
  const isBeside = (k: number): boolean => at[k]! < BARE_SIDE * across || at[k]! > (1 - BARE_SIDE) * across;
  const beside = [...at.keys()].filter(isBeside);
  if (beside.length < 4) return null;
  const bare = median(beside.map((k) => share[k]!));
  const noise = meanAndSpread(beside.map((k) => share[k]!)).spread;
  const within = [...at.keys()].filter((k) => !isBeside(k));
  const taken = within.reduce((sum, k) => sum + count[k]! * (bare - share[k]!), 0);
  const depth = share.map((value) => Math.sign(taken) * (bare - value));
  const top = highest(depth, within);
  if (top.height < CLEAR * noise) return null;
  const ends = crossings(at, depth, top.index, top.height / 2);
  return ends && { along, at, depth, noise, middle: (ends.left.place + ends.right.place) / 2, top: top.index };
}

/** All stretches over each other, by their middles, in bins of part of a pixel. */
function laidOver(stretches: readonly Stretch[], binsPerMm: number): Pick<Stretch, 'at' | 'depth'> {
  const bins = new Map<number, { at: number; depth: number; count: number }>();
  for (const { at, depth, middle } of stretches)
    for (let k = 0; k < at.length; k++) {
      const place = at[k]! - middle;
      const bin = bins.get(Math.floor(place * binsPerMm)) ?? { at: 0, depth: 0, count: 0 };
      bins.set(Math.floor(place * binsPerMm), {
        at: bin.at + place,
        depth: bin.depth + depth[k]!,
        count: bin.count + 1,
      });
    }
  // Places that few stretches reach, at both ends, are left out.
  const told = [...bins].filter(([, { count }]) => count >= stretches.length / 8).sort(([a], [b]) => a - b);
  return {
    at: Float64Array.from(told, ([, bin]) => bin.at / bin.count),
    depth: Float64Array.from(told, ([, bin]) => bin.depth / bin.count),
  };
}

const PROFILE_STEP_MM = 0.01;
const MOST_REACH_MM = 0.6;

/** The light across a line in equal steps, as far to both sides as it was seen. */
function profileOf({ at, depth }: Pick<Stretch, 'at' | 'depth'>): LineProfile {
  const reach = Math.min(MOST_REACH_MM, -at[0]!, at[at.length - 1]!);
  const steps = Math.max(0, Math.floor(reach / PROFILE_STEP_MM));
  const taken = Array.from({ length: 2 * steps + 1 }, (_, k) => {
    const place = (k - steps) * PROFILE_STEP_MM;
    const next = Math.max(
      1,
      at.findIndex((value) => value >= place),
    );
    const share = Math.min(1, Math.max(0, (place - at[next - 1]!) / (at[next]! - at[next - 1]!)));
    const value = depth[next - 1]! + share * (depth[next]! - depth[next - 1]!);
    return Math.round(value * 1e4) / 1e4;
  });
  return { stepMm: PROFILE_STEP_MM, taken };
}

/** Width of a line where it takes as much as a level; null where it does not reach that, or is not seen to fall below it on both sides. */
export function widthAtLevel({ stepMm, taken }: LineProfile, level: number): number | null {
  const middle = (taken.length - 1) / 2;
  const top = taken.reduce((best, value, k) => (value > taken[best]! ? k : best), middle);
  const edge = (by: 1 | -1): number | null => {
    for (let k = top; k + by >= 0 && k + by < taken.length; k += by) {
      const [a, b] = [taken[k]!, taken[k + by]!];
      if (a >= level && b < level) return Math.abs(k - top + by * ((a - level) / (a - b))) * stepMm;
    }
    return null;
  };
  if (!(taken[top]! >= level)) return null;
  const [left, right] = [edge(-1), edge(1)];
  return left === null || right === null ? null : left + right;
}

/** Where a line is half as high as in its middle, and that level. */
function halfWay({ at, depth }: Pick<Stretch, 'at' | 'depth'>): { left: number; right: number; level: number } | null {
  const top = highest(depth, [...at.keys()]);
  const rough = crossings(at, depth, top.index, top.height / 2);
  if (!rough) return null;
  const level = heightBetween(at, depth, rough.left.place, rough.right.place) / 2;
  const ends = crossings(at, depth, top.index, level);
  return ends && { left: ends.left.place, right: ends.right.place, level };
}

/**
 * Widths of a line at parts of its height. Where it is not seen to fall so low on both sides, or far slower than a normal law, as over a stain, its shape is
 * not told: one between the hardest and the softest is taken then.
 */
function widthsOf(
  whole: Pick<Stretch, 'at' | 'depth'>,
  ends: { left: number; right: number; level: number },
): SeenWidths & { readonly shapeIsSeen: boolean } {
  const halfMm = ends.right - ends.left;
  const top = highest(whole.depth, [...whole.at.keys()]).index;
  const [low, high] = [0.25, 0.75].map((part) => crossings(whole.at, whole.depth, top, 2 * part * ends.level));
  const quarterMm = Math.max(halfMm, low ? low.right.place - low.left.place : Infinity);
  const threeQuartersMm = Math.min(halfMm, high ? high.right.place - high.left.place : 0);
  return threeQuartersMm / quarterMm < SOFTEST
    ? { quarterMm: 1.2 * halfMm, halfMm, threeQuartersMm: 0.85 * halfMm, shapeIsSeen: false }
    : { quarterMm, halfMm, threeQuartersMm, shapeIsSeen: true };
}

/** How unsure a line's own width is for what its shape is unsure by: widths at a quarter and three quarters of its height, by so much each. */
function shapeSigma(seen: SeenWidths, blurMm: number, unsureMm: number): number {
  const { quarterMm: low, threeQuartersMm: high } = seen;
  const least = 1e-3 * seen.halfMm;
  const harder = { ...seen, quarterMm: Math.max(least, low - unsureMm), threeQuartersMm: high + unsureMm };
  const softer = { ...seen, quarterMm: low + unsureMm, threeQuartersMm: Math.max(least, high - unsureMm) };
  // Both at once is the root of two too much.
  return Math.abs(ownWidth(harder, blurMm) - ownWidth(softer, blurMm)) / 2 / Math.SQRT2;
}

function edgesOf({ along, at, depth, noise, top }: Stretch, level: number, placed: number): Edges | null {
  if (depth[top]! <= level) return null;
  const ends = crossings(at, depth, top, level);
  if (!ends) return null;
  const slope = Math.min(ends.left.slope, ends.right.slope);
  return {
    along,
    edges: [ends.left.place, ends.right.place],
    edgeNoise: Math.hypot(placed, noise / slope),
  };
}

interface Crossing {
  readonly place: number;
  readonly slope: number;
}

/** Where the light falls below a level to both sides of a place, and how steeply. */
function crossings(
  at: Float64Array,
  depth: Float64Array,
  from: number,
  level: number,
): { readonly left: Crossing; readonly right: Crossing } | null {
  const crossing = (by: 1 | -1): Crossing | null => {
    for (let k = from; k + by >= 0 && k + by < at.length; k += by) {
      const [a, b, away] = [depth[k]!, depth[k + by]!, at[k + by]! - at[k]!];
      if (b >= level) continue;
      return a > b ? { place: at[k]! + ((a - level) / (a - b)) * away, slope: (a - b) / Math.abs(away) } : null;
    }
    return null;
  };
  const [left, right] = [crossing(-1), crossing(1)];
  return left && right ? { left, right } : null;
}

/** Part of a line's width about its middle that a parabola is laid through for its height. */
const TOP = 0.6;

/** The height of a line in its middle, by a parabola through its top: neither one place's noise nor the shoulders are taken for it. */
function heightBetween(at: Float64Array, depth: Float64Array, left: number, right: number): number {
  const [middle, reach] = [(left + right) / 2, (TOP * (right - left)) / 2];
  const top = [...at.keys()].filter((k) => Math.abs(at[k]! - middle) <= reach);
  const mean = meanAndSpread(top.map((k) => depth[k]!)).mean;
  if (top.length < 4) return mean;
  // Even about its middle: a constant and a square are enough.
  const squares = top.map((k) => ((at[k]! - middle) / reach) ** 2);
  const meanSquare = meanAndSpread(squares).mean;
  const bend =
    squares.reduce((sum, square, n) => sum + (square - meanSquare) * (depth[top[n]!]! - mean), 0) /
    squares.reduce((sum, square) => sum + (square - meanSquare) ** 2, 0);
  return mean - bend * meanSquare;
}

/**
 * Where a line takes most, and how much that is: the mean of the few places around it, so that one pixel's noise is not taken for it. Lower than
 * anything where there is no place to look at.
 */
function highest(depth: Float64Array, within: readonly number[]): { index: number; height: number } {
  let best = { index: 0, height: -Infinity };
  for (const k of within) {
    const near = [k - 1, k, k + 1].filter((other) => other >= 0 && other < depth.length);
    const height = near.reduce((sum, other) => sum + depth[other]!, 0) / near.length;
    if (height > best.height) best = { index: k, height };
  }
  return best;
}

/** The scatter of both edges about straight ones, less what noise makes of it. */
function raggednessOf(stretches: readonly Edges[]): { raggedMm: number; raggedSigmaMm: number } {
  const squares = [0, 1].map((side) => {
    const [xs, ys] = [stretches.map(({ along }) => along), stretches.map(({ edges }) => edges[side]!)];
    const [x, y] = [meanAndSpread(xs), meanAndSpread(ys)];
    const slope =
      xs.reduce((sum, value, k) => sum + (value - x.mean) * (ys[k]! - y.mean), 0) /
      xs.reduce((sum, value) => sum + (value - x.mean) ** 2, 0);
    const rest = xs.reduce((sum, value, k) => sum + (ys[k]! - y.mean - slope * (value - x.mean)) ** 2, 0);
    return rest / (stretches.length - 2);
  });
  const noise = meanAndSpread(stretches.map(({ edgeNoise }) => edgeNoise ** 2)).mean;
  const total = (squares[0]! + squares[1]!) / 2;
  const own = Math.max(0, total - noise);
  // A variance of n values is sure to the root of 2 / n of itself; both edges have n.
  const varianceSigma = total / Math.sqrt(stretches.length);
  const raggedMm = Math.sqrt(own);
  return { raggedMm, raggedSigmaMm: varianceSigma / 2 / Math.max(raggedMm, Math.sqrt(varianceSigma)) };
}
