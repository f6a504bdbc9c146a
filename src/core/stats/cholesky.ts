/** A pivot this small beside its own diagonal is what rounding makes of none. */
const ROUNDING = 1e-10;

/**
 * The lower triangle L of a symmetric, positive definite matrix A = L Lᵀ, both as n rows of n numbers one after another; only A's lower half
 * is looked at, and L's upper half is 0. Null where a pivot is none but for rounding: A has no inverse, or is not positive definite.
 *
 * The package's own decomposition asks a function for each number, which takes five times as long: a photo's light wants some forty matrices of
 * seventy rows. Source: G. H. Golub, C. F. Van Loan, Matrix Computations (2013), 4.2.
 *
 * [4, 2, 2, 5] with n = 2: [2, 0, 1, 2].
 */
export function cholesky(matrix: Float64Array, n: number): Float64Array | null {
  const lower = new Float64Array(n * n);
  for (let row = 0; row < n; row++) {
    const own = row * n;
    for (let column = 0; column <= row; column++) {
      const other = column * n;
      let rest = matrix[own + column]!;
      for (let k = 0; k < column; k++) rest -= lower[own + k]! * lower[other + k]!;
      if (column < row) lower[own + column] = rest / lower[other + column]!;
      else if (rest > ROUNDING * matrix[own + row]!) lower[own + row] = Math.sqrt(rest);
      else return null;
    }
  }
  return lower;
}

/**
 * What L Lᵀ x = right is solved by, L being the lower triangle of {@link cholesky}.
 *
 * [2, 0, 1, 2] and [8, 8]: [1.5, 1].
 */
export function solvedBy(lower: Float64Array, right: Float64Array): Float64Array {
  const n = right.length;
  const solved = right.slice();
  for (let row = 0; row < n; row++) {
    for (let k = 0; k < row; k++) solved[row]! -= lower[row * n + k]! * solved[k]!;
    solved[row]! /= lower[row * n + row]!;
  }
  for (let row = n - 1; row >= 0; row--) {
    for (let k = row + 1; k < n; k++) solved[row]! -= lower[k * n + row]! * solved[k]!;
    solved[row]! /= lower[row * n + row]!;
  }
  return solved;
}
