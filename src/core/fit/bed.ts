import { linearFit, type LinearRow } from '../stats/linear-fit';
import { studentFactor } from '../stats/student';
import { clearRipples, depthOfBend, logOfRipple, type RippleAtOffset } from './focus';

/** Heights of a sheet at places of the bed, by where lines are sharpest there. */
export interface Heights {
  /** In the order of the places: how much higher than the set focus the sheet stands, with its standard uncertainty; null where too little shows. */
  readonly at: readonly ({ readonly heightMm: number; readonly sigmaMm: number } | null)[];
  /** So far to either side of its sharpest a line still shows by all but a fifth. */
  readonly depthMm: number;
}

/** A bend of so many of its sigmas is one. */
const BENT = 3;
/** So many places have a third ripple that how they scatter tells more than what each says of itself, at a coverage of two sigmas. */
const ENOUGH_DEGREES = 4;
const COVERAGE = 0.95;
/** Ripples that happen to agree are no surer than this share of what they say. */
const LEAST_SCATTER = 0.3;
/** Ripples at a place with which one bend for all places tells its height. */
const LEAST_RIPPLES = 2;

/**
 * How high a sheet stands at each place, from how strongly lines show there at several focus offsets. The beam is the same everywhere: the
 * logarithm of a ripple falls by one parabola, whose top lies at the height of the place; all of them are fitted at once, each place with its own
 * strength and top, all with one bend. So two ripples tell a place once another has three. Null where nothing bends downwards for sure.
 *
 * Tops at -0.2 and 0.3 of -0.5 z², exact: heights -0.2 and 0.3, depth sqrt(ln 1.25 / 0.5) = 0.668.
 */
export function heightsOf(places: readonly (readonly RippleAtOffset[])[]): Heights | null {
  const clear = places.map((ripples) => clearRipples(ripples));
  const told = clear.flatMap((ripples, place) =>
    new Set(ripples.map(({ offsetMm }) => offsetMm)).size >= LEAST_RIPPLES ? [place] : [],
  );
  const unknowns = 2 * told.length + 1;
  const bendAt = unknowns - 1;
  const termsOf = (entries: Readonly<Record<number, number>>): number[] =>
    Array.from({ length: unknowns }, (_, index) => entries[index] ?? 0);
  const rows = told.flatMap((place, index): LinearRow[] => {
    const strongest = Math.max(...clear[place]!.map(({ visibility }) => visibility));
    return clear[place]!.map((ripple) => ({
      terms: termsOf({ [2 * index]: 1, [2 * index + 1]: ripple.offsetMm, [bendAt]: ripple.offsetMm ** 2 }),
      ...logOfRipple(ripple, strongest),
    }));
  });
  const fit = linearFit(rows);
  if (!fit) return null;
  const bend = fit.values[bendAt]!;
  // Where there is enough to tell by, ripples are as sure as they scatter: what a photo or a stock makes of all three of a place falls out.
  const scatters = fit.degrees >= ENOUGH_DEGREES;
  const byScatter = scatters ? studentFactor(fit.degrees, COVERAGE) / studentFactor(Infinity, COVERAGE) : 1;
  const sigmaOf = (weights: readonly number[]): number =>
    scatters
      ? byScatter * Math.max(fit.scatterOf(weights), LEAST_SCATTER * fit.sigmaOf(weights))
      : fit.sigmaOf(weights);
  if (!(bend < -BENT * sigmaOf(termsOf({ [bendAt]: 1 })))) return null;
  return {
    at: places.map((_, place) => {
      const index = told.indexOf(place);
      if (index < 0) return null;
      const heightMm = -fit.values[2 * index + 1]! / (2 * bend) + 0;
      // d height = -(d slope + 2 height d bend) / (2 bend)
      const sigmaMm = sigmaOf(termsOf({ [2 * index + 1]: -1 / (2 * bend), [bendAt]: -heightMm / bend }));
      return { heightMm, sigmaMm };
    }),
    depthMm: depthOfBend(bend),
  };
}

/** A value at a place, in any length unit along the two axes. */
export interface ValueAtPlace {
  readonly x: number;
  readonly y: number;
  readonly value: number;
  readonly sigma: number;
}

export interface Uncertain {
  readonly value: number;
  readonly sigma: number;
}

/** The plane through values at places. */
export interface Plane {
  /** Height over the middle of the places, and rise from one end to the other along each axis. */
  readonly middle: Uncertain;
  readonly acrossX: Uncertain;
  readonly acrossY: Uncertain;
  /** Whether a rise is no chance of noise, at 97.5 %. */
  readonly risesAlongX: boolean;
  readonly risesAlongY: boolean;
  /** Whether places lie off the plane by more than their own doubt, at 99 %: what is there is no plane. */
  readonly isBent: boolean;
  /** Root mean square of what lies off it. */
  readonly offPlane: number;
  /** The plane less its middle, at shares of the way from the first to the last place along each axis: (0, 0) to (1, 1). */
  offMiddle(shareX: number, shareY: number): Uncertain;
}

/** A chance of 2.5 % for each of two axes that noise rises so much. */
const RISE_COVERAGE = 0.975;
/** Upper 1 % point of the standard normal law. */
const ONE_PERCENT = 2.326;

/**
 * The plane that weighted squares are least about. Its doubt grows where places lie off it by more than theirs: what is not flat is not told better
 * by more of it. Middle and rises are those of all that was `tested`, where some places of that tell nothing, and as unsure as it is to go on beyond those
 * that do. Null for fewer than four places, or places on one line.
 *
 * (0, 0, 1), (10, 0, 2), (0, 10, 1), (10, 10, 2): rises 1 along x, 0 along y, middle 1.5.
 */
export function planeThrough(
  places: readonly ValueAtPlace[],
  tested: readonly Pick<ValueAtPlace, 'x' | 'y'>[] = places,
): Plane | null {
  if (places.length < 4) return null;
  const [xs, ys] = [tested.map(({ x }) => x), tested.map(({ y }) => y)];
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  if (!(right > left) || !(bottom > top)) return null;
  const termsAt = (shareX: number, shareY: number): [number, number, number] => [1, shareX - 0.5, shareY - 0.5];
  const fit = linearFit(
    places.map(({ x, y, value, sigma }) => ({
      terms: termsAt((x - left) / (right - left), (y - top) / (bottom - top)),
      y: value,
      sigma,
    })),
  );
  if (!fit) return null;
  const told = (weights: readonly [number, number, number]): Uncertain => ({
    value: weights.reduce((sum, weight, index) => sum + weight * fit.values[index]!, 0) + 0,
    sigma: fit.sigmaOf(weights),
  });
  const factor = studentFactor(fit.degrees, RISE_COVERAGE);
  const rises = ({ value, sigma }: Uncertain): boolean => Math.abs(value) > factor * sigma;
  const [acrossX, acrossY] = [told([0, 1, 0]), told([0, 0, 1])];
  const off = places.map(({ x, y, value }) => {
    const terms = termsAt((x - left) / (right - left), (y - top) / (bottom - top));
    return value - told(terms).value;
  });
  return {
    middle: told([1, 0, 0]),
    acrossX,
    acrossY,
    risesAlongX: rises(acrossX),
    risesAlongY: rises(acrossY),
    // The root of chi squared over its degrees scatters by one over the root of twice these.
    isBent: fit.misfit > 1 + ONE_PERCENT / Math.sqrt(2 * fit.degrees),
    offPlane: Math.sqrt(off.reduce((sum, mm) => sum + mm * mm, 0) / off.length),
    offMiddle: (shareX, shareY) => told([0, shareX - 0.5, shareY - 0.5]),
  };
}
