import { describe, expect, it } from 'vitest';
import { grown, rectsOverlap, within } from './point';
import { points } from '../../../tests/support/points';

const box = { x: 1, y: 2, width: 3, height: 4 };

describe('rectangles', () => {
  it('grow and shrink by as much on every side', () => {
    expect(grown(box, 0.5)).toEqual({ x: 0.5, y: 1.5, width: 4, height: 5 });
    expect(grown(box, -1)).toEqual({ x: 2, y: 3, width: 1, height: 2 });
  });
  it('overlap where they share more than an edge, from whichever side they are looked at', () => {
    for (const [x, y, shared] of [
      [3.9, 5.9, true],
      [4, 2, false],
      [1, 6, false],
      [-1.9, -0.9, true],
      [-2, 2, false],
      [1, -2, false],
      [20, 2, false],
      [1, 30, false],
    ] as const) {
      const other = { x, y, width: 3, height: 4 };
      expect(rectsOverlap(box, other), `${x} ${y}`).toBe(shared);
      expect(rectsOverlap(other, box), `${x} ${y}`).toBe(shared);
    }
  });
  it('have on them what lies on their edges and corners, and nothing beyond', () => {
    const box = { x: 1, y: 2, width: 3, height: 4 };
    for (const { x, y } of points([1, 2], [4, 6], [4, 2], [1, 6], [2.5, 4]))
      expect(within(box, { x, y }), `${x} ${y}`).toBe(true);
    for (const { x, y } of points([0.99, 4], [4.01, 4], [2, 1.99], [2, 6.01]))
      expect(within(box, { x, y }), `${x} ${y}`).toBe(false);
  });
});
