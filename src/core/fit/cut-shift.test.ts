import { describe, expect, it } from 'vitest';
import { cutShift, type TriedCut } from './cut-shift';

const KEPT = { comesThrough: 1, laidDown: 1.25 };
const tried = (...drops: boolean[]): TriedCut[] =>
  drops.map((dropped, k) => ({ energy: [1.06, 1.14, 1.25][k]!, drops: dropped }));

describe('how far a sheet is off', () => {
  it('is what sheets usually are where nothing was tried', () => {
    const { mean, sigma, dropsAt } = cutShift([], KEPT);
    expect(mean).toBeCloseTo(0, 9);
    expect(sigma).toBeCloseTo(0.1, 3);
    // A normal shift on a probit is a probit of both scatters: by hand, and half at what comes through.
    const scatter = Math.log(1.25) / 2.05;
    expect(dropsAt(1)).toBeCloseTo(0.5, 6);
    const one = 1 * Math.hypot(scatter, 0.1);
    expect(dropsAt(Math.exp(one))).toBeCloseTo(0.8413, 3);
  });
  it('is less where weak cuts drop too, and more where the kept one hangs', () => {
    const [all, none, most] = [tried(true, true, true), tried(false, false, false), tried(false, true, true)].map(
      (cuts) => cutShift(cuts, KEPT),
    );
    expect(all!.mean).toBeLessThan(0);
    expect(all!.dropsAt(1.25)).toBeGreaterThan(0.96);
    expect(none!.mean).toBeGreaterThan(0.1);
    expect(none!.dropsAt(1.25)).toBeLessThan(0.7);
    expect(none!.dropsAt(1.9)).toBeGreaterThan(0.97);
    expect(most!.mean).toBeGreaterThan(all!.mean);
    expect(most!.mean).toBeLessThan(none!.mean);
    expect(all!.sigma).toBeLessThan(0.1);
    expect(() => cutShift([], { comesThrough: 1, laidDown: 1 })).toThrow('invalid cut');
  });
});
