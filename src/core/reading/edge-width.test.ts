import { describe, expect, it } from 'vitest';
import { edgeWidth } from './edge-width';
import type { PhotoContext } from './photo-context';

const [SIDE, PX] = [100, 10];
/** Ten by ten millimetres on bare stock of 1, whose light falls evenly from 1 to 0.2 over so many mm about x = 4 or y = 4. */
const context = (wideMm: number, along: 'x' | 'y' = 'x', to = 0.2): PhotoContext => {
  const light = (mm: number): number => 1 + (to - 1) * Math.min(1, Math.max(0, (mm - 4) / wideMm + 0.5));
  const data = Float32Array.from({ length: SIDE * SIDE * 3 }, (_, at) => {
    const pixel = Math.floor(at / 3);
    return light(((along === 'x' ? pixel % SIDE : Math.floor(pixel / SIDE)) + 0.5) / PX);
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
  it('is told by the edge that is asked for, and not where none is', () => {
    expect(edgeWidth(context(0.5), AREA, 'upper')).toBeNull();
    expect(edgeWidth(context(0.5, 'y'), AREA, 'left')).toBeNull();
    expect(edgeWidth(context(0.5), { ...AREA, x: 7 }, 'left')).toBeNull();
  });
});
