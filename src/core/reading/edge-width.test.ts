import { describe, expect, it } from 'vitest';
import { edgeWidth } from './edge-width';
import type { PhotoContext } from './photo-context';

const [SIDE, PX] = [100, 10];
/** Ten by ten millimetres on bare stock of 1, whose light falls evenly from 1 to 0.2 over so many mm about x = 4 or y = 4. */
const context = (wideMm: number, along: 'x' | 'y' = 'x', to = 0.2, aside = 0): PhotoContext => {
  const light = (mm: number): number => 1 + (to - 1) * Math.min(1, Math.max(0, (mm - 4) / wideMm + 0.5));
  const data = Float32Array.from({ length: SIDE * SIDE * 3 }, (_, at) => {
    const pixel = Math.floor(at / 3);
    const [x, y] = [((pixel % SIDE) + 0.5) / PX, (Math.floor(pixel / SIDE) + 0.5) / PX];
    const [place, other] = along === 'x' ? [x, y] : [y, x];
    return light(place - (Math.abs(other - 5.5) < 0.9 ? 0 : aside));
  });
  return {
    throughSheet: false,
    rectified: { width: SIDE, height: SIDE, pxPerMm: PX, data, clipped: new Uint8Array(SIDE * SIDE) },
    field: { at: () => [1, 1, 1] },
  } as unknown as PhotoContext;
};
const AREA = { x: 4, y: 4, width: 3, height: 3 };

describe('the width of an edge', () => {
  it('from 10 to 90 % is four fifths of one that runs evenly, at the left as above, of brighter areas too', () => {
    expect(edgeWidth(context(0.5), AREA, 'left')).toBeCloseTo(0.4, 1);
    expect(edgeWidth(context(0.3), AREA, 'left')).toBeCloseTo(0.24, 1);
    expect(edgeWidth(context(0.5, 'y'), AREA, 'upper')).toBeCloseTo(0.4, 1);
    expect(edgeWidth(context(0.5, 'x', 3), AREA, 'left')).toBeCloseTo(0.4, 1);
    expect(edgeWidth(context(0.5), { ...AREA, y: 0, height: 9 }, 'left')).toBeCloseTo(0.4, 1);
  });
  it('is told by the middle three fifths of it', () => {
    const [left, upper] = (['x', 'y'] as const).map((along) => context(0.2, along, 0.2, 0.4));
    expect(edgeWidth(left!, AREA, 'left')!).toBeLessThan(0.25);
    expect(edgeWidth(upper!, AREA, 'upper')!).toBeLessThan(0.25);
    expect(edgeWidth(left!, { ...AREA, y: 3.6 }, 'left')!).toBeGreaterThan(0.3);
  });
  it('is told by the edge that is asked for, and not where none is', () => {
    expect(edgeWidth(context(0.5), AREA, 'upper')).toBeNull();
    expect(edgeWidth(context(0.5, 'y'), AREA, 'left')).toBeNull();
    expect(edgeWidth(context(0.5), { ...AREA, x: 7 }, 'left')).toBeNull();
  });
});
