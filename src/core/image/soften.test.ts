import { describe, expect, it } from 'vitest';
import { softened } from './soften';
import { tuples } from '../../../tests/support/tuples';

const image = (width: number, height: number, at: (x: number, y: number) => number) => ({
  width,
  height,
  data: Uint8Array.from({ length: width * height }, (_, index) => at(index % width, Math.floor(index / width))),
});

describe('softening', () => {
  it('leaves an even picture as it is, up to its edges', () => {
    const even = image(9, 7, () => 120);
    expect(softened(even, 5)).toEqual(even);
    expect(softened(even, 1)).toBe(even);
  });
  it('is the mean of the window around each pixel, by hand', () => {
    const spot = image(5, 5, (x, y) => (x === 2 && y === 2 ? 90 : 0));
    // A window of 3 holds the spot once: 90 / 9 = 10, whole at the middle nine pixels.
    const soft = softened(spot, 3);
    for (let y = 0; y < 5; y++)
      for (let x = 0; x < 5; x++)
        expect(soft.data[y * 5 + x]).toBe(Math.abs(x - 2) <= 1 && Math.abs(y - 2) <= 1 ? 10 : 0);
  });
  it('rounds to the nearest byte in either direction', () => {
    for (const [width, height] of tuples([3, 1], [1, 3])) {
      // Two thirds and a third of one.
      expect(softened({ width, height, data: Uint8Array.of(1, 1, 0) }, 3).data[1]).toBe(1);
      expect(softened({ width, height, data: Uint8Array.of(1, 0, 0) }, 3).data[1]).toBe(0);
    }
  });
  it('makes a hatch of its own pitch even', () => {
    const hatch = image(20, 20, (_, y) => (y % 5 < 2 ? 40 : 140));
    const soft = softened(hatch, 5);
    // Two lines of 40 and three of 140 in each window: (80 + 420) / 5 = 100.
    for (let y = 3; y < 17; y++) expect(soft.data[y * 20 + 10]).toBe(100);
  });
});
