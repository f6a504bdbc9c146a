import { describe, expect, it } from 'vitest';
import type { Layout } from '../../card/layout';
import { ratiosOf, strengthOf } from './cell-ratios';
import { lookedUp } from './looked-up';
import type { Surface } from './surface';
import { points } from '../../../../tests/support/points';

const cell = (index: number, x: number, y: number, leftOut = false) => ({
  index,
  box: { x, y, width: 2, height: 2 },
  leftOut,
});
const layout = {
  widthMm: 10,
  heightMm: 6,
  cells: [cell(0, 1, 1), cell(1, 6, 2, true), cell(2, 6, 3), cell(3, 20, 20)],
} as unknown as Layout;
/** Bare stock of luminance 0.5 times e^(0.1 x). */
const surface = {
  terms: [() => 1, (x: number) => x],
  coefficients: Float64Array.of(Math.log(0.5), 0.1),
} as unknown as Surface;

describe('cells at a first glance', () => {
  it('are their middle’s luminance over bare stock’s there; those left out are not looked at', () => {
    const [width, height, pxPerMm] = [100, 60, 10];
    const data = new Float32Array(width * height * 3).fill(9);
    const paint = (fromX: number, fromY: number, rgb: readonly number[]): void => {
      for (let y = fromY; y < fromY + 10; y++)
        for (let x = fromX; x < fromX + 10; x++) data.set(rgb, (y * width + x) * 3);
    };
    // Only the middle half of each cell: its edges, 9 all over, are not looked at.
    paint(15, 15, [0.1, 0.2, 0.4]);
    paint(65, 35, [1, 1, 1]);
    const glances = ratiosOf(
      { data, width, height, pxPerMm, clipped: new Uint8Array(width * height) },
      layout,
      surface,
    );
    expect(glances.map(({ index }) => index)).toEqual([0, 2, 3]);
    // IEC 61966-2-1: 0.2126 R + 0.7152 G + 0.0722 B.
    expect(glances[0]!.ratio).toBeCloseTo((0.02126 + 0.14304 + 0.02888) / (0.5 * Math.exp(0.2)), 4);
    expect(glances[1]!.ratio).toBeCloseTo(1 / (0.5 * Math.exp(0.7)), 5);
    expect(glances[2]!.ratio).toBe(1);
  });
  it('differ from bare stock by the cube root, as L* does, and by no more than one and a half', () => {
    expect([strengthOf(1), strengthOf(0), strengthOf(0.125), strengthOf(8)]).toEqual([0, 1, 0.5, 1]);
    expect(strengthOf(1000)).toBe(1.5);
  });
});

describe('light that is looked up', () => {
  it('is straight between places worked out, and level beyond the card', () => {
    const light = lookedUp({ widthMm: 10, heightMm: 6 }, (x, y) => [1 + x, 2 + y, x - 2 * y]);
    for (const { x, y } of points([0, 0], [0.1, 0.2], [3.33, 4.44], [9.99, 5.99])) {
      const [red, green, blue] = light(x, y);
      expect(red).toBeCloseTo(1 + x, 9);
      expect(green).toBeCloseTo(2 + y, 9);
      expect(blue).toBeCloseTo(x - 2 * y, 9);
    }
    expect(light(-3, -1)).toEqual(light(0, 0));
    expect(light(50, 50)[0]).toBeLessThan(11.7);
    // Between two places of a curve it lies on the chord: worked out each 0.3 mm.
    const curve = lookedUp({ widthMm: 10, heightMm: 6 }, (x) => [x * x, 0, 0]);
    expect(curve(0.45, 1)[0]).toBeCloseTo((0.3 ** 2 + 0.6 ** 2) / 2, 9);
  });
});
