import { describe, expect, it } from 'vitest';
import { directionsIn } from './directions';

const SIDE = 120;
const drawn = (dark: (x: number, y: number) => boolean, [width, height] = [SIDE, SIDE]) => {
  // Four looks by four at each pixel: edges are as soft as it is wide.
  const data = Uint8Array.from({ length: width * height }, (_, at) => {
    let sum = 0;
    for (let k = 0; k < 16; k++)
      sum += dark((at % width) + ((k % 4) + 0.5) / 4, Math.floor(at / width) + (Math.floor(k / 4) + 0.5) / 4)
        ? 40
        : 200;
    return Math.round(sum / 16);
  });
  return { data, width, height };
};
/** A square of so many pixels about a place, turned by so many degrees. */
const square =
  (degrees: number, half: number, cx = SIDE / 2, cy = SIDE / 2) =>
  (x: number, y: number): boolean => {
    const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    const [u, v] = [(x - cx) * c + (y - cy) * s, (y - cy) * c - (x - cx) * s];
    return Math.max(Math.abs(u), Math.abs(v)) < half;
  };

describe('the directions of edges', () => {
  it.each([0, 12, 30, 44, -7, -30])('of a square turned by %d degrees are that, modulo a quarter turn', (degrees) => {
    const [first, ...others] = directionsIn(drawn(square(degrees, 32)));
    const off = Math.abs(first! - degrees);
    expect(Math.min(off, 90 - off)).toBeLessThan(1.6);
    expect(others).toEqual([]);
  });
  it('of two squares are two, that of the larger first, and those of faint ones are none', () => {
    const two = (large: number, small: number) =>
      directionsIn(drawn((x, y) => square(10, large, 45, 45)(x, y) || square(35, small, 95, 95)(x, y)));
    const [first, second] = two(28, 14);
    expect(first).toBeCloseTo(10, -0.5);
    expect(second).toBeCloseTo(35, -0.5);
    expect(two(28, 4)).toHaveLength(1);
    const three = drawn((x, y) =>
      [0, 20, 40, -25].some((turn, k) => square(turn, 14, 30 + 60 * (k % 2), 30 + 60 * Math.floor(k / 2))(x, y)),
    );
    expect(directionsIn(three)).toHaveLength(3);
  });
  it('are told whatever the picture’s sides, and are none in an even one', () => {
    const wide = drawn(square(20, 18, 70, 24), [140, 48]);
    expect(directionsIn(wide)[0]).toBeCloseTo(20, -0.5);
    expect(directionsIn(drawn(square(20, 18, 24, 70), [48, 140]))[0]).toBeCloseTo(20, -0.5);
    expect(directionsIn(drawn(() => false))).toHaveLength(0);
  });
});
