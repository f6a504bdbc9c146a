import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../tests/support/bare-layout';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { rectRing, type Shape } from '../card/shape';
import { lightnessOfLuminance } from '../color/lab';
import { packGreys } from '../picture/greys';
import { distanceOfSide } from '../picture/viewing';
import type { PhotoContext } from './photo-context';
import { isPicture, pictureOfCell } from './picture-of-cell';
import { tuples } from '../../../tests/support/tuples';

const PX = 20;
const box = { x: 2, y: 1, width: 6, height: 3 };
const picture: Shape = {
  do: 'picture',
  box,
  wanted: packGreys(1, 1, new Uint8Array(1)),
  table: null,
  mode: 'power',
  floorFraction: 0,
};
const cell = (...shapes: Shape[]) => {
  const made = cellOf(0, { shape: shapes[0]!, settings: PLAIN_FILL }, { box });
  return { ...made, burns: shapes.map((shape) => ({ shape, settings: PLAIN_FILL })) };
};
/** Stock of half white's light, darker to the right and, less, downwards; nothing is seen from 7 mm on where that is asked. */
function photo(seenTo = Infinity): PhotoContext {
  const [width, height] = [10 * PX, 5 * PX];
  const data = Float32Array.from({ length: width * height * 3 }, (_, k) => {
    const [x, y] = [Math.floor(k / 3) % width, Math.floor(k / 3 / width)];
    return x / PX >= seenTo ? NaN : 1 - 0.08 * (x / PX) - 0.04 * (y / PX);
  });
  return {
    rectified: { pxPerMm: PX, width, height, data, clipped: new Uint8Array(width * height) },
    field: { at: () => [1, 1, 1] as const },
    stockLinear: [0.5, 0.5, 0.5],
  } as unknown as PhotoContext;
}
const bare = lightnessOfLuminance(0.5);

describe('a picture in a photo', () => {
  it('is told in blocks from its upper left, as fine as an eye sees at 300 mm, to a tenth of L*', () => {
    const { columns, rows, deltas } = pictureOfCell(photo(), cell(picture), bare, 0)!;
    expect([columns, rows]).toEqual([20, 10]);
    expect(distanceOfSide(6 / columns)).toBeCloseTo(298, 0);
    expect(deltas).toHaveLength(200);
    for (const [column, row] of tuples([0, 0], [19, 0], [0, 9], [12, 4])) {
      const share = 1 - 0.08 * (2 + 0.3 * (column + 0.5)) - 0.04 * (1 + 0.3 * (row + 0.5));
      expect(Math.abs(deltas[row * columns + column]! - (lightnessOfLuminance(0.5 * share) - bare))).toBeLessThan(0.25);
    }
    for (const delta of deltas) expect(Math.abs(10 * delta! - Math.round(10 * delta!))).toBeLessThan(1e-9);
    // Stock that is darker under the cell by a tenth makes all of it lighter than it looks.
    expect(pictureOfCell(photo(), cell(picture), bare, -0.1)!.deltas[0]).toBeGreaterThan(deltas[0]! + 2);
  });
  it('has no more blocks where it is large, and none where nothing is seen', () => {
    const large = { ...cell(picture), box: { x: 0, y: 0, width: 400, height: 300 } };
    const { columns, rows } = pictureOfCell(photo(), large, bare, 0)!;
    expect(columns * rows).toBeLessThan(12_500);
    expect(columns / rows).toBeCloseTo(4 / 3, 1);
    const cut = pictureOfCell(photo(7), cell(picture), bare, 0)!;
    expect(cut.deltas[18]).toBeNull();
    expect(cut.deltas[10]).not.toBeNull();
  });
  it('is a cell of one burn that is a picture, and no other', () => {
    const sweep: Shape = { do: 'sweep', area: [rectRing(box)] };
    expect([cell(picture), cell(sweep), cell(picture, picture), cell(sweep, picture)].map(isPicture)).toEqual([
      true,
      false,
      false,
      false,
    ]);
    expect(pictureOfCell(photo(), cell(sweep), bare, 0)).toBeNull();
  });
});
