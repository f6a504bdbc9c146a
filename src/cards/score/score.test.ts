import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { isAskedOf, type Answer } from '../../core/card/asks';
import { deliveredBy } from '../../core/card/energy';
import { layCard, planProblems } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { linesOf } from '../../core/card/shape';
import type { ScorePlan } from './plan';
import { score } from '.';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'acrylic');
let plan: ScorePlan;
let layout: Layout;
const propose = (): void => {
  ({ plan } = score.propose({ pairing, facts: [] }));
  layout = layCard(score, plan, pairing, { cardNumber: 71 });
};
// Once for the tables below, and anew for each test.
propose();
beforeEach(propose);

describe('flaps', () => {
  it('hang by their line alone: dashes and skips of their row and column, and scored ones below', () => {
    expect(layout.cells).toHaveLength(12);
    for (const { burns, box, levels } of layout.cells.slice(0, 9)) {
      const [line, sides] = burns.map(({ shape }) => linesOf(shape));
      // Down, along and up: the upper side is not among them.
      expect(sides![0]!.map(({ y }) => y)).toEqual([box.y, box.y + box.height, box.y + box.height, box.y]);
      expect(line!.flat().every(({ y }) => y === box.y)).toBe(true);
      const lengths = line!.map(([a, b]) => b!.x - a!.x);
      if (levels.score === undefined) {
        // Shorter ones at its ends, whole ones between.
        for (const length of lengths.slice(1, -1)) expect(length).toBeCloseTo(levels.dash as number, 3);
        expect(Math.max(...lengths)).toBeCloseTo(levels.dash as number, 3);
        const skips = line!.slice(1).map(([a], k) => a!.x - line![k]![1]!.x);
        for (const skip of skips) expect(skip).toBeCloseTo(levels.skip as number, 3);
        expect(burns[0]!.settings).toEqual(plan.cut);
      } else {
        expect(lengths).toEqual([expect.closeTo(box.width, 3)]);
        const [scored, cut] = [burns[0]!.settings, plan.cut].map(
          (settings) => deliveredBy(settings, pairing).lineJPerMm,
        );
        expect(scored! / cut!).toBeCloseTo(levels.score as number, 2);
      }
    }
    expect(layout.cells.slice(6, 9).map(({ levels }) => levels.score)).toEqual([0.12, 0.285, 0.45]);
  });

  it('are scored by a share of all passes, in one', () => {
    const twice = { ...plan.cut, passes: 2 };
    const deepest = layCard(score, { ...plan, cut: twice }, pairing, { cardNumber: 71 }).cells[8];
    const [scored, cut] = deepest!.burns.map(({ settings }) => deliveredBy(settings, pairing).lineJPerMm);
    expect(scored! / cut!).toBeCloseTo(0.45, 2);
    expect(deepest!.burns[0]!.settings.passes).toBe(1);
  });

  it('stand over a row of stitches, which free nothing: dashes of the shallowest score', () => {
    const [first, , last] = layout.cells.slice(9);
    expect([first, last].map((cell) => cell!.levels.stitch)).toEqual([2, 4]);
    const [a, b] = linesOf(last!.burns[0]!.shape);
    expect(b![0]!.x - a![1]!.x).toBeCloseTo(1.6, 3);
    expect(first!.burns).toHaveLength(1);
    // As deep as the shallowest score, by less power and no more speed.
    const energyOf = (cell: (typeof layout.cells)[number]) => deliveredBy(cell.burns[0]!.settings, pairing).lineJPerMm;
    expect(energyOf(first!) / energyOf(layout.cells[6]!)).toBeCloseTo(1, 2);
    expect(first!.burns[0]!.settings.speedMmPerS).toBeLessThan(1.05 * plan.cut.speedMmPerS);
    const [flap, stitch] = score.asks;
    expect([layout.cells[0]!, first!].map((cell) => [isAskedOf(flap!, cell), isAskedOf(stitch!, cell)])).toEqual([
      [true, false],
      [false, true],
    ]);
    const { stitchFromMm: _, stitchToMm: __, ...old } = plan;
    expect(score.upgrade({ ...old, version: 1 })).toEqual(plan);
  });

  it.each([
    ['stitchToMm', { stitchToMm: 10 }, 'have room'],
    ['skip.from', { kerfMm: 0.5 }, 'run into each other'],
    ['flapWidthMm', { flapWidthMm: 5 }, 'have room'],
    ['scoreTo', { scoreTo: 0.99 }, '5 to 95'],
    ['scoreFrom', { scoreFrom: 0.05, cut: { ...plan.cut, speedMmPerS: 100 } }, ''],
  ] as const)('are refused at %s', (field, change, words) => {
    const [problem] = planProblems(score, { ...plan, ...change }, pairing);
    expect(problem).toMatchObject({ field });
    expect(problem!.message).toContain(words);
  });
});

