import { inverse, Matrix } from 'ml-matrix';
import { cholesky } from './cholesky';

/** One measured value, and what each unknown adds to it. */
export interface LinearRow {
  readonly terms: readonly number[];
  readonly y: number;
  /** Standard uncertainty of `y`. */
  readonly sigma: number;
}

export interface LinearFit {
  readonly values: readonly number[];
  /** Values scatter about the fit by so many of their own sigmas; 0 where nothing is left to scatter. */
  readonly misfit: number;
  readonly degrees: number;
  /** Standard uncertainty of a weighted sum of the unknowns, wider by the misfit where that is above 1. */
  sigmaOf(weights: readonly number[]): number;
  /** The same by how values scatter alone, for sigmas that are right but for one factor. 0 where nothing is left to scatter. */
  scatterOf(weights: readonly number[]): number;
}

/**
 * Unknowns of a linear model by weighted least squares, each row by one over its sigma squared. Null where the rows do not tell all unknowns
 * apart. Throws RangeError for a sigma that is not above 0, or rows of different lengths. Source: N. R. Draper, H. Smith, Applied Regression
 * Analysis (1998), ch. 5, 9.
 *
 * y = a + b x through (0, 1), (1, 3), (2, 5), equal sigmas: values 1 and 2, misfit 0.
 */
export function linearFit(rows: readonly LinearRow[]): LinearFit | null {
  const count = rows[0]?.terms.length ?? 0;
  for (const { sigma, terms } of rows) {
    if (!(sigma > 0)) throw new RangeError(`invalid sigma: ${sigma}`);
    if (terms.length !== count) throw new RangeError(`invalid terms: ${terms.length} of ${count}`);
  }
  if (count === 0 || rows.length < count) return null;
  const design = new Matrix(rows.map(({ terms, sigma }) => terms.map((term) => term / sigma)));
  const wanted = Matrix.columnVector(rows.map(({ y, sigma }) => y / sigma));
  const normal = design.transpose().mmul(design);
  if (!cholesky(Float64Array.from(normal.to1DArray()), count)) return null;
  const spread = inverse(normal);
  const fitted = spread.mmul(design.transpose()).mmul(wanted);
  const rest = wanted.clone().sub(design.mmul(fitted)).to1DArray();
  const degrees = rows.length - count;
  const misfit = degrees > 0 ? Math.sqrt(rest.reduce((sum, value) => sum + value * value, 0) / degrees) : 0;
  const own = (weights: readonly number[]): number => {
    const row = Matrix.rowVector([...weights]);
    return Math.sqrt(Math.max(0, row.mmul(spread).mmul(row.transpose()).get(0, 0)));
  };
  return {
    values: fitted.to1DArray(),
    misfit,
    degrees,
    sigmaOf: (weights) => Math.max(1, misfit) * own(weights),
    scatterOf: (weights) => misfit * own(weights),
  };
}
