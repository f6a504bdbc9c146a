import { describe, expect, it } from 'vitest';
import { layoutOf } from '../../../../tests/support/bare-layout';
import { linearToSrgb } from '../../color/srgb';
import type { Homography } from '../../geometry/homography';
import { openLight } from './open-light';
import { points } from '../../../../tests/support/points';

const [WIDTH, HEIGHT] = [480, 360];
/** A card of 20 by 14 mm, whose upper left corner lies at 150, 120 in a photo of 8 pixels to a millimetre. */
const card = layoutOf([], { widthMm: 20, heightMm: 14 });
const MAP: Homography = [8, 0, 150, 0, 8, 120, 0, 0, 1];
const mmOf = (u: number, v: number) => ({ x: (u - 150) / 8, y: (v - 120) / 8 });
/** The table’s light falls off to the right and a little in the square of the place down. */
const table = (x: number, y: number): number => 0.5 * Math.exp(-0.01 * x - 0.0004 * (y - 7) ** 2);
type Light = (x: number, y: number) => number;
function photo(light: Light = table, beyond: Light = () => 0) {
  const data = new Uint8Array(WIDTH * HEIGHT * 3);
  for (let v = 0; v < HEIGHT; v++)
    for (let u = 0; u < WIDTH; u++) {
      const { x, y } = mmOf(u, v);
      const onPiece = x > -0.8 && x < 20.8 && y > -0.8 && y < 14.8;
      const value = onPiece ? 0.004 : light(x, y) * (1 - beyond(x, y));
      data.fill(Math.round(255 * linearToSrgb(Math.min(1, value))), (v * WIDTH + u) * 3, (v * WIDTH + u) * 3 + 3);
    }
  return { data, width: WIDTH, height: HEIGHT };
}
const told = (of = photo()) => {
  const light = openLight(of, MAP, card);
  if (typeof light === 'string') throw new Error(light);
  return light;
};
const reason = (of: ReturnType<typeof photo>) => {
  const light = openLight(of, MAP, card);
  return typeof light === 'string' ? light : 'told';
};
/** Nothing but a band so far around the card’s middle is lit. */
const outside =
  (mm: number): Light =>
  (x, y) =>
    Math.max(Math.abs(x - 10), Math.abs(y - 7)) < mm ? 1 : 0;

describe('the open light under a card', () => {
  it('is that of the table beside it, drawn out under the card', () => {
    const { at, sigma } = told();
    for (const { x, y } of points([10, 7], [1, 1], [19, 13])) expect(at(x, y) / table(x, y)).toBeCloseTo(1, 1.7);
    expect(at(1, 7) / at(19, 7)).toBeCloseTo(Math.exp(0.18), 1.5);
    expect(sigma).toBe(0.012);
  });
  it('is the less sure the further away it is seen', () => {
    expect(told(photo(table, outside(16.5))).sigma).toBe(0.02);
    // Where the nearest of it lies over a card's side away from the middle, only what lies further tells it.
    expect(told(photo(table, outside(20.5))).sigma).toBe(0.03);
    expect(reason(photo(table, outside(31)))).toBe('no-open-light');
  });
  it('is seen from five of eight sides, or not told', () => {
    expect(reason(photo(table, (x) => (x < 10 ? 1 : 0)))).toBe('no-open-light');
    expect(reason(photo(table, (x, y) => (x < 0 && y < 0 ? 1 : 0)))).toBe('told');
    expect(reason(photo(() => 0))).toBe('no-open-light');
  });
  it('is not what is much darker, nor uneven: another piece, or its marks', () => {
    const piece: Light = (x, y) => (x < -2 && y > 3 && y < 11 ? 0.7 : 0);
    expect(told(photo(table, piece)).at(10, 7) / table(10, 7)).toBeCloseTo(1, 1.7);
    const striped: Light = (x, y) => (x < -2 && y > 3 && y < 11 && Math.floor(4 * x) % 2 === 0 ? 0.3 : 0);
    expect(told(photo(table, striped)).at(10, 7) / table(10, 7)).toBeCloseTo(1, 1.7);
  });
  it('is told as blown out where more than a tenth of it is at the end of the camera’s range', () => {
    expect(reason(photo(() => 1))).toBe('blown-out');
    const corner =
      (mm: number): Light =>
      (x, y) =>
        x < -mm && y < 0 ? 1 : 0.8;
    expect(reason(photo(corner(-8)))).toBe('blown-out');
    expect(reason(photo(corner(5)))).toBe('told');
  });
});
