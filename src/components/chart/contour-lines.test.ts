import { describe, expect, it } from 'vitest';
import { areasAbove, linesAt, pathOf, type Lattice } from './contour-lines';

/** Values by a function of shares from the upper left. */
const lattice = (of: (x: number, y: number) => number, columns = 21, rows = 31): Lattice => ({
  columns,
  rows,
  values: Array.from({ length: columns * rows }, (_, at) =>
    of((at % columns) / (columns - 1), Math.floor(at / columns) / (rows - 1)),
  ),
});

describe('contour lines', () => {
  it('of a slope across run from top to bottom, where the value is', () => {
    const slope = lattice((x) => 100 * x);
    const lines = linesAt(slope, 37);
    expect(lines).toHaveLength(1);
    for (const [x] of lines[0]!) expect(x).toBeCloseTo(0.37, 9);
    expect(lines[0]!.map(([, y]) => y).sort((a, b) => a - b)[0]).toBe(0);
    expect(Math.max(...lines[0]!.map(([, y]) => y))).toBe(1);
  });
  it('of a slope down lie from left to right, counted from the top', () => {
    const slope = lattice((_, down) => 10 * down);
    for (const [, y] of linesAt(slope, 2).flat()) expect(y).toBeCloseTo(0.2, 9);
  });
  it('of a hill are a ring about it, none of which lies on the edge', () => {
    const hill = lattice((x, y) => -Math.hypot(x - 0.5, y - 0.5), 81, 81);
    const [ring] = linesAt(hill, -0.25);
    for (const [x, y] of ring!) expect(Math.hypot(x - 0.5, y - 0.5)).toBeCloseTo(0.25, 2);
    expect(ring![0]).toEqual(ring!.at(-1));
  });
  it('are none where no value is so much, or every one', () => {
    const flat = lattice(() => 5);
    expect(linesAt(flat, 6)).toEqual([]);
    expect(linesAt(flat, 4)).toEqual([]);
    expect(areasAbove(flat, 4)).not.toEqual([]);
    expect(areasAbove(flat, 6)).toEqual([]);
  });
  it('become path data', () => {
    const line = (...at: [number, number][]) => at;
    expect(pathOf([line([0, 0], [0.5, 1])], 100, 40, false)).toBe('M0.0 0.0L50.0 40.0');
    expect(pathOf([line([0, 0], [1, 1]), line([0, 1])], 10, 10, true)).toBe('M0.0 0.0L10.0 10.0ZM0.0 10.0Z');
  });
});
