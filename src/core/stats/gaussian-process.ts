import { CholeskyDecomposition, Matrix } from 'ml-matrix';

/** How values at two places go together: by so much where they lie together, and less the further apart. */
export interface Kernel {
  /** Standard deviation of what is to be told, in its own unit. */
  readonly amplitude: number;
  /** Distance over which it changes, in the places' own unit. */
  readonly reach: number;
}

type Place = readonly number[];

/** Covariance of two places. Source: C. E. Rasmussen, C. K. I. Williams, Gaussian Processes for Machine Learning (2006), 4.2.1, Matérn 5/2. */
function covariance({ amplitude, reach }: Kernel, a: Place, b: Place): number {
  let squared = 0;
  for (let at = 0; at < a.length; at++) squared += (a[at]! - b[at]!) ** 2;
  const apart = Math.sqrt(5 * squared) / reach;
  return amplitude ** 2 * (1 + apart + apart ** 2 / 3) * Math.exp(-apart);
}

/** Solves a lower triangular factor for a vector, from one of its rows on: what comes before is 0. */
function solveForward(rows: readonly (readonly number[])[], vector: Float64Array, from = 0): Float64Array {
  const solved = new Float64Array(vector.length);
  for (let at = from; at < vector.length; at++) {
    const row = rows[at]!;
    let sum = vector[at]!;
    for (let before = from; before < at; before++) sum -= row[before]! * solved[before]!;
    solved[at] = sum / row[at]!;
  }
  return solved;
}

/** Sum of something over all values. */
const sumOver = (values: Float64Array, of: (value: number, at: number) => number): number =>
  values.reduce((sum, value, at) => sum + of(value, at), 0);

const squares = (values: Float64Array): number => values.reduce((sum, value) => sum + value * value, 0);

/** Diagonal of the inverse of a matrix, from its lower triangular factor: a column of the factor's inverse after the other. */
function diagonalOfInverse(rows: readonly (readonly number[])[]): number[] {
  return rows.map((_, from) => {
    const unit = new Float64Array(rows.length);
    unit[from] = 1;
    return squares(solveForward(rows, unit, from));
  });
}

export interface GaussianProcess {
  /** ln of how likely the values are under the kernel, up to what is the same for every kernel. */
  readonly logLikelihood: number;
  /** What is foretold at a place, and how unsure that is, noise of another measurement not counted. */
  at(place: Place, basis: readonly number[]): { readonly value: number; readonly sigma: number };
  /** What each value would have been foretold as without itself, noise counted in. */
  withoutItself(): { readonly value: number; readonly sigma: number }[];
  /** Weights of the basis, with their covariance. */
  readonly weights: readonly number[];
  readonly weightCovariance: readonly (readonly number[])[];
}

/**
 * Values at places as a smooth surface about a weighted sum of basis functions: `basis` has a row for each place, `priors` say how far from 0 each
 * weight may lie (standard deviations; Infinity where nobody knows: universal kriging). `noise` are standard deviations of each value. Throws
 * RangeError for a noise or reach that is not above 0, and where there are no more values than basis functions.
 * Source: Rasmussen & Williams (2006), 2.2, 2.7 (explicit basis functions) and 5.4.2 (leaving one out).
 */
export function gaussianProcess(
  places: readonly Place[],
  values: readonly number[],
  noise: readonly number[],
  basis: readonly (readonly number[])[],
  kernel: Kernel,
  priors: readonly number[],
): GaussianProcess {
  const count = places.length;
  const terms = priors.length;
  if (!(kernel.reach > 0)) throw new RangeError(`invalid reach: ${kernel.reach}`);
  for (const sigma of noise) if (!(sigma > 0)) throw new RangeError(`invalid noise: ${sigma}`);
  if (count <= terms) throw new RangeError(`missing values: ${count} for ${terms} basis functions`);
  const joint = new Matrix(count, count);
  for (let row = 0; row < count; row++)
    for (let column = 0; column <= row; column++) {
      const both = covariance(kernel, places[row]!, places[column]!) + (row === column ? noise[row]! ** 2 : 0);
      joint.set(row, column, both);
      joint.set(column, row, both);
    }
  const decomposed = new CholeskyDecomposition(joint);
  const vector = Matrix.columnVector([...values]);
  const solved = decomposed.solve(vector);
  const factor = decomposed.lowerTriangularMatrix.to2DArray();
  const logDeterminant = 2 * decomposed.lowerTriangularMatrix.diag().reduce((sum, value) => sum + Math.log(value), 0);

  const rows = new Matrix(basis.map((row) => [...row]));
  const solvedBasis = decomposed.solve(rows);
  const information = rows.transpose().mmul(solvedBasis);
  // Symmetric but for the last bits, which the decomposition would not take.
  const byBasis = new CholeskyDecomposition(
    Matrix.add(information, information.transpose())
      .mul(0.5)
      .add(Matrix.diag(priors.map((prior) => 1 / prior ** 2))),
  );
  const weights = byBasis.solve(rows.transpose().mmul(solved));
  const weightCovariance = byBasis.solve(Matrix.eye(terms, terms));
  const rest = Matrix.sub(solved, solvedBasis.mmul(weights));

  const withoutItself = (): { value: number; sigma: number }[] => {
    // What is known of each value by all others: from the inverse of the covariance with the basis' own part taken out.
    const own = diagonalOfInverse(factor);
    return values.map((value, at) => {
      const row = solvedBasis.getRowVector(at);
      const known = own[at]! - row.mmul(weightCovariance).mmul(row.transpose()).get(0, 0);
      return { value: value - rest.get(at, 0) / known, sigma: 1 / Math.sqrt(known) };
    });
  };

  return {
    logLikelihood:
      -0.5 *
      (vector.dot(rest) +
        logDeterminant +
        2 * byBasis.lowerTriangularMatrix.diag().reduce((sum, value) => sum + Math.log(value), 0)),
    withoutItself,
    weights: weights.to1DArray(),
    weightCovariance: weightCovariance.to2DArray(),
    at: (place, own) => {
      const near = Float64Array.from(places, (other) => covariance(kernel, place, other));
      const left = own.map((term, column) => term - sumOver(near, (value, at) => value * solvedBasis.get(at, column)));
      const value =
        own.reduce((sum, term, at) => sum + term * weights.get(at, 0), 0) +
        sumOver(near, (one, at) => one * rest.get(at, 0));
      const ofWeights = left.reduce(
        (sum, a, row) => sum + a * left.reduce((all, b, column) => all + b * weightCovariance.get(row, column), 0),
        0,
      );
      const variance = kernel.amplitude ** 2 - squares(solveForward(factor, near)) + ofWeights;
      return { value, sigma: Math.sqrt(Math.max(0, variance)) };
    },
  };
}
