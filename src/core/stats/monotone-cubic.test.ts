import { describe, expect, it } from 'vitest';
import { monotoneCubic } from './monotone-cubic';
import { tuples } from '../../../tests/support/tuples';

const through = (...points: (readonly [x: number, y: number])[]) => monotoneCubic(points.map(([x, y]) => ({ x, y })));

describe('a monotone cubic', () => {
  it('is as another program draws it', () => {
    const curve = through([0, 0], [1, 1], [2, 1.5], [4, 5], [7, 5.2]);
    // By SciPy's PchipInterpolator.
    for (const [x, y] of tuples([0.5, 0.57292], [1.5, 1.24176], [3, 3.39892], [5.5, 5.15134]))
      expect(curve(x)).toBeCloseTo(y, 4);
  });
  it('goes through its points, and never past what two neighbours have', () => {
    const points = tuples([0, 0], [0.1, 0], [0.2, 0.4], [0.5, 9], [0.55, 9], [1, 9.1]);
    const curve = through(...points);
    for (const [x, y] of points) expect(curve(x)).toBeCloseTo(y, 12);
    let before = 0;
    for (let step = 0; step <= 1000; step++) {
      const y = curve(step / 1000);
      expect(y).toBeGreaterThanOrEqual(before - 1e-12);
      before = y;
    }
    expect(curve(0.05)).toBe(0);
    expect(curve(0.52)).toBe(9);
  });
  it('is a straight line through two points, and level beyond its ends', () => {
    const line = through([1, 2], [3, 6]);
    expect(line(1.5)).toBeCloseTo(3, 12);
    expect([line(0), line(9)]).toEqual([2, 6]);
    // Slopes by hand: 2 at the end, by a parabola, and 0 at the turn: 2 t - t² at t = 1/2.
    const bump = through([0, 0], [1, 1], [2, 0]);
    expect(bump(0.5)).toBeCloseTo(0.75, 12);
    expect(bump(1)).toBe(1);
  });
  it('refuses what is no curve', () => {
    expect(() => through([0, 0])).toThrow(/1 points/);
    expect(() => through([0, 0], [0, 1])).toThrow(RangeError);
    expect(() => through([0, 0], [2, 1], [1, 1])).toThrow(/1 comes after 2/);
  });
});
