import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Answer } from '../../core/card/asks';
import { detailChecks } from '../../core/card/detail-checks';
import { deliveredBy } from '../../core/card/energy';
import { layCard, planProblems } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { proposedCut } from '../../core/card/propose-cut';
import { linesOf, rectOutline } from '../../core/card/shape';
import type { PassesPlan } from './plan';
import { passes } from '.';

const pairing = demoPairing('marl', 'alder');
let plan: PassesPlan;
let reasons: Readonly<Record<string, string>>;
let layout: Layout;
const propose = (): void => {
  ({ plan, reasons } = passes.propose({ pairing, facts: [] }));
  layout = layCard(passes, plan, pairing, { cardNumber: 44 });
};
// Once for the tables below, and anew for each test.
propose();
beforeEach(propose);

describe('shapes in one pass, in two, in more', () => {
  it('all lay down one energy, each pass so many times as fast, with three of each', () => {
    const energies = layout.cells.map((cell) => deliveredBy(mainBurn(cell).settings, pairing).lineJPerMm);
    for (const energy of energies) expect(energy / energies[0]!).toBeCloseTo(1, 2);
    expect(layout.cells.map(({ levels }) => levels.passes)).toEqual([1, 2, 3, 4, 5, 1, 2, 3, 4, 5, 1, 2, 3, 4, 5]);
    expect(mainBurn(layout.cells[3]!).settings).toMatchObject({ passes: 4, speedMmPerS: 4 * plan.cut.speedMmPerS });
    // What dwells longest comes last: one pass, the slowest.
    expect(layout.cells[layout.order.at(-1)!]!.levels.passes).toBe(1);
  });

  it('have a tip of the angle that was wanted', () => {
    const [, left, tip, right] = linesOf(layout.cells[0]!.burns[0]!.shape)[0]!;
    const half = Math.atan2((right!.x - left!.x) / 2, left!.y - tip!.y);
    expect((2 * half * 180) / Math.PI).toBeCloseTo(plan.tipDeg, 2);
    const hint = (change: Partial<PassesPlan>) =>
      passes.fields({ ...plan, ...change }, pairing).find(({ path }) => path === 'tipDeg')!.hint;
    const slows = { ...plan.cut, speedMmPerS: 30 };
    const holds = { ...pairing, machine: { ...pairing.machine, rampPower: 'constant' as const } };
    const text = passes.fields({ ...plan, cut: slows }, holds).find(({ path }) => path === 'tipDeg')!.hint;
    expect(text).toMatch(/^the head goes round them at .* times the energy there, in one pass. A flame can stand/);
    expect(hint({ tipDeg: 200 })).toBe('');
  });

  it('start from the cut that is kept: all of its energy in one pass, and no faster than half of what the head can', () => {
    expect(reasons['cut.speedMmPerS']).toContain('one pass lays down all of it');
    const cut = { ...plan.cut, passes: 2, speedMmPerS: 30 };
    const kept = factNow('cut', {
      settings: cut,
      certainty: 0.98,
      outlineMm: 24,
      thicknessMm: { from: 5, to: 6 },
      comesThrough: 1,
      laidDown: 1.2,
      edge: null,
    });
    expect(passes.propose({ pairing, facts: [kept] }).plan.cut).toMatchObject({ passes: 1, speedMmPerS: 15 });
    const slow = { ...pairing, machine: { ...pairing.machine, topSpeedXMmPerS: 70, topSpeedYMmPerS: 70 } };
    expect(passes.propose({ pairing: slow, facts: [kept] }).plan.most).toBe(2);
  });

  it('are warned of where a flame can stand on their tips: slow, in thick or grained stock', () => {
    expect(detailChecks(layout, pairing.stock)).toEqual([expect.stringContaining('watch every tip')]);
    const fast = layCard(passes, { ...plan, most: 2, cut: { ...plan.cut, speedMmPerS: 30 } }, pairing, {
      cardNumber: 44,
    });
    expect(detailChecks(fast, pairing.stock)).toEqual([]);
    // Of acrylic only a thick sheet feeds a flame; grain does in a thin one too.
    const sheet = (name: 'acrylic' | 'birch', mm: number) => ({
      ...demoPairing('marl', name).stock,
      thicknessReadingsMm: [mm],
    });
    expect([3.9, 4].map((mm) => detailChecks(layout, sheet('acrylic', mm)).length)).toEqual([0, 1]);
    expect(detailChecks(layout, sheet('birch', 3))).toHaveLength(1);
    // Corners of a square are no tips. One of 33 degrees is, wherever it lies.
    const [cell] = layout.cells;
    const lines = [[0, 10, 0].map((x, k) => ({ x: x + 40, y: 3 * k + 30 }))];
    const tip = { ...cell!.burns[0]!, shape: { do: 'follow' as const, lines } };
    expect(detailChecks({ cells: [{ ...cell!, burns: [tip] }] }, pairing.stock)).toHaveLength(1);
    const square = { ...cell!.burns[0]!, shape: { do: 'follow' as const, lines: [rectOutline(cell!.box)] } };
    expect(detailChecks({ cells: [{ ...cell!, burns: [square] }] }, pairing.stock)).toEqual([]);
  });

  it.each([
    ['cut.passes', { cut: { ...plan.cut, passes: 2 } }],
    ['most', { most: 9 }],
    ['most', { cut: { ...plan.cut, speedMmPerS: 200 } }],
    ['tipDeg', { tipDeg: 5 }],
    ['repeats', { repeats: 7 }],
  ] as const)('are refused at %s', (field, change) => {
    expect(planProblems(passes, { ...plan, ...change }, pairing)[0]).toMatchObject({ field });
  });
});

