/** A range that an unknown lies in, as likely in one part of it as in another. */
export type Range = readonly [low: number, high: number];

/** The middle of a small box of unknowns, and its share of the likelihood of all boxes. */
export interface LikelyBox<Found> {
  readonly at: readonly number[];
  readonly found: Found;
  readonly share: number;
}

export interface Likelihood<Found> {
  /** The likeliest first. */
  readonly boxes: readonly LikelyBox<Found>[];
  /** Logarithm of the likelihood's mean over all that the unknowns may be; -Infinity where it is nought everywhere. */
  readonly logMean: number;
}

/** Boxes along each axis at first; each that is likely is halved along all axes, so many times at the most. */
const FIRST = 6;
const HALVINGS = 5;
/** Boxes less likely than the likeliest by this many powers of e are dropped, but for so many. */
const LEAST_LIKELY = 10;
const KEPT_LEAST = 24;
/** Boxes are small enough once as many as this share the likelihood. */
const ENOUGH = 30;

const middlesOf = ([low, high]: Range): number[] =>
  Array.from({ length: FIRST }, (_, k) => low + ((k + 0.5) / FIRST) * (high - low));

/** All lists that have one of the choices at each place. */
const allOf = (choices: readonly (readonly number[])[]): number[][] =>
  choices.reduce<number[][]>((lists, some) => lists.flatMap((list) => some.map((one) => [...list, one])), [[]]);

/**
 * Where a likelihood over some unknowns lies: their ranges are parted into boxes, the likely ones of which are halved until enough of them share it or
 * they are small. A quadrature by midpoints for likelihoods that are smooth but narrow, in few unknowns; what lies between the first boxes' middles
 * by less than half a box is not seen. `of` tells what is found at a place, with the logarithm of its likelihood (-Infinity for none); of the boxes
 * `most` are kept, of few of which the likeliest is as good and the others are too few.
 */
export function likelyBoxes<Found extends { readonly logLikelihood: number }>(
  ranges: readonly Range[],
  of: (at: readonly number[]) => Found,
  most = 96,
): Likelihood<Found> {
  const kept = (places: readonly (readonly number[])[]): { at: readonly number[]; found: Found }[] => {
    const boxes = places
      .map((at) => ({ at, found: of(at) }))
      .filter(({ found }) => found.logLikelihood > -Infinity)
      .sort((a, b) => b.found.logLikelihood - a.found.logLikelihood);
    const least = (boxes[0]?.found.logLikelihood ?? 0) - LEAST_LIKELY;
    const clear = boxes.findIndex(({ found }) => found.logLikelihood < least);
    return boxes.slice(0, Math.min(most, Math.max(KEPT_LEAST, clear < 0 ? most : clear)));
  };
  let boxes = kept(allOf(ranges.map(middlesOf)));
  let count = FIRST ** ranges.length;
  for (let halved = 0; halved < HALVINGS && boxes.length > 0 && sharing(relative(boxes)) < ENOUGH; halved++) {
    const steps = ranges.map(([low, high]) => (high - low) / FIRST / 4 / 2 ** halved);
    boxes = kept(boxes.flatMap(({ at }) => allOf(at.map((middle, k) => [middle - steps[k]!, middle + steps[k]!]))));
    count *= 2 ** ranges.length;
  }
  const weights = relative(boxes);
  const sum = weights.reduce((all, weight) => all + weight, 0);
  return {
    boxes: boxes.map((box, k) => ({ ...box, share: weights[k]! / sum })),
    logMean: boxes.length > 0 ? boxes[0]!.found.logLikelihood + Math.log(sum / count) : -Infinity,
  };
}

/** Likelihoods over the likeliest one's. */
const relative = (boxes: readonly { readonly found: { readonly logLikelihood: number } }[]): number[] =>
  boxes.map(({ found }) => Math.exp(found.logLikelihood - boxes[0]!.found.logLikelihood));

/** How many boxes share the likelihood. Source: A. Kong, J. S. Liu, W. H. Wong, J. Amer. Statist. Assoc. 89 (1994) 278. */
function sharing(weights: readonly number[]): number {
  let [sum, squares] = [0, 0];
  for (const weight of weights) {
    sum += weight;
    squares += weight ** 2;
  }
  return sum ** 2 / squares;
}
