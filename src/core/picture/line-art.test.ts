import { describe, expect, it } from 'vitest';
import { packGreys, unpackGreys } from './greys';
import { ladderInReeds } from './ladder-in-reeds';
import { asLineArt, distanceToStrokes, drawnWhere, isLineArt, mostRuns, placesOver } from './line-art';
import { points } from '../../../tests/support/points';

const greys = (columns: number, ...bytes: number[]) =>
  packGreys(columns, bytes.length / columns, Uint8Array.from(bytes));

describe('a drawing of burned and bare places', () => {
  it('is told from a picture in greys, and made of one at half', () => {
    expect(isLineArt(greys(2, 0, 255, 255, 0))).toBe(true);
    expect(isLineArt(greys(2, 0, 255, 254, 0))).toBe(false);
    expect([...unpackGreys(asLineArt(greys(2, 0, 127, 128, 255)))]).toEqual([0, 0, 255, 255]);
    expect(isLineArt(asLineArt(greys(2, 3, 127, 128, 250)))).toBe(true);
  });
  it('has as many burned stretches along a line as its worst row, or column, has', () => {
    const art = greys(4, 255, 0, 255, 0, 0, 0, 0, 255, 255, 255, 0, 255);
    expect(mostRuns(art, true)).toBe(2);
    // Columns: 255 0 255, 0 0 255, 255 0 0, 0 255 255.
    expect(mostRuns(art, false)).toBe(2);
    expect(mostRuns(greys(2, 0, 0), true)).toBe(0);
    expect(mostRuns(greys(4, 255, 255, 127, 128), true)).toBe(2);
  });
  it('covers a size by whole places, the fewest there are', () => {
    expect(placesOver(1, 0.31, 0.1)).toEqual({ columns: 10, rows: 4, sideMm: 0.1 });
    expect(placesOver(0.3, 0.001, 0.1)).toEqual({ columns: 3, rows: 1, sideMm: 0.1 });
    expect(() => placesOver(1, 1, 0)).toThrow('invalid sideMm: 0');
  });
  it('is drawn where the middles of its places are', () => {
    const art = drawnWhere(placesOver(0.4, 0.2, 0.1), (x, y) => x > 0.2 && y < 0.1);
    expect([...unpackGreys(art)]).toEqual([0, 0, 255, 255, 0, 0, 0, 0]);
  });
  it('is as far from a stroke as from its nearest point, its ends not passed', () => {
    const stroke = points([0, 0], [3, 4]);
    // 4 aside of the line through (0, 0) and (3, 4), at the foot (1.5, 2).
    expect(distanceToStrokes(1.5 - 3.2, 2 + 2.4, [stroke])).toBeCloseTo(4, 12);
    expect(distanceToStrokes(6, 8, [stroke])).toBe(5);
    expect(distanceToStrokes(-3, -4, [stroke])).toBe(5);
    expect(distanceToStrokes(3, 5, [points([3, 3], [3, 3]), stroke])).toBe(1);
    // Moved with the stroke, nothing changes.
    const moved = stroke.map(({ x, y }) => ({ x: x + 7, y: y - 9 }));
    expect(distanceToStrokes(1.5 - 3.2 + 7, 2 + 2.4 - 9, [moved])).toBeCloseTo(4, 12);
    expect(distanceToStrokes(0, 0, [])).toBe(Infinity);
  });
  it('comes with one of our own, with broad areas and much bare stock', () => {
    const own = ladderInReeds();
    expect([own.columns, own.rows, isLineArt(own)]).toEqual([240, 210, true]);
    const burned = unpackGreys(own).filter((byte) => byte > 0).length / (240 * 210);
    expect(burned).toBeGreaterThan(0.2);
    expect(burned).toBeLessThan(0.4);
  });
});
