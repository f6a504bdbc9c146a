import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { bed } from '../../cards/bed';
import { grid } from '../../cards/grid';
import { lineWidth } from '../../cards/line-width';
import type { Point } from '../geometry/point';
import { estimateCard } from './estimate';
import { layCard } from './lay';
import { mainBurn, type Layout } from './layout';
import { boxOfShape } from './shape';
import { sideBySide } from './side-by-side';

const pairing = demoPairing('heron', 'leather');
const known = { pairing, facts: [] };
let first: Layout;
let second: Layout;
/** Rows of it are crossed in one sweep. */
let swept: Layout;
let away: Point;
let layout: Layout;
let at: Point;
beforeEach(() => {
  first = layCard(grid, grid.propose(known).plan, pairing, { cardNumber: 7 });
  second = layCard(lineWidth, lineWidth.propose(known).plan, pairing, { cardNumber: 8 });
  swept = { ...first, together: [first.order.slice(0, 3), first.order.slice(3, 6)] };
  away = { x: first.widthMm + 30, y: -5 };
  ({ layout, at } = sideBySide([
    { layout: first, at: { x: 20, y: 40 } },
    { layout: second, at: { x: 20 + away.x, y: 40 + away.y } },
  ]));
});

describe('cards that lie side by side, as one', () => {
  it('take the area from the upper left corner of all to the lower right', () => {
    expect(at).toEqual({ x: 20, y: 35 });
    expect(layout.widthMm).toBeCloseTo(away.x + second.widthMm, 9);
    expect(layout.heightMm).toBeCloseTo(Math.max(5 + first.heightMm, second.heightMm), 9);
    expect(layout.code).toBe(`${first.code}, ${second.code}`);
  });
  it('burn what each burns, where it lies, in its own order, one after the other', () => {
    expect(layout.order).toHaveLength(first.order.length + second.order.length);
    layout.order.forEach((index, place) => {
      const own = place < first.order.length;
      const cell = own ? first.cells[first.order[place]!]! : second.cells[second.order[place - first.order.length]!]!;
      const [dx, dy] = own ? [0, 5] : [away.x, 0];
      const moved = layout.cells[index]!;
      expect(moved.index).toBe(index);
      expect(moved.box).toEqual({ ...cell.box, x: cell.box.x + dx, y: cell.box.y + dy });
      const [from, to] = [boxOfShape(mainBurn(cell).shape), boxOfShape(mainBurn(moved).shape)];
      expect(to.x - from.x).toBeCloseTo(dx, 9);
      expect(to.y - from.y).toBeCloseTo(dy, 9);
      expect(mainBurn(moved).settings).toEqual(mainBurn(cell).settings);
    });
    const turned = sideBySide([
      { layout: second, at: { x: 0, y: 0 } },
      { layout: swept, at: { x: 60, y: 0 } },
    ]).layout;
    expect(swept.together.length).toBeGreaterThan(1);
    expect(turned.together).toEqual([
      ...second.together,
      ...swept.together.map((group) => group.map((index) => index + second.cells.length)),
    ]);
    expect(layout.frame.markers.map(({ id }) => id)).toEqual(
      [first, second].flatMap(({ frame }) => frame.markers.map(({ id }) => id)),
    );
  });
  it('take about as long as all of them by themselves', () => {
    const alone = [first, second].reduce((sum, one) => sum + estimateCard(one, pairing.machine).totalS, 0);
    const together = estimateCard(layout, pairing.machine).totalS;
    expect(together / alone).toBeGreaterThan(0.95);
    expect(together / alone).toBeLessThan(1.05);
  });
  it('are none where there are none, where frames differ, or one is burned by itself', () => {
    const other = {
      ...second,
      frame: { ...second.frame, settings: { ...second.frame.settings, words: 'full' as const } },
    };
    const on = demoPairing('marl', 'alder');
    const stations = layCard(bed, bed.propose({ pairing: on, facts: [] }).plan, on, { cardNumber: 9 });
    expect(() => sideBySide([])).toThrow(RangeError);
    for (const odd of [other, stations, { ...second, tilt: {} as never }])
      expect(() =>
        sideBySide([
          { layout: first, at },
          { layout: odd, at: away },
        ]),
      ).toThrow(RangeError);
  });
});
