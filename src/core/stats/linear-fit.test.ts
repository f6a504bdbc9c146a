import { describe, expect, it } from 'vitest';
import { linearFit } from './linear-fit';

const row = (terms: readonly number[], y: number, sigma = 1) => ({ terms, y, sigma });

/** From NumPy 2: lstsq on rows divided by their sigmas, and the inverse of AᵀA. */
const EXPECTED = { a: 1.0825046, b: 2.06623696, misfit: 1.28352326, sigmaB: 0.04804336, sigmaAt2: 0.06884115 };

describe('weighted linear least squares', () => {
  it('finds what made values that have no error, and no misfit', () => {
    const fit = linearFit([row([1, 0], 1), row([1, 1], 3), row([1, 2], 5)])!;
    expect(fit.values[0]).toBeCloseTo(1, 12);
    expect(fit.values[1]).toBeCloseTo(2, 12);
    expect(fit.misfit).toBeCloseTo(0, 9);
    expect(fit.degrees).toBe(1);
    expect(fit.scatterOf([1, 0])).toBeCloseTo(0, 9);
  });

  it('agrees with NumPy on scattered values of different weight', () => {
    const x = [0, 1, 2, 3, 4];
    const y = [1.1, 2.9, 5.3, 6.8, 9.4];
    const sigma = [0.1, 0.2, 0.1, 0.3, 0.2];
    const fit = linearFit(x.map((at, index) => row([1, at], y[index]!, sigma[index])))!;
    expect(fit.values[0]).toBeCloseTo(EXPECTED.a, 6);
    expect(fit.values[1]).toBeCloseTo(EXPECTED.b, 6);
    expect(fit.misfit).toBeCloseTo(EXPECTED.misfit, 6);
    // What scatters more than its sigmas say is less sure by that factor; either way by how it scatters alone.
    expect(fit.sigmaOf([0, 1])).toBeCloseTo(EXPECTED.sigmaB * Math.max(1, EXPECTED.misfit), 6);
    expect(fit.scatterOf([0, 1])).toBeCloseTo(EXPECTED.sigmaB * EXPECTED.misfit, 6);
    expect(fit.scatterOf([1, 2])).toBeCloseTo(EXPECTED.sigmaAt2 * EXPECTED.misfit, 6);
  });

  it('keeps its sigmas where values scatter less, and goes by the scatter where that is asked', () => {
    const fit = linearFit([row([1], 2, 0.5), row([1], 2.1, 0.5), row([1], 1.9, 0.5)])!;
    // 0.5 / sqrt(3); the values' own standard deviation is 0.1.
    expect(fit.sigmaOf([1])).toBeCloseTo(0.288675, 6);
    expect(fit.scatterOf([1])).toBeCloseTo(0.1 / Math.sqrt(3), 6);
  });

  it('says so where rows do not tell the unknowns apart, and refuses what is no data', () => {
    expect(linearFit([row([1, 2], 1), row([2, 4], 2), row([3, 6], 3)])).toBeNull();
    expect(linearFit([row([1, 2], 1)])).toBeNull();
    expect(linearFit([])).toBeNull();
    expect(() => linearFit([row([1], 1, 0)])).toThrow(RangeError);
    expect(() => linearFit([row([1], 1), row([1, 2], 1)])).toThrow(RangeError);
  });
});
