import { inverse, Matrix } from 'ml-matrix';
import { studentFactor } from './student';

/** The top or bottom of a parabola through points. */
export interface Vertex {
  readonly x: number;
  /** Half the width of the interval that holds the vertex with 68.27 %: a standard uncertainty, wider for few points by Student's factor. */
  readonly sigma: number;
  /** Second-degree coefficient: negative for a top. */
  readonly bend: number;
  /** How many of its own standard uncertainties the bend is away from none: a straight line has no vertex. */
  readonly clear: number;
}

const ONE_SIGMA = 0.6827;
/** A bend this small beside the values is what rounding makes of none. */
const ROUNDING = 1e-12;

/**
 * The vertex of the least-squares parabola y = a + b x + c x² through at least four points, -b / 2c, with its standard uncertainty carried over
 * from b and c to first order, the scatter taken from the points themselves. Null for fewer points, for points at fewer than three places, and for
 * a parabola without bend. Points on one parabola give a sigma of 0. Source: N. R. Draper, H. Smith, Applied Regression Analysis (1998), ch. 5, 24.
 *
 * (-2, 0), (-1, 3), (0, 4), (1, 3), (2, 0) lie on 4 - x²: x 0, bend -1.
 */
export function vertexOf(points: readonly { readonly x: number; readonly y: number }[]): Vertex | null {
  const degrees = points.length - 3;
  if (degrees < 1 || new Set(points.map(({ x }) => x)).size < 3) return null;
  // About the middle, in half widths, so that the terms are as large as each other.
  const [low, high] = [Math.min(...points.map(({ x }) => x)), Math.max(...points.map(({ x }) => x))];
  const [middle, half] = [(low + high) / 2, (high - low) / 2];
  const design = new Matrix(points.map(({ x }) => [1, (x - middle) / half, ((x - middle) / half) ** 2]));
  const wanted = Matrix.columnVector(points.map(({ y }) => y));
  const spread = inverse(design.transpose().mmul(design));
  const fitted = spread.mmul(design.transpose()).mmul(wanted);
  const [, b, c] = fitted.to1DArray() as [number, number, number];
  if (Math.abs(c) <= ROUNDING * Math.max(...points.map(({ y }) => Math.abs(y)))) return null;
  const rest = wanted.clone().sub(design.mmul(fitted)).to1DArray();
  const variance = rest.reduce((sum, value) => sum + value * value, 0) / degrees;
  const vertex = -b / (2 * c);
  // d vertex = -(db + 2 vertex dc) / 2c
  const toB = -1 / (2 * c);
  const toC = -vertex / c;
  const [bb, bc, cc] = [spread.get(1, 1), spread.get(1, 2), spread.get(2, 2)];
  const vertexVariance = variance * (toB * toB * bb + 2 * toB * toC * bc + toC * toC * cc);
  const bendSigma = Math.sqrt(variance * cc);
  return {
    x: middle + half * vertex,
    sigma: half * Math.sqrt(Math.max(0, vertexVariance)) * studentFactor(degrees, ONE_SIGMA),
    bend: c / half ** 2,
    clear: bendSigma > 0 ? Math.abs(c) / bendSigma : Infinity,
  };
}