describe('flaps that were bent', () => {
  const told = (words: Readonly<Record<number, string>>): Answer[] =>
    Object.entries(words).map(([cellIndex, value]) =>
      said(Number(cellIndex) < 9 ? 'flap' : 'stitch', Number(cellIndex), value),
    );
  const find = (words: Readonly<Record<number, string>>, want: 'tear' | 'fold' | 'stitch' = 'tear') =>
    score.find(layout, { readings: [], answers: told(words) }, { pairing, facts: [] }, { want });

  it('tell the line that tears clean and holds best, and the one that folds easiest', () => {
    const tears = find({ 0: 'off', 1: 'clean', 2: 'clean', 3: 'off', 4: 'clean', 5: 'ragged' });
    // Of those the shortest dash with its skip stands by most.
    expect(tears.chosen!.cellIndex).toBe(4);
    expect(tears.says).toMatch(/^Dashes of 1.5 mm with .* between: tears clean/);
    expect(score.settle(tears)).toMatchObject([
      { name: 'score', at: { either: 'tears' }, value: { dashMm: 1.5, share: null } },
    ]);
    const folds = find({ 6: 'stiff', 7: 'folds', 8: 'folds' }, 'fold');
    expect(folds.chosen!.score).toBe(0.45);
    expect(folds.says).toContain('Score at 45 % of a cut’s energy: folds easiest');
    expect(score.settle(folds)).toMatchObject([{ at: { either: 'folds' }, value: { dashMm: null, share: 0.45 } }]);
  });

  it('and those that look like stitching, the longest of them', () => {
    const words = { 0: 'clean', 9: 'stitching', 10: 'stitching', 11: 'together' };
    const finding = find(words, 'stitch');
    expect(finding.chosen!.cellIndex).toBe(10);
    expect(finding.says).toBe('Stitches of 3 mm with 1.2 mm between, scored at 12 % of a cut’s energy.');
    expect(score.settle(finding)).toMatchObject([
      { at: { either: 'looks like stitching' }, value: { dashMm: 3, skipMm: 1.2, share: 0.12 } },
    ]);
    expect(find({ 9: 'faint' }, 'stitch').missing[0]).toContain('score deeper');
    expect(find({ 0: 'clean' }, 'stitch').missing[0]).toContain('last row');
    // A stitch is no flap.
    expect(find(words).missing[0]).toContain('three of them');
  });

  it('say what is missing, and what to change', () => {
    expect(find({ 0: 'off' }).missing[0]).toContain('three of them');
    expect(find({ 0: 'off', 1: 'off', 2: 'off' }).missing[0]).toContain('leave more');
    expect(find({ 0: 'ragged', 1: 'stiff', 2: 'stiff' }).missing[0]).toContain('leave less');
    expect(find({ 0: 'clean', 1: 'breaks', 2: 'stiff' }, 'fold').missing[0]).toContain('None folds');
    expect(score.settle(find({}))).toEqual([]);
  });
});
