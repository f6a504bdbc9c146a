import { describe, expect, it } from 'vitest';
import { pooled } from './pooled';

describe('the pooled mean of values', () => {
  it('is theirs by their sigmas, as sure as all of them together', () => {
    // By hand: weights 4 and 1, so (4 × 50 + 50.2) / 5, and 1 / √5.
    const { value, sigma } = pooled([
      { value: 50, sigma: 0.5 },
      { value: 50.2, sigma: 1 },
    ]);
    expect(value).toBeCloseTo(50.04, 12);
    expect(sigma).toBeCloseTo(1 / Math.sqrt(5), 12);
    expect(pooled([{ value: 3, sigma: 0.2 }])).toEqual({ value: 3, sigma: expect.closeTo(0.2, 12) });
  });
  it('is less sure where they scatter more than their sigmas allow', () => {
    // Birge: χ² of 8 on one degree, so √8 of 0.5 / √2.
    const { value, sigma } = pooled([
      { value: 49, sigma: 0.5 },
      { value: 51, sigma: 0.5 },
    ]);
    expect(value).toBe(50);
    expect(sigma).toBeCloseTo((Math.sqrt(8) * 0.5) / Math.SQRT2, 12);
  });
  it('is refused for none, and for a sigma of nothing', () => {
    expect(() => pooled([])).toThrow(/missing/);
    expect(() => pooled([{ value: 1, sigma: 0 }])).toThrow(/invalid sigma: 0/);
  });
});
