import { describe, expect, it } from 'vitest';
import type { Layout } from '../../card/layout';
import { turnTold } from './turn';
import { points } from '../../../../tests/support/points';

const [WIDE, HIGH] = [20, 10];
/** Two rows of cells, each stronger than the one before; and lettering at the upper left, or none. */
const layoutOf = (letters: boolean, risk = (index: number): number => index): Layout =>
  ({
    cells: Array.from({ length: 6 }, (_, index) => ({
      leftOut: false,
      risk: risk(index),
      box: { x: 1 + 6 * (index % 3), y: 2 + 4 * Math.floor(index / 3), width: 3, height: 2 },
    })),
    frame: {
      lettering: letters ? [{ strokes: [points([1, 1], [3, 1], [3, 1.6])] }] : [],
    },
  }) as unknown as Layout;
/** What is seen of a card lying so many quarter turns round, of which the half turns fit its cells. */
const seen =
  (layout: Layout, lies: 0 | 180, ink = 60) =>
  (pose: 0 | 180) => ({
    layout,
    grayAt: (x: number, y: number): number => {
      const [u, v] = pose === lies ? [x, y] : [WIDE - x, HIGH - y];
      const cell = layout.cells.find(
        ({ box }) => u > box.x && u < box.x + box.width && v > box.y && v < box.y + box.height,
      );
      const inked = layout.frame.lettering.length > 0 && v > 0.8 && v < 1.4 && u > 0.9 && u < 3.1;
      return cell ? 180 - 20 * cell.risk : inked ? ink : 200;
    },
  });
const told = (layout: Layout, lies: 0 | 180 = 0, ink?: number, poses: readonly (0 | 180)[] = [0, 180]) =>
  turnTold(poses, seen(layout, lies, ink));
const even = (letters: boolean): Layout => layoutOf(letters, () => 2);

describe('the turn of a card whose cells fit two ways', () => {
  it.each([0, 180] as const)('is told by its lettering where it lies %d degrees round', (lies) => {
    // Cells alike: nothing else tells.
    expect(told(even(true), lies)).toBe(lies);
  });

  it.each([0, 180] as const)('is told by its stronger cells where it has none', (lies) => {
    expect(told(layoutOf(false), lies)).toBe(lies);
  });

  it('is not told by lettering that is paler than noise', () => expect(told(even(true), 0, 199)).toBeNull());

  it('stays open where neither tells, and is not asked where one way fits', () => {
    expect(told(even(false))).toBeNull();
    expect(told(even(false), 0, 60, [180])).toBe(180);
    expect(told(layoutOf(true), 0, 60, [])).toBeNull();
  });
});
