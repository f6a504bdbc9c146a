import { beforeEach, describe, expect, it } from 'vitest';
import type { Point } from '../geometry/point';
import { boxOfRing, isInside, signedAreaMm2 } from '../part/polygons';
import { knobOutline, knobReachMm, KNOB_SHAPES, mostOffsetMm } from './knob';

/** How far a place is from the nearest side of a ring. */
function awayFrom(ring: readonly Point[], { x, y }: Point): number {
  return Math.min(
    ...ring.map((a, k) => {
      const b = ring[(k + 1) % ring.length]!;
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const share = Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy)));
      return Math.hypot(x - a.x - share * dx, y - a.y - share * dy);
    }),
  );
}

describe.each(KNOB_SHAPES)('the outline of a %s', (shape) => {
  let plain: ReturnType<typeof knobOutline>;
  beforeEach(() => {
    plain = knobOutline(shape, 10, 0);
  });

  it('moved outward or inward lies so far from the one that was not, everywhere', () => {
    for (const by of [0.3, 0.02, -0.3]) {
      const moved = knobOutline(shape, 10, by);
      for (const place of moved) {
        expect(Math.abs(awayFrom(plain, place) - Math.abs(by))).toBeLessThan(0.0045);
        expect(isInside(place, plain)).toBe(by < 0);
      }
    }
  });

  it('is round everywhere, goes round once, and is as large as it says', () => {
    const turns = plain.map((b, k) => {
      const a = plain.at(k - 1)!;
      const c = plain[(k + 1) % plain.length]!;
      const turn = Math.atan2(c.y - b.y, c.x - b.x) - Math.atan2(b.y - a.y, b.x - a.x);
      return Math.atan2(Math.sin(turn), Math.cos(turn));
    });
    expect(Math.max(...turns.map(Math.abs))).toBeLessThan(0.15);
    expect(Math.abs(turns.reduce((sum, turn) => sum + turn, 0))).toBeCloseTo(2 * Math.PI, 6);
    const { y, height, width } = boxOfRing(plain);
    const { up, down } = knobReachMm(shape, 10);
    expect(width).toBeCloseTo(10, 2);
    expect([-y, y + height].map((mm) => mm.toFixed(2))).toEqual([up.toFixed(2), down.toFixed(2)]);
  });

  it('is refused where a radius would be used up', () => {
    const most = mostOffsetMm(shape, 10);
    expect(() => knobOutline(shape, 10, most * 0.99)).not.toThrow();
    for (const by of [most, -most, NaN]) expect(() => knobOutline(shape, 10, by)).toThrow(/invalid offset/);
  });
});

describe('areas in closed form', () => {
  it('of a disc, and of a square less what its corners lose', () => {
    const area = (shape: 'round' | 'square', by: number) => Math.abs(signedAreaMm2(knobOutline(shape, 10, by)));
    expect(area('round', 0.1)).toBeCloseTo(Math.PI * 5.1 ** 2, 1);
    expect(area('square', 0.1)).toBeCloseTo(10.2 ** 2 - (4 - Math.PI) * 1.35 ** 2, 1);
  });
});