describe('what dropped whole', () => {
  /** Words by count of passes, for all three of each. */
  const told = (...words: readonly string[]): Answer[] =>
    layout.cells.flatMap(({ index, levels }) => {
      const value = words[(levels.passes as number) - 1];
      return value === undefined ? [] : [{ field: 'drop', cellIndex: index, repeat: 0, value }];
    });
  const find = (answers: readonly Answer[]) => passes.find(layout, { readings: [], answers }, { pairing, facts: [] });

  it('in the fewest passes is proposed, with why not in fewer and what more do', () => {
    const finding = find(told('tip', 'charred', 'clean', 'clean', 'hangs'));
    expect(finding.best).toMatchObject({ passes: 3, dropped: 3, told: 3 });
    expect(finding.says).toContain('Cut it in 3 passes');
    expect(finding.says).toContain('In fewer, detail burns away. In more, with the same energy, it drops less.');
    expect(passes.settle(finding)).toMatchObject([
      {
        name: 'passes',
        value: { settings: { passes: 3, speedMmPerS: finding.counts[2]!.settings.speedMmPerS }, dropped: 3 },
      },
    ]);
    const edges = [0, 1, 5].map((cellIndex) => ({
      field: 'edge',
      cellIndex,
      repeat: 0,
      value: cellIndex === 1 ? 'pale' : 'black',
    }));
    expect(find([...told('clean', 'clean'), ...edges]).counts.map(({ blackEdges }) => blackEdges)).toEqual([2, 0]);
    expect(find(told('clean', 'clean')).says).toMatch(/^Cut it in one pass at .* 3 of 3 dropped with their tips\.$/);
    expect(find(told('hangs', 'clean', 'clean')).says).toContain('In fewer, not all dropped.');
    // One of three that hangs is one too many.
    const odd = told('clean', 'clean').map((answer) =>
      answer.cellIndex === 0 ? { ...answer, value: 'hangs' } : answer,
    );
    expect(find(odd).best).toMatchObject({ passes: 2 });
  });

  it('in no count of passes is said, with what it takes', () => {
    const missing = (...words: string[]): string => find(told(...words)).missing[0] ?? '';
    expect(missing()).toContain('Tap the sheet');
    expect(missing('clean')).toContain('two counts of passes at least');
    expect(missing('tip', 'tip', 'tip')).toContain('burns tips away');
    expect(missing('tip', 'tip', 'hangs')).toContain('a little more energy');
    expect(missing('hangs', 'hangs')).toContain('find the cut');
    expect(missing('flare', 'flare')).toContain('Engrave it only');
    const half = told('clean', 'clean').map((answer) =>
      answer.cellIndex! < 5 ? { ...answer, value: 'hangs' } : answer,
    );
    expect(find(half).missing[0]).toContain('did every shape drop');
    expect(passes.settle(find([]))).toEqual([]);
  });

  it('is how later cuts are proposed, until it is stale', () => {
    const kept = factNow('passes', {
      settings: { ...plan.cut, passes: 3, speedMmPerS: 3 * plan.cut.speedMmPerS },
      dropped: 3,
    });
    const { cut, reasons: why } = proposedCut({ pairing, facts: [kept] });
    const before = proposedCut({ pairing, facts: [] }).cut;
    expect(cut.passes).toBe(3);
    // Faster ones are told to a whole mm/s.
    expect(cut.speedMmPerS / before.speedMmPerS / (3 / before.passes)).toBeCloseTo(1, 1);
    expect(why['cut.passes']).toContain('kept fine detail');
    expect(proposedCut({ pairing, facts: [{ ...kept, stale: ['new batch'] }] }).cut.passes).toBe(before.passes);
  });
});
