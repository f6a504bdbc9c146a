import { describe, expect, it } from 'vitest';
import { tileOf } from '../../../../tests/support/tiles';
import { robustSurface, type Term } from './surface';
import { shadowEdge } from './shadow';

const CARD = { widthMm: 40, heightMm: 30 };
const SMOOTH: Term[] = [() => 1, (x) => x, (_, y) => y];
const places = Array.from({ length: 1200 }, (_, k) => ({ x: (k % 40) + 0.5, y: Math.floor(k / 40) + 0.5 }));

describe('the edge of a shadow', () => {
  it.each([
    [0, 0, 0.5],
    [35, 4, 0.3],
    [110, -5, 1.5],
    [170, 2, 0.8],
    [64, 9, 0.6],
    [25, -10, 0.4],
  ])('at %i degrees, %f mm off the middle and %f mm soft, is found where it lies', (degrees, offset, soft) => {
    const turn = (degrees * Math.PI) / 180;
    const away = (x: number, y: number): number => (x - 20) * Math.cos(turn) + (y - 15) * Math.sin(turn) - offset;
    const edge = (x: number, y: number): number => 1 / (1 + Math.exp((-1.7 * away(x, y)) / soft));
    const tiles = places.map(({ x, y }) => tileOf(x, y, -1 + 0.004 * x - 0.7 * edge(x, y)));
    const { term, through, along } = shadowEdge(tiles, robustSurface(tiles, SMOOTH, 8), CARD)!;
    expect(Math.abs(away(through.x, through.y))).toBeLessThan(0.3);
    expect(Math.hypot(along.x, along.y)).toBeCloseTo(1, 9);
    expect(Math.abs(along.x * Math.cos(turn) + along.y * Math.sin(turn))).toBeLessThan(0.02);
    // Nought on one side and one on the other, as the light falls; which is which is the fit's to say.
    const sense = term(20 + 30 * Math.cos(turn), 15 + 30 * Math.sin(turn)) > 0.5 ? 1 : -1;
    for (const { x, y } of places) {
      const told = sense === 1 ? term(x, y) : 1 - term(x, y);
      expect(Math.abs(told - edge(x, y)), `${x} ${y}`).toBeLessThan(Math.abs(away(x, y)) > 3 * soft ? 0.02 : 0.15);
    }
  });
  it('is none where nothing is left to explain', () => {
    const even = places.map(({ x, y }) => tileOf(x, y, 0));
    expect(shadowEdge(even, robustSurface(even, SMOOTH, 2), CARD)).toBeNull();
  });
});
