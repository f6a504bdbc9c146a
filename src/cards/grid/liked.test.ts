import { beforeEach, describe, expect, it } from 'vitest';
import { readingOf } from '../../../stand-ins/made-up-reading';
import { demoPairing } from '../../../stand-ins/demo';
import { answerProblem, comparisonsOf, MOST_PAIRS, otherOf, type Answer } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import { asksOn, BETTER } from '../../core/card/usual-asks';
import { findInGrid, type GridWish } from './find';
import type { Layout } from '../../core/card/layout';
import type { CellReading } from '../../core/reading/observations';
import { likedBest } from '../../core/card/liked';
import { grid } from '.';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('heron', 'birch');
const known = { pairing, facts: [] };
const better = (cellIndex: number, other: number | string, repeat = 0): Answer =>
  said(BETTER.field, cellIndex, String(other), repeat);
const wish: GridWish = { lightness: 50, powerCap: 1, pace: 'fast-and-strong' };
let layout: Layout;
let readings: CellReading[];
beforeEach(() => {
  layout = layCard(grid, { ...grid.propose(known).plan, leaveOutFailing: false }, pairing, { cardNumber: 7 });
  readings = layout.cells.map((cell) => ({ ...readingOf(cell.index), deltaLightness: -28 }));
});
const many = Array.from({ length: 8 }, (_, repeat) => better(3, 5 + (repeat % 2), repeat));

describe('comparisons of two cells', () => {
  it('name the other cell: worse, or as good', () => {
    expect(otherOf('12')).toEqual({ cellIndex: 12, equal: false });
    expect(otherOf('=4')).toEqual({ cellIndex: 4, equal: true });
    for (const bad of ['', 'good', '-1', '1.5', '==2', '12345']) expect(otherOf(bad)).toBeNull();
    expect(
      comparisonsOf(
        { answers: [better(2, '=4', 1), better(1, 3, 0), { ...better(1, 3), field: 'grade' }] },
        BETTER.field,
      ),
    ).toEqual([
      { better: 1, worse: 3, equal: false, repeat: 0 },
      { better: 2, worse: 4, equal: true, repeat: 1 },
    ]);
  });
  it('are refused where they name none, the same cell, no cell, or where there are too many', () => {
    const asks = asksOn(grid.asks, pairing.stock);
    expect(answerProblem(asks, better(1, 2))).toBeNull();
    expect(answerProblem(asks, better(1, 2, MOST_PAIRS - 1))).toBeNull();
    for (const bad of [
      better(1, 1),
      better(1, 'x'),
      { ...better(1, 2), cellIndex: null },
      { ...better(1, 2), value: 2 },
    ])
      expect(answerProblem(asks, bad)).toMatch(/^Name another cell/);
    for (const repeat of [-1, 0.5, MOST_PAIRS])
      expect(answerProblem(asks, better(1, 2, repeat))).toMatch(/^At most 200/);
  });
});

describe('what is liked best', () => {
  it('is proposed where it is sure, and the photo’s choice told beside it', () => {
    const byTone = findInGrid(layout, { readings, answers: [] }, known, wish).proposal!;
    expect(byTone.cellIndex).not.toBe(3);
    const found = findInGrid(layout, { readings, answers: many }, known, wish);
    expect(found.liked!.ranking[0]!.cellIndex).toBe(3);
    expect(found.proposal!.cellIndex).toBe(3);
    expect(found.proposal!.reason).toMatch(
      / is liked best of 3 cells, in 8 comparisons: \d\d % sure\. By tone and pace it would be /,
    );
    expect(found.says).toBe(found.proposal!.reason);
  });
  it('is shown, not proposed, where it is not sure, is over the cap, or was called spoiled', () => {
    const few = findInGrid(layout, { readings, answers: [better(3, 5)] }, known, wish);
    expect(few.liked!.comparisons).toBe(1);
    expect(few.proposal!.cellIndex).not.toBe(3);
    const strong = layout.cells.at(-1)!.index;
    const over = Array.from({ length: 9 }, (_, repeat) => better(strong, 5, repeat));
    expect(findInGrid(layout, { readings, answers: over }, known, wish).proposal!.cellIndex).toBe(strong);
    expect(
      findInGrid(layout, { readings, answers: over }, known, { ...wish, powerCap: 0.2 }).proposal?.cellIndex,
    ).not.toBe(strong);
    const charred: Answer = { field: 'outcome', cellIndex: 3, repeat: 0, value: 'charred' };
    expect(findInGrid(layout, { readings, answers: [...many, charred] }, known, wish).liked).toBeNull();
  });
  it('speaks without a photo too', () => {
    const found = findInGrid(layout, { readings: [], answers: many }, known, wish);
    expect(found.missing).toEqual([]);
    expect(found.proposal!.cellIndex).toBe(3);
    expect(likedBest(layout, { readings: [], answers: [] })).toBeNull();
    // A cell that the card does not have compares with nothing.
    expect(likedBest(layout, { readings: [], answers: [better(1, 9999)] })).toBeNull();
  });
});
