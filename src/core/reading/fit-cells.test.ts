import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { cellOf, layoutOf } from '../../../tests/support/bare-layout';
import type { Layout } from '../card/layout';
import type { Burn } from '../card/shape';
import type { Rect } from '../geometry/point';
import { aroundCells, cellsBeyond, CLEAR_ENOUGH, fitCells } from './fit-cells';
import type { Rectified } from './rectify';

const PX = 8;
/** Columns 4 mm wide every 7 mm from 2 mm on, rows 3 mm high every 5 mm from 3 mm on; told in no order. */
function laid(columns: number, rows: number): Layout {
  const boxes = Array.from({ length: columns * rows }, (_, k) => ({
    x: 2 + 7 * (k % columns),
    y: 3 + 5 * Math.floor(k / columns),
    width: 4,
    height: 3,
  })).reverse();
  const inner = { x: 2, y: 3, width: 7 * columns - 3, height: 5 * rows - 2 };
  const cells = boxes.map((box, index) => cellOf(index, {} as Burn, { box }));
  return layoutOf(cells, { widthMm: 7 * columns + 1, heightMm: 5 * rows + 4, inner });
}
interface Drawn {
  /** What a straightened card shows of a place: bare stock's light is 0.5. */
  readonly light: (x: number, y: number) => number;
  readonly noise?: number;
  readonly area?: Rect;
}
function drawn(layout: Layout, { light, noise = 0.004, area }: Drawn): Rectified {
  const of = area ?? { x: 0, y: 0, width: layout.widthMm, height: layout.heightMm };
  const [width, height] = [Math.round(of.width * PX), Math.round(of.height * PX)];
  const random = seedrandom('cells');
  const data = new Float32Array(3 * width * height);
  for (let at = 0; at < width * height; at++) {
    // Two looks by two at each pixel: edges are as soft as it is wide.
    let sum = 0;
    for (let k = 0; k < 4; k++)
      sum += light(
        of.x + ((at % width) + ((k % 2) + 0.5) / 2) / PX,
        of.y + (Math.floor(at / width) + (Math.floor(k / 2) + 0.5) / 2) / PX,
      );
    data.fill(sum / 4 + noise * (random() + random() + random() - 1.5), 3 * at, 3 * at + 3);
  }
  return { data, width, height, pxPerMm: PX, clipped: new Uint8Array(width * height) };
}
interface Lies {
  readonly start: readonly [number, number];
  readonly scale: readonly [number, number];
  readonly width: readonly [number, number];
}
/** Light where cells are, darker than bare stock the further on they are; each lies where it was told, moved, scaled and widened. */
const cellsAt =
  (
    { cells }: Layout,
    { start, scale, width }: Lies,
    of = (cell: Rect): number => 0.35 - 0.006 * cell.x - 0.004 * cell.y,
  ) =>
  (x: number, y: number): number => {
    const lies = (place: number, low: number, size: number, axis: 0 | 1): boolean =>
      Math.abs(place - start[axis] - scale[axis] * (low + size / 2)) < (scale[axis] * width[axis] * size) / 2;
    const cell = cells.find(({ box }) => lies(x, box.x, box.width, 0) && lies(y, box.y, box.height, 1));
    return cell ? of(cell.box) : 0.5;
  };
const AS_TOLD: Lies = { start: [0, 0], scale: [1, 1], width: [1, 1] };

describe('cells of a card that was placed by hand', () => {
  it.each([
    ['as they were told', AS_TOLD],
    ['moved, stretched and wider', { start: [0.6, -0.5], scale: [0.99, 1.015], width: [1.06, 0.94] }],
    ['moved the other way, and narrower', { start: [-0.7, 0.4], scale: [1.01, 0.995], width: [0.95, 1.05] }],
  ] as const)('are found %s', (_, lies) => {
    const layout = laid(5, 6);
    const { x, y } = fitCells(drawn(layout, { light: cellsAt(layout, lies) }), layout);
    for (const [axis, told] of [x, y].entries()) {
      expect(told.clear).toBeGreaterThan(CLEAR_ENOUGH);
      expect(Math.abs(told.width - lies.width[axis]!)).toBeLessThan(0.06);
      // Where the first and the last of them lie, to a pixel's half.
      for (const at of [3, 30]) {
        const off = told.startMm + told.scale * at - lies.start[axis]! - lies.scale[axis]! * at;
        expect(Math.abs(off), `${axis} at ${at}`).toBeLessThan(0.15);
      }
    }
  });
  it('are found brighter than bare stock, and in one column as in many', () => {
    const layout = laid(5, 6);
    const bright = fitCells(drawn(layout, { light: cellsAt(layout, AS_TOLD, () => 0.7) }), layout);
    expect(Math.min(bright.x.clear, bright.y.clear)).toBeGreaterThan(CLEAR_ENOUGH);
    expect(Math.abs(bright.x.startMm)).toBeLessThan(0.1);
    const column = laid(1, 3);
    const lies: Lies = { ...AS_TOLD, start: [1.2, 0.3] };
    const { x, y } = fitCells(drawn(column, { light: cellsAt(column, lies) }), column);
    // A lone one is sought as far as three quarters of its width.
    expect(Math.abs(x.startMm + x.scale * 4 - 5.2)).toBeLessThan(0.15);
    expect(Math.abs(y.startMm + y.scale * 4.5 - 4.8)).toBeLessThan(0.1);
  });
  it('are clear of nothing in noise, nor in even light', () => {
    const layout = laid(5, 6);
    const { x, y } = fitCells(drawn(layout, { light: () => 0.5, noise: 0.03 }), layout);
    expect(Math.max(x.clear, y.clear)).toBeLessThan(CLEAR_ENOUGH);
    expect(fitCells(drawn(layout, { light: () => 0.5, noise: 0 }), layout).x.clear).toBeLessThan(CLEAR_ENOUGH);
  });
});

