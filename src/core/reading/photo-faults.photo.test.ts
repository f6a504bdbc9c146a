import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { cardOfFew } from '../../../tests/support/few-cells';
import { drawnPhoto, type DrawnShot } from '../../../tests/support/drawn-card';
import type { Rect } from '../geometry/point';
import type { RgbImage } from '../image/raster';
import { readCard } from './read-card';

const pairing = demoPairing('heron', 'leather');
const { stock } = pairing;
const layout = cardOfFew(pairing, 4, 4);
const SHOT: DrawnShot = {
  lightnessOf: (index) => stock.bareLightness - 4 - (40 * index) / layout.cells.length,
  noise: 1,
  widthPx: 700,
  heightPx: 525,
};
const plain = drawnPhoto(layout, stock, SHOT);

function faultsOf(photo: RgbImage) {
  const result = readCard({ photo, layout, stock, corners: null, cameraIsTrue: true });
  if (result.outcome !== 'read') throw new Error(`not read: ${JSON.stringify(result)}`);
  return result.faults;
}
const drawn = (more: Partial<DrawnShot>) => faultsOf(drawnPhoto(layout, stock, { ...SHOT, ...more }));

/** Each pixel the mean of seven in its row, as a hand that moves leaves it. */
const shaken = ({ data, ...size }: RgbImage): RgbImage => ({
  ...size,
  data: data.map((_, at) => [-9, -6, -3, 0, 3, 6, 9].reduce((sum, by) => sum + (data[at + by] ?? 0) / 7, 0)),
});
const placed = ({ x, y }: { x: number; y: number }) => ({ u: x / plain.width, v: y / plain.height });
const holds = ({ x, y, width, height }: Rect, px: number, py: number): boolean =>
  px >= x && px <= x + width && py >= y && py <= y + height;
const middleOf = ({ x, y, width, height }: Rect) => [x + width / 2, y + height / 2] as const;

describe('what is wrong with a photo', () => {
  it('is nothing where light falls slowly over the card and everything is sharp', () => {
    expect(faultsOf(plain)).toEqual([]);
    expect(drawn({ light: (u) => 0.3 + 0.5 * u })).toEqual([]);
  });

  it('is a reflection, where it lies and how much it adds', () => {
    const lamp = (u: number, v: number): number =>
      0.15 * Math.exp(-(((u - 0.35) / 0.16) ** 2) - ((v - 0.35) / 0.16) ** 2);
    const [fault, ...more] = drawn({ added: lamp });
    expect(more).toEqual([]);
    expect(fault).toMatchObject({ fault: 'reflection', line: null });
    // Of white in this light, which is 0.7 of full scale.
    expect(fault!.amount).toBeGreaterThan(0.15);
    expect(fault!.amount).toBeLessThan(0.25);
    for (const { index, box } of layout.cells) {
      const [x, y] = middleOf(box);
      const { u, v } = placed(plain.placeOf(x, y));
      if (lamp(u, v) > 0.1) expect(fault!.cells, `cell ${index}`).toContain(index);
      if (lamp(u, v) > 0.1) expect(holds(fault!.area!, x, y)).toBe(true);
      if (lamp(u, v) < 0.02) expect(fault!.cells, `cell ${index}`).not.toContain(index);
      if (lamp(u, v) < 0.02) expect(holds(fault!.area!, x, y)).toBe(false);
    }
    expect(fault!.cells.length).toBeGreaterThan(1);
  });

  it('is blur, by the edges of its cells', () => {
    const { placeOf } = plain;
    const [left, right] = [-0.5, 0.5].map((by) => placeOf(layout.widthMm / 2 + by, layout.heightMm / 2));
    const pxPerMm = Math.hypot(right!.x - left!.x, right!.y - left!.y);
    const fault = faultsOf(shaken(plain)).find((one) => one.fault === 'out-of-focus')!;
    // The edge of a mean over seven pixels runs evenly: 10 to 90 % are four fifths of them.
    expect(fault.amount / ((0.8 * 7) / pxPerMm)).toBeGreaterThan(0.8);
    expect(fault.amount / ((0.8 * 7) / pxPerMm)).toBeLessThan(1.2);
  });
});
