import { describe, expect } from 'vitest';
import fc from 'fast-check';
import { it } from 'vitest';
import { prop } from '../../../tests/support/prop';
import { risingBlocks } from './isotonic';

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
