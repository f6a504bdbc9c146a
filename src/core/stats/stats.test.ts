import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { chanceWithin } from './normal';
import { MAD_TO_SIGMA, meanAndSpread, median, quantile, robustSigma } from './robust';

describe('order statistics', () => {
  it('interpolate as type 7 does', () => {
    // Worked by hand from the definition: position = share (n - 1).
    expect(quantile([15, 20, 35, 40, 50], 0.4)).toBe(29);
    expect(quantile([1, 2, 3, 4], 0.25)).toBe(1.75);
    expect(quantile([], 0.5)).toBeNaN();
    expect(median([3, 1, 2])).toBe(2);
    expect(median([4, 1, 3, 2])).toBe(2.5);
    expect(median([])).toBeNaN();
  });
  it('leave their input alone', () => {
    const values = [3, 1, 2];
    median(values);
    expect(values).toEqual([3, 1, 2]);
  });
  prop([
    fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 1, maxLength: 50 }),
    fc.double({ min: 0, max: 1, noNaN: true }),
  ])('lie within the values and grow with the share', (values, share) => {
    const at = quantile(values, share);
    expect(at).toBeGreaterThanOrEqual(Math.min(...values));
    expect(at).toBeLessThanOrEqual(Math.max(...values));
    expect(quantile(values, Math.min(1, share + 0.1))).toBeGreaterThanOrEqual(at);
  });
});

describe('robust spread', () => {
  it('scales to the standard deviation of a normal law', () => {
    // 1 / Φ⁻¹(0.75), from any table of the normal law.
    expect(MAD_TO_SIGMA).toBeCloseTo(1 / 0.67449, 4);
    expect(robustSigma([1, 2, 3, 4, 5])).toBeCloseTo(1.4826, 6);
    expect(robustSigma([])).toBeNaN();
  });
  it('does not mind one value far off', () => {
    expect(robustSigma([1, 2, 3, 4, 1e9])).toBeCloseTo(1.4826, 6);
  });
});

describe('mean and spread', () => {
  it('of five caliper readings', () => {
    // 24.86 24.88 24.85 24.87 24.86: mean 24.864, s = sqrt(0.00052 / 4), by hand.
    const { mean, spread, count } = meanAndSpread([24.86, 24.88, 24.85, 24.87, 24.86]);
    expect(count).toBe(5);
    expect(mean).toBeCloseTo(24.864, 9);
    expect(spread).toBeCloseTo(Math.sqrt(0.00052 / 4), 9);
  });
  it('has no spread for one reading, and no mean for none', () => {
    expect(meanAndSpread([3])).toEqual({ count: 1, mean: 3, spread: NaN });
    expect(meanAndSpread([])).toEqual({ count: 0, mean: NaN, spread: NaN });
  });
  it('takes typed arrays, and leaves them alone', () => {
    const values = Float64Array.of(4, 1, 3, 2);
    expect([median(values), meanAndSpread(values).mean, quantile(values, 0.25)]).toEqual([2.5, 2.5, 1.75]);
    expect(robustSigma(values)).toBeCloseTo(1.4826, 6);
    expect([...values]).toEqual([4, 1, 3, 2]);
  });
});

// M. Abramowitz, I. A. Stegun, Handbook of Mathematical Functions (1964), table 26.1: 2 P(x) - 1.
describe('the chance to lie within', () => {
  it.each([
    [0.5, 0.382925],
    [1, 0.682689],
    [2, 0.9545],
    [3, 0.9973],
  ])('%f sigma is %f, whatever sigma is', (limit, chance) => {
    expect(chanceWithin(limit, 1)).toBeCloseTo(chance, 6);
    expect(chanceWithin(0.2 * limit, 0.2)).toBeCloseTo(chance, 6);
  });
  it('is certain without uncertainty', () => expect(chanceWithin(2, 0)).toBe(1));
});
