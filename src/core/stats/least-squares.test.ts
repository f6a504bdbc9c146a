import { describe, expect, it } from 'vitest';
import { leastSquares, type Left } from './least-squares';

// NIST StRD, Nonlinear Regression, itl.nist.gov/div898/strd: data, starts and certified values of two of its problems (from memory; SciPy 1.17 gives the same).
const MISRA_X = [77.6, 114.9, 141.1, 190.8, 239.9, 289, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760];
const MISRA_Y = [10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.4, 75.47, 81.78];
const RAT_Y = [
  16.08, 33.83, 65.8, 97.2, 191.55, 326.2, 386.87, 520.53, 590.03, 651.92, 724.93, 699.56, 689.96, 637.56, 717.41,
];

const misra = ([top, rate]: readonly number[]): Left => ({
  residuals: MISRA_X.map((x, at) => top! * (1 - Math.exp(-rate! * x)) - MISRA_Y[at]!),
  jacobian: MISRA_X.map((x) => [1 - Math.exp(-rate! * x), top! * x * Math.exp(-rate! * x)]),
});

/** Slopes by differences: what a model's own arithmetic has nothing to do with. */
function rat43(parameters: readonly number[]): Left {
  const left = ([a, b, c, d]: readonly number[]) =>
    RAT_Y.map((y, at) => a! / (1 + Math.exp(b! - c! * (at + 1))) ** (1 / d!) - y);
  const residuals = left(parameters);
  const columns = parameters.map((value, at) => {
    const step = 1e-6 * Math.abs(value);
    const moved = (by: number) => left(parameters.map((one, place) => one + (place === at ? by : 0)));
    const [more, less] = [moved(step), moved(-step)];
    return residuals.map((_, row) => (more[row]! - less[row]!) / (2 * step));
  });
  return { residuals, jacobian: residuals.map((_, row) => columns.map((column) => column[row]!)) };
}

describe('least squares', () => {
  it.each([[[500, 0.0001]], [[250, 0.0005]]])('find the certified values of Misra1a from %j', (start) => {
    const { parameters, sumOfSquares, stopped } = leastSquares(misra, start);
    expect(parameters[0]).toBeCloseTo(238.94212918, 4);
    expect(parameters[1]! / 5.5015643181e-4).toBeCloseTo(1, 6);
    expect(sumOfSquares).toBeCloseTo(0.12455138894, 8);
    expect(stopped).toBe('settled');
  });
  it.each([[[100, 10, 1, 1]], [[700, 5, 0.75, 1.3]]])('find the certified values of Rat43 from %j', (start) => {
    const { parameters, sumOfSquares } = leastSquares(rat43, start);
    [699.6415127, 5.2771253025, 0.75962938329, 1.2792483859].forEach((value, at) =>
      expect(parameters[at]! / value).toBeCloseTo(1, 4),
    );
    expect(sumOfSquares / 8786.4049081).toBeCloseTo(1, 8);
  });
  it('say where no step is any better, and refuse a start that gives no number', () => {
    const flat = (): Left => ({ residuals: [1, 1], jacobian: [[0], [0]] });
    expect(['settled', 'no-better']).toContain(leastSquares(flat, [3]).stopped);
    expect(leastSquares(flat, [3]).parameters).toEqual([3]);
    // A slope that points the wrong way: every step, however short, is worse.
    const uphill = leastSquares(([x]) => ({ residuals: [x!], jacobian: [[-1]] }), [1]);
    expect(uphill).toEqual({ parameters: [1], sumOfSquares: 1, stopped: 'no-better' });
    // Where nothing is left over, a step that gains nothing is the end, and no reason to look on.
    expect(leastSquares(([x]) => ({ residuals: [x! - 3], jacobian: [[1]] }), [3]).stopped).toBe('settled');
    expect(() => leastSquares(misra, [NaN, 1])).toThrow(RangeError);
    // Downhill without end: never called settled.
    const endless = ([x]: readonly number[]): Left => ({
      residuals: [Math.exp(-x! / 1e6) * 1e3],
      jacobian: [[-Math.exp(-x! / 1e6) / 1e3]],
    });
    expect(leastSquares(endless, [0])).toMatchObject({ stopped: 'too-many-steps' });
    expect(leastSquares(endless, [0]).sumOfSquares).toBeLessThan(1e6);
  });
});
