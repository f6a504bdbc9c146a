import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import type { Answer, ComparedCells } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { BETTER } from '../../core/card/usual-asks';
import { findAB, sideOf } from './find';
import { aB } from './index';
import { sidesInTurn } from './ui/sides-in-turn';

const pairing = demoPairing('marl', 'mdf');
const of = (side: 'a' | 'b'): number[] => layout.order.filter((index) => sideOf(layout.cells[index]!) === side);
let layout: Layout;
let a: number[];
let b: number[];
beforeEach(() => {
  layout = layCard(aB, aB.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 5 });
  [a, b] = [of('a'), of('b')];
});
const said = (better: number, value: number | string, repeat: number): Answer => ({
  field: BETTER.field,
  cellIndex: better,
  repeat,
  value: String(value),
});
const found = (answers: readonly Answer[]) => findAB(layout, { readings: [], answers }, { pairing, facts: [] });

describe('the side that is liked better', () => {
  it('is the one whose patches win, whichever patches they are, once that is sure', () => {
    const answers = [0, 1, 2, 3, 4].map((k) => said(b[k % b.length]!, a[k % a.length]!, k));
    const finding = found(answers);
    expect(finding.liked).toMatchObject({ side: 'b', comparisons: 5 });
    expect(finding.liked!.chance).toBeGreaterThan(0.8);
    expect(finding.missing).toEqual([]);
    expect(finding.says).toMatch(/^Liked better is B, in 5 comparisons: \d\d % sure\.$/);
    // Taste is no darkness: nothing is kept of it as one.
    expect(aB.settle(finding)).toEqual([]);
    const other = found(answers.map((one) => said(Number(one.value), one.cellIndex!, one.repeat)));
    expect(other.liked).toMatchObject({ side: 'a', chance: expect.closeTo(finding.liked!.chance, 2) as number });
  });
  it('is open where they win by turns or are as good, and says nothing of two patches of one side, or spoiled ones', () => {
    const turns = found([said(b[0]!, a[0]!, 0), said(a[1]!, b[1]!, 1), said(a[0]!, `=${b[1]}`, 2)]);
    expect(turns.liked!.chance).toBeCloseTo(0.5, 1);
    expect(turns.says).toBe('Neither is surely liked better, in 3 comparisons.');
    expect(found([said(a[0]!, a[1]!, 0)]).liked).toBeNull();
    const charred = { field: 'outcome', cellIndex: b[0]!, repeat: 0, value: 'charred' };
    expect(found([said(b[0]!, a[0]!, 0), charred]).liked).toBeNull();
  });
  it('is asked of one patch of each, others each time, either side as often on the left, until it is sure', () => {
    const next = sidesInTurn(layout);
    const asked: ComparedCells[] = [];
    const left = { a: 0, b: 0 };
    for (let pair = next(asked); pair && asked.length < 20; pair = next(asked)) {
      expect(new Set(pair.map((index) => sideOf(layout.cells[index]!)))).toEqual(new Set(['a', 'b']));
      left[sideOf(layout.cells[pair[0]]!)]++;
      const better = pair.find((index) => sideOf(layout.cells[index]!) === (asked.length % 2 === 0 ? 'a' : 'b'))!;
      asked.push({ better, worse: pair.find((index) => index !== better)!, equal: false, repeat: asked.length });
    }
    // An eye that cannot decide is let go.
    expect(asked).toHaveLength(6);
    expect(left).toEqual({ a: 3, b: 3 });
    expect(new Set(asked.flatMap(({ better, worse }) => [better, worse])).size).toBeGreaterThan(4);
    const always = asked.map((_, repeat) => ({
      better: a[repeat % 3]!,
      worse: b[repeat % 3]!,
      equal: false,
      repeat,
    }));
    expect(next(always)).toBeNull();
  });
});
