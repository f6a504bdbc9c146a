import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { cholesky, solvedBy } from './cholesky';

describe('a positive definite matrix by its lower triangle', () => {
  it('is taken apart and solved as by hand', () => {
    const lower = cholesky(Float64Array.of(4, 2, 2, 5), 2)!;
    expect([...lower]).toEqual([2, 0, 1, 2]);
    // 4 x 1.5 + 2 x 1 = 8 and 2 x 1.5 + 5 x 1 = 8.
    const right = Float64Array.of(8, 8);
    expect([...solvedBy(lower, right)]).toEqual([1.5, 1]);
    expect([...right]).toEqual([8, 8]);
    // However small its numbers are.
    expect(cholesky(Float64Array.of(1e-12), 1)![0]).toBeCloseTo(1e-6, 15);
  });

  it('agrees with ml-matrix on matrices of covariances', () => {
    const random = seedrandom('triangle');
    for (const n of [1, 3, 20, 72]) {
      const places = Array.from({ length: n }, () => 5 * random());
      const values = places.map((a, i) => places.map((b, j) => Math.exp(-Math.abs(a - b)) + (i === j ? 0.1 : 0)));
      const right = places.map(() => random() - 0.5);
      const library = new CholeskyDecomposition(new Matrix(values));
      const lower = cholesky(Float64Array.from(values.flat()), n)!;
      const solved = solvedBy(lower, Float64Array.from(right));
      const apart = (ours: Float64Array, theirs: Matrix): number =>
        Math.max(...theirs.to1DArray().map((value, at) => Math.abs(value - ours[at]!)));
      expect(apart(lower, library.lowerTriangularMatrix)).toBeLessThan(1e-12);
      expect(apart(solved, library.solve(Matrix.columnVector(right)))).toBeLessThan(1e-10);
    }
  });

  it('looks at the lower half alone', () => {
    expect(cholesky(Float64Array.of(4, NaN, 2, 5), 2)).toEqual(Float64Array.of(2, 0, 1, 2));
  });

  it('is none where the matrix has no inverse but for rounding, or is not positive definite', () => {
    expect(cholesky(Float64Array.of(1, 0, 3, 9), 2)).toBeNull();
    expect(cholesky(Float64Array.of(0.1, 0, 0.3, 0.9 + 1e-14), 2)).toBeNull();
    expect(cholesky(Float64Array.of(1, 0, 2, 1), 2)).toBeNull();
    expect(cholesky(Float64Array.of(NaN), 1)).toBeNull();
  });
});
