import { describe, expect, it } from 'vitest';
import { tileOf } from '../../../../tests/support/tiles';
import { robustSurface, type Term } from './surface';
import { smokedSurface } from './smoke';

const SMOOTH: Term[] = [() => 1, (x) => x, (_, y) => y];
const CELLS = [
  { box: { x: 6, y: 6, width: 5, height: 5 }, strength: 0.9 },
  { box: { x: 18, y: 6, width: 5, height: 5 }, strength: 0.3 },
  { box: { x: 6, y: 18, width: 5, height: 5 }, strength: 0.6 },
];
const awayFrom = ({ x: left, y: top, width, height }: (typeof CELLS)[0]['box'], x: number, y: number): number =>
  Math.hypot(Math.max(left - x, 0, x - left - width), Math.max(top - y, 0, y - top - height));
const places = Array.from({ length: 56 * 56 }, (_, k) => ({
  x: (k % 56) / 2 + 0.25,
  y: Math.floor(k / 56) / 2 + 0.25,
})).filter(({ x, y }) => CELLS.every(({ box }) => awayFrom(box, x, y) > 0.2));
/** Smoke by the strength to some power, falling off with a reach. */
const smoke =
  (power: number, reachMm: number) =>
  (x: number, y: number): number =>
    CELLS.reduce((sum, { box, strength }) => sum + strength ** power * Math.exp(-awayFrom(box, x, y) / reachMm), 0);
const tilesWith = (lies: (x: number, y: number) => number) =>
  places.map(({ x, y }) => tileOf(x, y, -1 + 0.003 * y + lies(x, y)));
const found = (lies: (x: number, y: number) => number) => {
  const tiles = tilesWith(lies);
  return smokedSurface(tiles, robustSurface(tiles, SMOOTH, 8), CELLS);
};

describe('smoke round strong cells', () => {
  it.each([
    [1, 1.2],
    [2, 2.6],
    [2, 0.5],
  ])('by strength to the power %i, with a reach of %f mm, is told by where it lies', (power, reachMm) => {
    const surface = found((x, y) => -0.3 * smoke(power, reachMm)(x, y))!;
    expect(surface.coefficients.at(-1)).toBeCloseTo(-0.3, 2);
    expect(surface.sigma).toBeLessThan(0.002);
    for (const { x, y } of places.filter((_, k) => k % 50 === 0))
      expect(surface.terms.at(-1)!(x, y)).toBeCloseTo(smoke(power, reachMm)(x, y), 2);
  });
  it('darkens: what brightens round cells is none, and neither is what lies elsewhere', () => {
    expect(found((x, y) => 0.3 * smoke(2, 1.2)(x, y))).toBeNull();
    expect(found((x) => 0.01 * Math.sin(2 * x))).toBeNull();
    expect(found(() => 0)).toBeNull();
    const tiles = tilesWith(smoke(1, 1.2));
    expect(smokedSurface(tiles, robustSurface(tiles, SMOOTH, 8), [])).toBeNull();
  });
});
