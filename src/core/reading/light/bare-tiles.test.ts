import { describe, expect, it } from 'vitest';
import { cellOf, layoutOf } from '../../../../tests/support/bare-layout';
import { PLAIN_FILL } from '../../../../tests/support/settings';
import type { Layout } from '../../card/layout';
import { rectRing, type Burn } from '../../card/shape';
import { bareMask, bareTiles } from './bare-tiles';
import { points } from '../../../../tests/support/points';

const PX = 20;
const fill: Burn = {
  shape: { do: 'sweep', area: [rectRing({ x: 3, y: 2, width: 4, height: 4 })] },
  settings: PLAIN_FILL,
};
const cell = (leftOut = false) => cellOf(0, fill, { box: { x: 3, y: 2, width: 4, height: 4 }, leftOut });
/** A card of 10 x 8 mm. */
const card = (rest: Partial<Layout> = {}, cells = [cell()]) => layoutOf(cells, { widthMm: 10, heightMm: 8, ...rest });
const plain = card();

/** A straightened card of even grey stock; a tile is five pixels wide. */
function seen() {
  const [width, height] = [10 * PX, 8 * PX];
  return {
    data: new Float32Array(width * height * 3).fill(0.4),
    width,
    height,
    pxPerMm: PX,
    clipped: new Uint8Array(width * height),
  };
}
const at = (column: number, row: number, pixel = 0): number => row * 5 * 10 * PX + column * 5 + pixel;

// By hand: 40 x 32 tiles, of which those at the edge lose three of five pixels: 38 x 30 are left. A cell of 4 x 4 mm takes 18 x 18 of
// them, two tenths of a millimetre and a bit on each side.
describe('tiles of bare stock', () => {
  it('lie beside the cells, a fifth of a millimetre clear of them', () => {
    const { tiles, clippedShare } = bareTiles(seen(), plain);
    expect(tiles).toHaveLength(38 * 30 - 18 * 18);
    expect(clippedShare).toBe(0);
    const beside = tiles.filter(({ y }) => y === 4.125).map(({ x }) => x);
    expect(beside).toContain(2.625);
    expect(beside).toContain(7.375);
    expect(beside.filter((x) => x > 2.7 && x < 7.3)).toEqual([]);
    for (const { red, green, blue, logLuminance } of tiles) {
      expect([red, green, blue].map((value) => value.toFixed(5))).toEqual(['0.40000', '0.40000', '0.40000']);
      expect(logLuminance).toBeCloseTo(Math.log(0.4), 5);
    }
  });
  it('lie where a cell was left out, too', () => {
    expect(bareTiles(seen(), card({}, [cell(true)])).tiles).toHaveLength(38 * 30);
  });
  it('keep further from cells where that is asked for, from each its own', () => {
    // A quarter of a millimetre is a tile on each side.
    expect(bareTiles(seen(), plain, 0.25).tiles).toHaveLength(38 * 30 - 20 * 20);
    expect(bareTiles(seen(), plain, ({ index }) => (index === 0 ? 0.25 : 9)).tiles).toHaveLength(38 * 30 - 20 * 20);
  });
  it('keep three tenths of a millimetre from markers, lettering and what is burned besides the cells', () => {
    const count = (rest: Partial<Layout>) => 38 * 30 - 18 * 18 - bareTiles(seen(), card(rest)).tiles.length;
    const { frame } = plain;
    const marker = { corner: 'upper-left', id: 1, x: 0, y: 0, sizeMm: 2 } as const;
    expect(count({ frame: { ...frame, markers: [marker] } })).toBe(8 * 8);
    // A line from 1, 7 to 4, 7: between 0.7 and 4.3, and 6.7 and 7.3 mm.
    const lettering = [
      {
        role: 'axis',
        text: 'I',
        strokes: [points([4, 7], [1, 7])],
      },
      { role: 'axis', text: '', strokes: [] },
    ] as const;
    expect(count({ frame: { ...frame, lettering } })).toBe(14 * 2);
    const burn: Burn = { ...fill, shape: { do: 'sweep', area: [rectRing({ x: 8.5, y: 6.5, width: 1, height: 1 })] } };
    expect(count({ before: [burn] })).toBe(6 * 6);
    expect(count({ after: [burn] })).toBe(6 * 6);
  });
  it('are the mean of what is theirs, colour by colour', () => {
    const image = seen();
    // One pixel of 25 in the tile at column 2, row 3.
    image.data.set([0.9, 0.15, 0.65], at(2, 3) * 3);
    const tile = bareTiles(image, plain).tiles.find(({ x, y }) => x === 0.625 && y === 0.875)!;
    expect([tile.red, tile.green, tile.blue].map((value) => value.toFixed(5))).toEqual([
      '0.42000',
      '0.39000',
      '0.41000',
    ]);
    expect(tile.logLuminance).toBeCloseTo(Math.log(0.2126 * 0.42 + 0.7152 * 0.39 + 0.0722 * 0.41), 5);
  });
  it('that lost more than one pixel of 25 to the end of the camera’s range are left out whole, and told', () => {
    const image = seen();
    image.clipped[at(2, 3)] = 1;
    image.data.fill(1, at(2, 3) * 3, at(2, 3) * 3 + 3);
    for (const pixel of [0, 1]) image.clipped[at(20, 3, pixel)] = 1;
    const { tiles, clippedShare, clippedAt } = bareTiles(image, plain);
    const here = (column: number) => tiles.filter(({ x, y }) => x === column / 4 + 0.125 && y === 0.875);
    // What is clipped does not count: the rest is as it was.
    expect(here(2).map(({ red }) => red.toFixed(5))).toEqual(['0.40000']);
    expect(here(20)).toEqual([]);
    expect(clippedAt).toEqual([{ x: 5.125, y: 0.875 }]);
    const bare = bareMask(image, plain, 0).reduce((sum, one) => sum + one, 0);
    expect(clippedShare).toBeCloseTo(3 / bare, 9);
  });
  it('without any light are none, and so are those of a card without bare stock', () => {
    const image = seen();
    for (let row = 0; row < 5; row++)
      for (let pixel = 0; pixel < 5; pixel++) image.data[(at(2, 3, pixel) + row * 10 * PX) * 3 + 2] = 0;
    expect(bareTiles(image, plain).tiles).toHaveLength(38 * 30 - 18 * 18 - 1);
    const whole = card({}, [cellOf(0, fill, { box: { x: 0, y: 0, width: 10, height: 8 } })]);
    expect(bareTiles(seen(), whole)).toEqual({ tiles: [], clippedAt: [], clippedShare: 0 });
  });
});
