import { describe, expect, it } from 'vitest';
import { grid } from '../../cards/grid';
import { demoPairing } from '../../../stand-ins/demo';
import { gridOfFew } from '../../../tests/support/few-cells';
import { drawnPhoto, type DrawnShot } from '../../../tests/support/drawn-card';
import { layCard } from '../card/lay';
import type { Rect } from '../geometry/point';
import type { RgbImage } from '../image/raster';
import { readCard } from './read-card';

const pairing = demoPairing('heron', 'leather');
const { stock } = pairing;
const layout = layCard(grid, gridOfFew(pairing, 4, 4), pairing, { cardNumber: 77 });
const { widthMm, heightMm } = layout;
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

/** Each pixel the mean of those so far around it. */
function blurred(image: RgbImage, reach: number, along: 'both' | 'rows'): RgbImage {
  const { width, height } = image;
  const pass = (from: Uint8Array, step: number, at: (index: number) => number, count: number): Uint8Array =>
    from.map((_, index) => {
      const place = at(index);
      let [sum, seen] = [0, 0];
      for (let k = -reach; k <= reach; k++)
        if (place + k >= 0 && place + k < count) {
          sum += from[index + k * step]!;
          seen++;
        }
      return Math.round(sum / seen);
    });
  const rows = pass(image.data, 3, (index) => Math.floor(index / 3) % width, width);
  const data = along === 'rows' ? rows : pass(rows, 3 * width, (index) => Math.floor(index / 3 / width), height);
  return { data, width, height };
}

const placed = ({ x, y }: { x: number; y: number }) => ({ u: x / plain.width, v: y / plain.height });
const holds = ({ x, y, width, height }: Rect, px: number, py: number): boolean =>
  px >= x && px <= x + width && py >= y && py <= y + height;
const middleOf = ({ x, y, width, height }: Rect) => [x + width / 2, y + height / 2] as const;

/** Pixels of a millimetre in the middle of a card, in the direction that has fewer. */
function leastPxPerMm({ placeOf }: typeof plain): number {
  const span = (dx: number, dy: number): number => {
    const [from, to] = [placeOf(widthMm / 2 - dx, heightMm / 2 - dy), placeOf(widthMm / 2 + dx, heightMm / 2 + dy)];
    return Math.hypot(to.x - from.x, to.y - from.y);
  };
  return Math.min(span(0.5, 0), span(0, 0.5));
}

describe('what is wrong with a photo', () => {
  it('is nothing where light falls slowly over the card and everything is sharp', () => {
    expect(faultsOf(plain)).toEqual([]);
    expect(drawn({ light: (u) => 0.3 + 0.5 * u })).toEqual([]);
  });

  it('is how much of bare stock is overexposed, and which cells lie in it', () => {
    // The stock's red is at full scale left of two fifths of the picture; beyond, everything is as it should be.
    const faults = drawn({ light: (u) => (u < 0.5 ? 2.6 : 0.9) });
    const over = faults.find(({ fault }) => fault === 'overexposed')!;
    const edge = (placed(plain.placeOf(0, heightMm / 2)).u + placed(plain.placeOf(widthMm, heightMm / 2)).u) / 2;
    expect(over.amount).toBeGreaterThan(0.25);
    expect(over.amount).toBeLessThan(0.75);
    const lies = layout.cells.map(({ box }) => placed(plain.placeOf(...middleOf(box))).u - 0.5);
    expect(Math.abs(edge - 0.5)).toBeLessThan(0.1);
    expect(over.cells.length).toBeGreaterThan(3);
    for (const { index } of layout.cells) {
      if (lies[index]! < -0.07) expect(over.cells, `cell ${index}`).toContain(index);
      if (lies[index]! > 0.07) expect(over.cells, `cell ${index}`).not.toContain(index);
    }
    expect(over.area!.x).toBeLessThan(1);
    expect(over.area!.x + over.area!.width).toBeLessThan(0.65 * widthMm);
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

  it('is a shadow’s edge from border to border, what light it leaves, and the cells that it crosses', () => {
    const edgeAt = 0.53;
    const faults = drawn({ light: (u) => 0.7 * (0.4 + 0.6 / (1 + Math.exp(-(u - edgeAt) / 0.002))) });
    const shadow = faults.find(({ fault }) => fault === 'shadow')!;
    expect(Math.abs(shadow.amount - 0.4)).toBeLessThan(0.04);
    for (const { x, y } of shadow.line!) {
      expect(Math.abs(placed(plain.placeOf(x, y)).u - edgeAt)).toBeLessThan(0.02);
      expect(Math.min(Math.abs(y), Math.abs(y - heightMm))).toBeLessThan(1e-6);
    }
    const crossed = layout.cells.filter(({ box: { x, y, width, height } }) => {
      const us = [
        [x, y],
        [x + width, y],
        [x, y + height],
        [x + width, y + height],
      ].map(([px, py]) => placed(plain.placeOf(px!, py!)).u);
      return Math.min(...us) < edgeAt - 0.01 && Math.max(...us) > edgeAt + 0.01;
    });
    expect(crossed.length).toBeGreaterThan(1);
    for (const { index } of crossed) expect(shadow.cells).toContain(index);
    expect(shadow.cells.length).toBeLessThan(crossed.length + 5);
  });

  it('is blur, by the hand in one direction too', () => {
    for (const along of ['both', 'rows'] as const) {
      // The edge of a box's mean runs evenly over its width: 10 to 90 % are four fifths of it.
      const wide = (0.8 * 7) / leastPxPerMm(plain);
      const fault = faultsOf(blurred(plain, 3, along)).find(({ fault }) => fault === 'out-of-focus')!;
      expect(fault.amount / wide, along).toBeGreaterThan(0.8);
      expect(fault.amount / wide, along).toBeLessThan(1.2);
    }
    expect(faultsOf(blurred(plain, 1, 'both'))).toEqual([]);
  });
});
