import { describe, expect, it } from 'vitest';
import { clippedShareIn, luminancesIn, pixelsOfArea } from './pixels-of-area';
import { points } from '../../../tests/support/points';

/** Four by three millimetres at 10 pixels to each, whose green is its place in the picture. */
const [width, height] = [40, 30];
const image = {
  width,
  height,
  pxPerMm: 10,
  data: Float32Array.from({ length: width * height * 3 }, (_, at) => (at % 3 === 1 ? Math.floor(at / 3) : 0)),
  clipped: Uint8Array.from({ length: width * height }, (_, at) => (at % width >= 30 ? 1 : 0)),
};

describe('the pixels of an area', () => {
  it('are those whose edges are nearest to its own', () => {
    expect(pixelsOfArea(image, { x: 1, y: 2, width: 2, height: 0.5 })).toEqual({
      left: 10,
      top: 20,
      right: 30,
      bottom: 25,
    });
    expect(pixelsOfArea(image, { x: 1.04, y: 2.06, width: 2, height: 0.5 })).toEqual({
      left: 10,
      top: 21,
      right: 30,
      bottom: 26,
    });
  });
  it('are cut to the picture, and none beside it', () => {
    expect(pixelsOfArea(image, { x: -1, y: -2, width: 9, height: 9 })).toEqual({
      left: 0,
      top: 0,
      right: 40,
      bottom: 30,
    });
    for (const { x, y } of points([-3, 1], [9, 1], [1, -3], [1, 9])) {
      const { left, top, right, bottom } = pixelsOfArea(image, { x, y, width: 1, height: 1 });
      expect((right - left) * (bottom - top), `${x} ${y}`).toBe(0);
    }
  });
  it('have each a luminance, row by row, and a share at the end of the range', () => {
    // IEC 61966-2-1: 0.7152 of green.
    const seen = luminancesIn(image, { x: 1, y: 2, width: 0.3, height: 0.2 });
    expect([...seen].map((light) => Math.round(light / 0.7152))).toEqual([810, 811, 812, 850, 851, 852]);
    expect(clippedShareIn(image, { x: 2.5, y: 1, width: 2, height: 1 })).toBeCloseTo(10 / 15, 9);
    expect(clippedShareIn(image, { x: 0, y: 0, width: 3, height: 3 })).toBe(0);
    expect(clippedShareIn(image, { x: 9, y: 0, width: 3, height: 3 })).toBeNaN();
  });
});
