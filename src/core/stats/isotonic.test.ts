import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { reaches, risingBlocks, risingCurve, sigmaBeside } from './isotonic';
import { tuples } from '../../../tests/support/tuples';

const spread = (ys: readonly number[], weights: readonly number[] = ys.map(() => 1)): number[] =>
  risingBlocks(ys.map((y, k) => ({ y, weight: weights[k]! }))).flatMap(({ first, last, y }) =>
    Array.from({ length: last - first + 1 }, () => y),
  );

describe('values that never fall', () => {
  it('are pooled where they would: a worked example', () => {
    const third = 11 / 3;
    expect(spread([1, 2, 6, 2, 3, 7, 6])).toEqual([1, 2, third, third, third, 6.5, 6.5]);
  });
  it('go by weights as by values that are there so often', () => {
    const often = spread([3, 1, 1, 1, 4]);
    expect(spread([3, 1, 4], [1, 3, 1])).toEqual([often[0], often[1], often[4]]);
  });
  it('are those given where they rise already, and one mean where they fall', () => {
    expect(spread([1, 2, 3])).toEqual([1, 2, 3]);
    expect(spread([3, 2, 1])).toEqual([2, 2, 2]);
    expect(spread([])).toEqual([]);
  });
  prop([fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 30 })])(
    'never fall, keep the sum, and lie nearer than any one step between two levels',
    (ys) => {
      const fitted = spread(ys);
      expect(fitted).toHaveLength(ys.length);
      for (let k = 1; k < ys.length; k++) expect(fitted[k]! - fitted[k - 1]!).toBeGreaterThanOrEqual(-1e-9);
      const sum = (of: readonly number[]): number => of.reduce((total, y) => total + y, 0);
      expect(sum(fitted)).toBeCloseTo(sum(ys), 6);
      const error = (of: readonly number[]): number => sum(of.map((y, k) => (y - ys[k]!) ** 2));
      for (let cut = 0; cut <= ys.length; cut++) {
        const [low, high] = [ys.slice(0, cut), ys.slice(cut)].map((part) => sum(part) / Math.max(1, part.length)) as [
          number,
          number,
        ];
        if (cut > 0 && cut < ys.length && low > high) continue;
        expect(error(fitted)).toBeLessThanOrEqual(error(ys.map((_, k) => (k < cut ? low : high))) + 1e-6);
      }
    },
  );
});

describe('a curve that never falls', () => {
  const points = [
    { x: 0, y: 0, sigma: 1 },
    { x: 2, y: 6, sigma: 2 },
    { x: 4, y: 4, sigma: 2 },
    { x: 5, y: 10, sigma: 0.5 },
    { x: 9, y: 10, sigma: 4 },
  ];
  it('is level where points fall, as sure as they are together, and lies on them elsewhere', () => {
    const curve = risingCurve(points);
    expect(curve.map(({ x, y }) => [x, y])).toEqual(tuples([0, 0], [2, 5], [4, 5], [5, 10], [9, 10]));
    expect(curve[0]!.sigma).toBeCloseTo(1, 12);
    // Two of sigma 2 together.
    for (const index of [1, 2]) expect(curve[index]!.sigma).toBeCloseTo(Math.SQRT2, 12);
  });
  it('comes to a level where it first does, straight between its points, and no further than they lie', () => {
    const curve = risingCurve(points);
    expect([0, 2.5, 5, 7.5, 10].map((level) => reaches(curve, level))).toEqual([0, 1, 2, 4.5, 5]);
    expect([-3, 11].map((level) => reaches(curve, level))).toEqual([0, 9]);
  });
  it('is as sure between two points as the less sure one', () => {
    expect([0, 1, 4.5, 5, 6, 9, 20].map((x) => sigmaBeside(points, x))).toEqual([1, 2, 2, 2, 4, 4, 4]);
  });
});
