import { linearFit } from './linear-fit';

/** A measured point: `sigma` is the standard uncertainty of `y`. */
export interface ParabolaPoint {
  readonly x: number;
  readonly y: number;
  readonly sigma: number;
}

/** A parabola through points, and its top or bottom. */
export interface Parabola {
  /** Where its top or bottom lies, with its standard uncertainty. */
  readonly x: number;
  readonly sigma: number;
  /** Second-degree coefficient, negative for a top, with its standard uncertainty. */
  readonly bend: number;
  readonly bendSigma: number;
  /** Height anywhere, with its standard uncertainty. */
  at(x: number): { readonly y: number; readonly sigma: number };
  /** Points scatter about it by so many of their own sigmas; 0 where three points leave nothing to scatter. */
  readonly misfit: number;
}

/** A bend this small beside the values is what rounding makes of none. */
const ROUNDING = 1e-12;

/**
 * The parabola y = a + b x + c x² that weighted squares are least about, each point by one over its sigma squared, through at least three points at
 * three places, and its vertex -b / 2c with the standard uncertainty carried over from b and c to first order. Sigmas grow by the misfit where
 * points scatter more than theirs say. Null for fewer places and for a parabola without bend. Throws RangeError for a sigma that is not above 0.
 * Source: N. R. Draper, H. Smith, Applied Regression Analysis (1998), ch. 5, 9, 24.
 *
 * (-1, 3), (0, 4), (1, 3) lie on 4 - x²: x 0, bend -1.
 */
export function parabolaThrough(points: readonly ParabolaPoint[]): Parabola | null {
  for (const { sigma } of points) if (!(sigma > 0)) throw new RangeError(`invalid sigma: ${sigma}`);
  if (new Set(points.map(({ x }) => x)).size < 3) return null;
  // About the middle, in half widths, so that the terms are as large as each other.
  const [low, high] = [Math.min(...points.map(({ x }) => x)), Math.max(...points.map(({ x }) => x))];
  const [middle, half] = [(low + high) / 2, (high - low) / 2];
  const termsAt = (x: number): [number, number, number] => {
    const share = (x - middle) / half;
    return [1, share, share ** 2];
  };
  const fit = linearFit(points.map(({ x, y, sigma }) => ({ terms: termsAt(x), y, sigma })));
  if (!fit) return null;
  const [a, b, c] = fit.values as [number, number, number];
  if (Math.abs(c) <= ROUNDING * Math.max(...points.map(({ y }) => Math.abs(y)))) return null;
  const { misfit, sigmaOf } = fit;
  const vertex = -b / (2 * c);
  return {
    x: middle + half * vertex,
    // d vertex = -(db + 2 vertex dc) / 2c
    sigma: half * sigmaOf([0, -1 / (2 * c), -vertex / c]),
    bend: c / half ** 2,
    bendSigma: sigmaOf([0, 0, 1]) / half ** 2,
    at: (x) => {
      const [one, share, square] = termsAt(x);
      return { y: a * one + b * share + c * square, sigma: sigmaOf([one, share, square]) };
    },
    misfit,
  };
}
