import { quantile } from '../../stats/robust';
import { placeTerms } from './place-terms';
import { asStored, curveOfEquations, Splines, type ToneCurve } from './tone-spline';

/** One place of a card in two photos: what each stored of it in one channel, as a share of full scale. */
export interface SeenTwice {
  readonly first: number;
  readonly second: number;
  /** Standard deviation of the logarithm of their ratio that noise alone makes. */
  readonly noise: number;
  /** Where it lies, in any unit. */
  readonly x: number;
  readonly y: number;
}

const FEWEST_PAIRS = 40;
/** No two photos show a place more alike than this: texture, and where it lies. */
const LEAST_NOISE = 0.01;
/** Tones of the two photos must overlap by this share of full scale at the least: one curve must pass through both. */
const LEAST_OVERLAP = 0.1;
/** Light that differs by place between two photos, and colours that bleed, are no noise. */
const UNDONE_SHARE = 0.05;
/** Exposures closer together than this tell a curve only by their noise. */
const LEAST_RATIO = Math.log(1.4);

/**
 * The tone curve of a camera from places that it saw under two exposures, `logRatio` apart (natural logarithm of the first's light over the
 * second's, known to `logRatioSigma`): whatever the curve is, it made the same step of light everywhere, but for what lenses do to corners.
 * Null where that cannot tell: too few places, tones of the two that do not overlap, exposures too close
 * together, or a curve that does not rise.
 *
 * Source: P. E. Debevec, J. Malik, Recovering high dynamic range radiance maps from photographs, SIGGRAPH (1997) 369.
 */
export function toneCurve(pairs: readonly SeenTwice[], logRatio: number, logRatioSigma: number): ToneCurve | null {
  if (pairs.length < FEWEST_PAIRS || Math.abs(logRatio) < LEAST_RATIO) return null;
  let [least, most, firstLeast, firstMost, secondLeast, secondMost] = [
    Infinity,
    -Infinity,
    Infinity,
    -Infinity,
    Infinity,
    -Infinity,
  ];
  for (const { first, second } of pairs) {
    firstLeast = Math.min(firstLeast, first);
    firstMost = Math.max(firstMost, first);
    secondLeast = Math.min(secondLeast, second);
    secondMost = Math.max(secondMost, second);
  }
  least = Math.min(firstLeast, secondLeast);
  most = Math.max(firstMost, secondMost);
  if (Math.min(firstMost, secondMost) - Math.max(firstLeast, secondLeast) < LEAST_OVERLAP) return null;
  const firsts = pairs.map(({ first }) => first);
  const splines = new Splines(least, most);
  const byPlace = placeTerms(pairs);
  // Noisy places count for less.
  const clear = pairs.map(({ noise }) => LEAST_NOISE / Math.hypot(LEAST_NOISE, noise));
  const equations = pairs.map(({ first, second }, k) => ({
    tones: splines.between(first, second),
    others: byPlace[k]!,
    wanted: logRatio - (asStored(first) - asStored(second)),
    clear: clear[k]!,
  }));
  return curveOfEquations(splines, equations, {
    // A ratio told too large by a share makes every step of light too large by that share.
    contrastSigma: logRatioSigma / Math.abs(logRatio),
    undoneShare: UNDONE_SHARE,
    firstRange: [quantile(firsts, 0.03), quantile(firsts, 0.97)],
  });
}
