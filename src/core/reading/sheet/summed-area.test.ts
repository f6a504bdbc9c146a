import { describe, expect, it } from 'vitest';
import { SummedArea } from './summed-area';
import { points } from '../../../../tests/support/points';

const [width, height] = [60, 40];
/** Six by four millimetres at 10 pixels to each: 90 in a square of 2 mm at (2, 1), its rim of 0.2 mm 250, and 10 and more around it, more to the right. */
const data = Uint8Array.from({ length: width * height }, (_, at) => {
  const [x, y] = [at % width, Math.floor(at / width)];
  if (x < 20 || x >= 40 || y < 10 || y >= 30) return 10 + x;
  return x < 22 || x >= 38 || y < 12 || y >= 28 ? 250 : 90;
});
const sums = new SummedArea({ data, width, height }, { pxPerMm: 10, part: 0.8, ring: { from: 0.1, to: 0.5 } });
const CELL = { x: 2, y: 1, width: 2, height: 2 };

describe('a cell against what is around it', () => {
  it('is the mean of its middle less that of a ring beyond its edge', () => {
    // The ring is as far to both sides of the middle, at 29.5.
    expect(sums.insideLessAround(CELL, 0, 0)).toBeCloseTo(90 - 39.5, 9);
    expect(sums.insideLessAround({ ...CELL, x: 1.5, y: 1.2 }, 0.5, -0.2)).toBeCloseTo(90 - 39.5, 9);
  });
  it('counts what of it the image shows, and is nothing beside it', () => {
    // Moved to the left border: a ring of three sides, of pixels that are looked at by hand.
    let [sum, count] = [0, 0];
    for (let y = 5; y < 35; y++)
      for (let x = 0; x < 23; x++)
        if (!(x < 19 && y >= 9 && y < 31)) {
          sum += data[y * width + x]!;
          count++;
        }
    let inside = 0;
    for (let y = 12; y < 28; y++) for (let x = 0; x < 16; x++) inside += data[y * width + x]! / (16 * 16);
    expect(sums.insideLessAround(CELL, -2.2, 0)).toBeCloseTo(inside - sum / count, 9);
    for (const { x, y } of points([9, 0], [-9, 0], [0, 9], [0, -9])) expect(sums.insideLessAround(CELL, x, y)).toBe(0);
    // A cell as large as the image leaves nothing around it.
    expect(sums.insideLessAround({ x: 0, y: 0, width: 6, height: 4 }, 0, 0)).toBe(0);
  });
});
