import { describe, expect, it } from 'vitest';
import { contextOf, draw, layout, light, TO_PHOTO, type Scene } from '../../../../tests/support/flat-scene';
import type { Cell, Layout } from '../../card/layout';
import type { RgbImage } from '../../image/raster';
import { readCard } from '../read-card';
import { RECTIFIED_PX_PER_MM } from '../straighten';
import { rectify } from '../rectify';
import { fitLight } from './light-on-bare';
import { points } from '../../../../tests/support/points';

const cellOf = (index: number): Cell => layout.cells[index]!;

describe('the light on bare stock', () => {
  it('is not pulled by a knot', () => {
    const { field } = contextOf({
      ratio: () => 0.5,
      knot: { x: layout.widthMm - 3.5, y: layout.heightMm / 2, radius: 1.6 },
    });
    const x = layout.widthMm - 3.5;
    const y = layout.heightMm / 2;
    expect(Math.abs(field.at(x, y)[1] / (0.5 * light(x, y)) - 1)).toBeLessThan(0.03);
    // What lies there is told as darker, less surely than stock elsewhere.
    const there = field.under({ x: x - 1, y: y - 1, width: 2, height: 2 });
    const elsewhere = field.under({ x: x - 1, y: 17, width: 2, height: 2 });
    expect(there.shift).toBeLessThan(-0.02);
    expect(Math.abs(elsewhere.shift)).toBeLessThan(0.005);
    expect(there.sigma).toBeGreaterThan(3 * elsewhere.sigma);
  });
  it('near a cell is told by the stock within its reach, on each of its sides, and by nothing further off', () => {
    const cell = layout.cells[5]!;
    const { x, y, width, height } = cell.box;
    const strip =
      (side: 'left' | 'right' | 'above' | 'below', from: number) =>
      (px: number, py: number): number => {
        const away = { left: x - px, right: px - x - width, above: y - py, below: py - y - height }[side];
        const along =
          side === 'left' || side === 'right' ? py > y - 1 && py < y + height + 1 : px > x - 1 && px < x + width + 1;
        return along && away > from && away < from + 0.9 ? 0.85 : 1;
      };
    const offsetWith = (veil?: Scene['veil']): number =>
      contextOf({ ratio: () => 0.5, ...(veil && { veil }) }).field.under(cell.box).shift;
    const plain = offsetWith();
    for (const side of ['left', 'right', 'above', 'below'] as const) {
      expect(offsetWith(strip(side, 0.05)) - plain, side).toBeLessThan(-0.004);
      // The next cell begins a millimetre away; what lies beyond it is not near.
      expect(Math.abs(offsetWith(strip(side, width + 1.05)) - plain), side).toBeLessThan(0.002);
    }
  });
  it('is told by each of its sides as much, whichever of them is darker', () => {
    const { box } = layout.cells[5]!;
    const reach = 0.9;
    const shifted = (dark: (x: number, y: number) => boolean): number => {
      const { field } = contextOf({ ratio: () => 0.5, veil: (x, y) => (dark(x, y) ? 0.97 : 1) });
      return field.under(box).shift;
    };
    const within = (at: number, from: number, size: number): boolean => at > from && at < from + size;
    const sides = [
      shifted((x, y) => within(x, box.x - reach, reach) && within(y, box.y, box.height)),
      shifted((x, y) => within(x, box.x + box.width, reach) && within(y, box.y, box.height)),
      shifted((x, y) => within(y, box.y - reach, reach) && within(x, box.x, box.width)),
      shifted((x, y) => within(y, box.y + box.height, reach) && within(x, box.x, box.width)),
    ];
    expect(sides[0]!).toBeLessThan(-0.0003);
    for (const side of sides) expect(side / sides[0]!).toBeGreaterThan(0.7);
    for (const side of sides) expect(side / sides[0]!).toBeLessThan(1.4);
  });
  it('is told by whole tiles of a quarter millimetre that keep off the card’s own edge, on all four sides', () => {
    const plain = { ...layout, widthMm: 10, heightMm: 8, cells: [], before: [], after: [] };
    const bare: Layout = { ...plain, frame: { ...layout.frame, markers: [], lettering: [] } };
    const even = { data: new Uint8Array(200 * 160 * 3).fill(128), width: 200, height: 160 };
    const seen = rectify(even, [18, 0, 5, 0, 18, 5, 0, 0, 1], 10, 8, 20, 1);
    // 40 x 32 tiles, less the outermost all round.
    expect(fitLight(seen, bare)!.tiles).toBe(38 * 30);
  });
  it('is not made up when no bare stock can be seen', () => {
    const photo = draw({ ratio: () => 0.5 });
    const blown = { ...photo, data: new Uint8Array(photo.data.length).fill(255) };
    expect(
      fitLight(rectify(blown, TO_PHOTO, layout.widthMm, layout.heightMm, RECTIFIED_PX_PER_MM, 1), layout),
    ).toBeNull();
    const reading = (one: RgbImage, of: Layout) =>
      readCard({
        photo: one,
        layout: of,
        stock: { bareLightness: 62, colour: '#808080' },
        corners: points([0, 0], [photo.width - 1, 0], [photo.width - 1, photo.height - 1], [0, photo.height - 1]),
        cameraIsTrue: true,
      });
    expect(reading(blown, layout)).toEqual({ outcome: 'unreadable', reason: 'overexposed' });
    const whole = { ...cellOf(0), box: { x: 0, y: 0, width: layout.widthMm, height: layout.heightMm } };
    expect(reading(photo, { ...layout, cells: [whole] })).toEqual({ outcome: 'unreadable', reason: 'no-bare-stock' });
  });
});
