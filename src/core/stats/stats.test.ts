import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { chanceWithin, erf } from './normal';
import { MAD_TO_SIGMA, meanAndSpread, median, quantile, robustSigma } from './robust';

describe('order statistics', () => {
  it('interpolate as type 7 does', () => {
    // Worked by hand from the definition: position = share (n - 1).
    expect(quantile([15, 20, 35, 40, 50], 0.4)).toBe(29);
    expect(quantile([1, 2, 3, 4], 0.25)).toBe(1.75);
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
  it('has no spread for one reading', () => expect(meanAndSpread([3]).spread).toBeNaN());
});

// M. Abramowitz, I. A. Stegun, Handbook of Mathematical Functions (1964), table 7.1.
describe('error function', () => {
  it.each([
    [0, 0],
    [0.1, 0.1124629],
    [0.5, 0.5204999],
    [1, 0.8427008],
    [1.5, 0.9661051],
    [2, 0.9953223],
  ])('erf %f is %f', (x, value) => {
    expect(erf(x)).toBeCloseTo(value, 6);
    expect(erf(-x)).toBeCloseTo(-value, 6);
  });
  it.each([
    [1, 0.6827],
    [2, 0.9545],
    [3, 0.9973],
  ])('within %i sigma lies %f', (limit, chance) => expect(chanceWithin(limit, 1)).toBeCloseTo(chance, 4));
  it('is certain without uncertainty', () => expect(chanceWithin(2, 0)).toBe(1));
});
