import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/point';
import { convexHull, isClockwiseQuad, polygonArea, quadOfOutline } from './quad';
import { tuples } from '../../../tests/support/tuples';

const at = (...places: (readonly [number, number])[]): Point[] => places.map(([x, y]) => ({ x, y }));
const SQUARE = at([0, 0], [10, 0], [10, 10], [0, 10]);
/** The quad of a blob so many rows high, by the left and right end of each. */
const quadOf = (height: number, ends: (y: number) => readonly [number, number]) =>
  quadOfOutline(
    Array.from({ length: height }, (_, y) => at(...ends(y).map((x) => [Math.round(x), y] as const))).flat(),
  );

describe('four corners', () => {
  it('go round clockwise on a screen, from whichever is first', () => {
    for (let turn = 0; turn < 4; turn++)
      expect(isClockwiseQuad([...SQUARE.slice(turn), ...SQUARE.slice(0, turn)])).toBe(true);
    expect(isClockwiseQuad([...SQUARE].reverse())).toBe(false);
    expect(isClockwiseQuad(SQUARE.map(({ x, y }) => ({ x: x * 1000, y: y * 1000 })))).toBe(true);
    expect(isClockwiseQuad(SQUARE.map(({ x, y }) => ({ x: x / 1000, y: y / 1000 })))).toBe(true);
  });
  it('are none where they cross, lie on a line, fall together, or are not four', () => {
    expect(isClockwiseQuad(at([0, 0], [10, 10], [10, 0], [0, 10]))).toBe(false);
    expect(isClockwiseQuad(at([0, 0], [5, 0], [10, 0], [5, 10]))).toBe(false);
    expect(isClockwiseQuad(at([0, 0], [0, 0], [10, 0], [10, 10]))).toBe(false);
    expect(isClockwiseQuad(SQUARE.slice(0, 3))).toBe(false);
    // A dent: one turn goes the other way.
    expect(isClockwiseQuad(at([0, 0], [10, 0], [4, 4], [0, 10]))).toBe(false);
  });
  it('turn by at least the angle whose sine is 0.1: 5.74 degrees', () => {
    const bent = (degrees: number): Point[] => {
      const slope = Math.tan((degrees * Math.PI) / 180);
      return at([0, 0], [10, 0], [20, 10 * slope], [0, 40]);
    };
    expect(isClockwiseQuad(bent(5.6))).toBe(false);
    expect(isClockwiseQuad(bent(5.9))).toBe(true);
  });
});

describe('a blob’s outline', () => {
  it('has the hull that bounds it, and the area inside', () => {
    expect(polygonArea(SQUARE)).toBe(100);
    expect(polygonArea(at([0, 0], [4, 0], [0, 3]))).toBe(6);
    const hull = convexHull([...SQUARE, ...at([5, 5], [2, 8], [5, 0])]);
    expect(hull).toHaveLength(4);
    expect(polygonArea(hull)).toBe(100);
  });
  it('is a quad where it is one, clockwise, its corners among its points', () => {
    const quad = quadOf(50, (y) => [20 - 0.2 * y, 70 - 0.1 * y])!;
    expect(quad).not.toBeNull();
    expect(isClockwiseQuad(quad)).toBe(true);
    const near = (x: number, y: number): boolean => quad.some((p) => Math.hypot(p.x - x, p.y - y) < 2);
    for (const [x, y] of tuples([20, 0], [70, 0], [65, 49], [10, 49])) expect(near(x, y), `${x} ${y}`).toBe(true);
  });
  it('is none where it is a triangle, a disc, or a sliver', () => {
    expect(quadOf(60, (y) => [30 - y / 2, 30 + y / 2])).toBeNull();
    const half = (y: number): number => Math.sqrt(900 - (y - 30) ** 2);
    expect(quadOf(61, (y) => [30 - half(y), 30 + half(y)])).toBeNull();
    expect(quadOf(15, () => [0, 60])).toBeNull();
    expect(quadOf(30, () => [0, 60])).not.toBeNull();
  });
});