describe('cells beyond those that were told', () => {
  const layout = laid(3, 3);
  const area = aroundCells(layout);
  it('are looked for as far as one of them reaches, or twice as far as a lone one is wide', () => {
    expect(area).toEqual({ x: -5, y: -2, width: 32, height: 23 });
    expect(aroundCells(laid(1, 1))).toEqual({ x: -6, y: -3, width: 20, height: 15 });
  });
  /** A card of five columns and five rows, of which the middle three were told, without those of some places. */
  const seen = (left: (column: number, row: number) => boolean, strength = (_: number): number => 0.3) => {
    const all = Array.from({ length: 25 }, (_, k) => ({ column: (k % 5) - 1, row: Math.floor(k / 5) - 1 })).filter(
      ({ column, row }) => left(column, row),
    );
    const light = (x: number, y: number): number => {
      const cell = all.find(({ column, row }) => Math.abs(x - 4 - 7 * column) < 2 && Math.abs(y - 4.5 - 5 * row) < 1.5);
      return cell ? 0.5 - strength(cell.column) : 0.5;
    };
    return cellsBeyond(drawn(layout, { light, area }), layout);
  };
  const inside = (at: number): boolean => at >= 0 && at <= 2;
  it('are found on the sides that they follow on, and on no other', () => {
    expect(seen((column, row) => inside(column) && inside(row))).toEqual([]);
    expect(seen((column, row) => column >= 0 && column <= 3 && inside(row))).toEqual(['right']);
    expect(seen((column, row) => column <= 2 && inside(row))).toEqual(['left']);
    expect(seen((column, row) => inside(column) && row <= 2)).toEqual(['top']);
    expect(seen((column, row) => inside(column) && row >= 0 && row <= 3)).toEqual(['bottom']);
    expect(seen(() => true)).toEqual(['left', 'right', 'top', 'bottom']);
  });
  it('are told by their borders along the line of them, however that is spaced', () => {
    // Columns 4 mm wide every 7, but rows 6 mm high every 8: told by the columns' borders, rows would look like none.
    const boxes = Array.from({ length: 6 }, (_, k) => ({
      x: 2 + 7 * (k % 3),
      y: 3 + 8 * Math.floor(k / 3),
      width: 4,
      height: 6,
    }));
    const tall = layoutOf(
      boxes.map((box, index) => cellOf(index, {} as Burn, { box })),
      { widthMm: 22, heightMm: 20, inner: { x: 2, y: 3, width: 18, height: 14 } },
    );
    const light = (x: number, y: number): number => {
      const [u, v] = [(x + 5) % 7, (y + 5) % 8];
      return x > 2 && x < 27 && y > 3 && y < 17 && u < 4 && v < 6 ? 0.2 : 0.5;
    };
    expect(cellsBeyond(drawn(tall, { light, area: aroundCells(tall) }), tall)).toEqual(['right']);
  });
  it('are as they are, darker or brighter, and not much paler', () => {
    const right = (column: number, row: number): boolean => column >= 0 && inside(row);
    expect(seen(right, () => -0.2)).toEqual(['right']);
    expect(seen(right, (column) => (column === 3 ? -0.2 : 0.2))).toEqual([]);
    expect(seen(right, (column) => (column === 3 ? 0.06 : 0.3))).toEqual(['right']);
    expect(seen(right, (column) => (column === 3 ? 0.012 : 0.3))).toEqual([]);
  });
});
