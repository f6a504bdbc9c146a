import { describe, expect, it } from 'vitest';
import { layout } from '../../../../tests/support/flat-scene';
import { markerModules } from '../../card/markers';
import { RECTIFIED_PX_PER_MM as PX } from '../straighten';
import type { Rectified } from '../rectify';
import { bareTiles } from './bare-tiles';
import { markerDarkness } from './marker-darkness';

const [width, height] = [Math.round(layout.widthMm * PX), Math.round(layout.heightMm * PX)];

/** A card of bare stock with sharp markers, painted pixel by pixel; what a pixel shows may be changed by its place in mm. */
function painted(
  burned: number,
  bare: number,
  change: (x: number, y: number, shown: number) => number = (_x, _y, shown) => shown,
): Rectified {
  const data = new Float32Array(width * height * 3);
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const [x, y] = [(column + 0.5) / PX, (row + 0.5) / PX];
      const dark = layout.frame.markers.some((marker) => {
        const [u, v] = [
          Math.floor(((x - marker.x) / marker.sizeMm) * 8),
          Math.floor(((y - marker.y) / marker.sizeMm) * 8),
        ];
        return u >= 0 && v >= 0 && u < 8 && v < 8 && markerModules(marker.id)[v * 8 + u]!;
      });
      data.fill(change(x, y, dark ? burned : bare), (row * width + column) * 3, (row * width + column) * 3 + 3);
    }
  return { data, width, height, pxPerMm: PX, clipped: new Uint8Array(width * height) };
}
const darkness = (image: Rectified) => markerDarkness(image, bareTiles(image, layout).tiles, layout);

describe('how dark markers are', () => {
  it('is the light of their burned modules over that of bare stock beside them, in the order of the corners', () => {
    const seen = darkness(painted(0.05, 0.5));
    expect(seen).toHaveLength(4);
    for (const { ratio, stockSpread } of seen) {
      expect(ratio).toBeCloseTo(0.1, 6);
      expect(stockSpread).toBeCloseTo(0, 6);
    }
    layout.frame.markers.forEach(({ x, y, sizeMm }, index) =>
      expect(seen[index]).toMatchObject({ x: x + sizeMm / 2, y: y + sizeMm / 2 }),
    );
  });
  it('is alike in any light, also of markers lighter than stock', () => {
    for (const { ratio } of darkness(painted(0.3, 0.06, (x, _, shown) => shown * (1 - x / 100))))
      expect(ratio / 5).toBeCloseTo(1, 1);
  });
  it('shows light that was added at one of them', () => {
    const { x, y } = layout.frame.markers[2]!;
    const seen = darkness(painted(0.05, 0.5, (px, py, shown) => shown + (px > x - 3 && py > y - 3 ? 0.02 : 0)));
    expect(seen.map(({ ratio }) => Number(ratio.toFixed(4)))).toEqual([
      0.1,
      0.1,
      Number((0.07 / 0.52).toFixed(4)),
      0.1,
    ]);
  });
  it('is told by what lies deep inside burned modules: softened edges change it little', () => {
    // The whole marker, 0.15 mm soft on each side: the mean of nine places.
    const sharp = painted(0.05, 0.5);
    const at = (column: number, row: number): number =>
      sharp.data[3 * (Math.max(0, Math.min(height - 1, row)) * width + Math.max(0, Math.min(width - 1, column)))]!;
    const soft = {
      ...sharp,
      data: sharp.data.map((_, index) => {
        const [column, row] = [Math.floor(index / 3) % width, Math.floor(index / 3 / width)];
        let sum = 0;
        for (const dx of [-2, 0, 2]) for (const dy of [-2, 0, 2]) sum += at(column + dx, row + dy);
        return sum / 9;
      }),
    };
    for (const { ratio } of darkness(soft)) expect(ratio).toBeCloseTo(0.1, 1);
  });
  it('is not told of a marker that something lies over, nor of one that is clipped', () => {
    const { x, y, sizeMm } = layout.frame.markers[0]!;
    const over = (px: number, py: number): boolean => px < x + sizeMm / 2 && py < y + sizeMm;
    expect(darkness(painted(0.05, 0.5, (px, py, shown) => (over(px, py) ? 0.2 : shown)))).toHaveLength(3);
    const image = painted(0.05, 0.5);
    image.clipped.forEach((_, index) => {
      if (over(((index % width) + 0.5) / PX, (Math.floor(index / width) + 0.5) / PX)) image.clipped[index] = 1;
    });
    expect(darkness(image)).toHaveLength(3);
  });
  it('says how much stock is scattered beside them', () => {
    // Five levels in turn, tile by tile: 0.8 to 1.2 of the middle, so that half of all lie 0.1 or more from it.
    const mottled = painted(
      0.05,
      0.5,
      (x, y, shown) => shown * (0.8 + 0.1 * ((Math.floor(x * 4) + 2 * Math.floor(y * 4)) % 5)),
    );
    for (const { stockSpread } of darkness(mottled)) {
      expect(stockSpread).toBeGreaterThan(0.12);
      expect(stockSpread).toBeLessThan(0.2);
    }
  });
});
