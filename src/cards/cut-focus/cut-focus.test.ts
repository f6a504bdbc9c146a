import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Answer } from '../../core/card/asks';
import { layCard, planProblems } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { proposedCut } from '../../core/card/propose-cut';
import type { CutFocusPlan } from './plan';
import { cutFocus } from '.';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('marl', 'alder');
let plan: CutFocusPlan;
let reasons: Readonly<Record<string, string>>;
let layout: Layout;
beforeEach(() => {
  ({ plan, reasons } = cutFocus.propose({ pairing, facts: [] }));
  layout = layCard(cutFocus, plan, pairing, { cardNumber: 81 });
});
const cellsOf = (way: string) => layout.cells.filter(({ levels }) => levels.side === way);

describe('squares by three ways to focus', () => {
  it('are cut with one energy: on the face, in the middle, and each pass in the middle of what it takes', () => {
    const focusOf = (way: string) =>
      cellsOf(way)[0]!.burns.map(({ settings }) => [settings.focusOffsetMm, settings.passes]);
    expect(plan.cut.passes).toBe(2);
    expect(focusOf('top')).toEqual([[0, 2]]);
    // Half of 6.02 mm, and a quarter; three quarters would bring the head too near to the sheet.
    expect(focusOf('middle')).toEqual([[-3, 2]]);
    expect(focusOf('stepped')).toEqual(tuples([-1.5, 1], [-3, 1]));
    expect(cellsOf('stepped')).toHaveLength(3);
    // Twice as fast as the one pass that was foretold.
    expect(plan.cut.speedMmPerS).toBeCloseTo(
      (2 * proposedCut({ pairing, facts: [] }).cut.speedMmPerS) / proposedCut({ pairing, facts: [] }).cut.passes,
      1,
    );
    expect(reasons['thicknessMm']).toContain('a board of 3 mm');
  });

  it('leave out what a machine that does not focus by itself cannot do', () => {
    const heron = demoPairing('heron', 'birch');
    const byHand = cutFocus.propose({ pairing: heron, facts: [] }).plan;
    expect(byHand.steps).toBe(false);
    expect(layCard(cutFocus, byHand, heron, { cardNumber: 81 }).cells).toHaveLength(6);
    expect(planProblems(cutFocus, { ...byHand, steps: true }, heron)[0]).toMatchObject({ field: 'steps' });
    const once: CutFocusPlan = { ...plan, cut: { ...plan.cut, passes: 1 } };
    expect(planProblems(cutFocus, once, pairing)[0]).toMatchObject({ field: 'cut.passes' });
    expect(() => cutFocus.propose({ pairing: demoPairing('marl', 'linen'), facts: [] })).toThrow('under 1.5 mm');
  });
});

describe('what was cut by each', () => {
  /** Widths below and above by way, for every square of it; and what a tap said. */
  const told = (ways: Readonly<Record<string, readonly [word: string, below?: number, above?: number]>>): Answer[] =>
    layout.cells.flatMap(({ index: cellIndex, levels }) => {
      const [word, below, above] = ways[String(levels.side)] ?? [];
      const answer = (field: string, value: string | number | undefined): Answer[] =>
        value === undefined ? [] : [{ field, cellIndex, repeat: 0, value }];
      return [...answer('drop', word), ...answer('width-x', below), ...answer('top-x', above)];
    });
  const find = (ways: Parameters<typeof told>[0]) =>
    cutFocus.find(layout, { readings: [], answers: told(ways) }, { pairing, facts: [] });

  it('is kept where all drop and the edge is straightest, whichever face is the wider', () => {
    const finding = find({ top: ['clean', 7.85, 7.6], middle: ['charred', 7.8, 7.9], stepped: ['hangs', 7.8, 7.8] });
    expect(finding.best).toMatchObject({ way: 'middle', dropped: 3 });
    expect(finding.best!.taper!.mm).toBeCloseTo(-0.1, 9);
    expect(finding.says).toMatch(
      /^Focus in the middle of the sheet: parts are 0.1 mm ± .* wider above, the straightest\.$/,
    );
    expect(cutFocus.settle(finding)).toMatchObject([{ name: 'cutFocus', value: { way: 'middle', focusOffsetMm: -3 } }]);
    // Wider above by much is no straighter than wider below by little.
    const above = find({ top: ['clean', 7.6, 7.9], middle: ['clean', 7.8, 7.75], stepped: ['clean', 7.9, 7.7] });
    expect(above.best!.way).toBe('middle');
    const close = find({ top: ['clean', 7.85, 7.8], middle: ['clean', 7.85, 7.81], stepped: ['hangs'] });
    expect(close.says).toContain('no clearer than on the face');
  });

  it('is as unsure as squares of one way differ, and as gauges read where there is one', () => {
    const answers = told({ top: ['hangs'], middle: ['clean', 7.8, 7.9], stepped: ['hangs'] });
    const [one, ...others] = layout.cells.filter(({ levels }) => levels.side === 'middle').map(({ index }) => index);
    const taperBy = (some: readonly Answer[]) =>
      cutFocus.find(layout, { readings: [], answers: some }, { pairing, facts: [] }).best!.taper!;
    const wider = answers.map((it) => (it.cellIndex === one && it.field === 'top-x' ? { ...it, value: 8.2 } : it));
    // -0.1, -0.1 and -0.4: a spread of 0.1732, and a third of three squares' variance.
    expect(taperBy(wider)).toEqual({ mm: expect.closeTo(-0.2, 9), sigmaMm: expect.closeTo(0.1, 6) });
    const measured = (it: Answer): boolean => it.field === 'drop' || it.cellIndex === one;
    const alone = taperBy(answers.filter(measured)).sigmaMm;
    expect(alone / taperBy(answers).sigmaMm).toBeCloseTo(Math.sqrt(1 + others.length), 9);
  });

  it('is said to be missing where it is', () => {
    expect(find({}).missing[0]).toContain('Tap the sheet');
    expect(find({ top: ['hangs'], middle: ['hangs'], stepped: ['hangs'] }).missing[0]).toContain('more energy');
    expect(find({ top: ['clean'], middle: ['clean'], stepped: ['hangs'] }).missing[0]).toContain('both faces');
    expect(find({ top: ['clean', 0.31], middle: ['clean'], stepped: ['hangs'] }).missing[0]).toContain('in inches');
    const one = find({ top: ['hangs'], middle: ['clean'], stepped: ['hangs'] });
    expect(one.says).toContain('elsewhere not every square drops');
    expect(cutFocus.settle(one)[0]!.value.taperMm).toBeNull();
  });

  it('is where later cuts start, until it is stale', () => {
    const kept = factNow('cutFocus', { way: 'top', focusOffsetMm: 0, taperMm: 0.1 });
    expect(proposedCut({ pairing, facts: [] }).cut.focusOffsetMm).toBe(-3);
    const { cut, reasons: why } = proposedCut({ pairing, facts: [kept] });
    expect(cut.focusOffsetMm).toBe(0);
    expect(why['cut.focusOffsetMm']).toContain('straightest edge');
    expect(proposedCut({ pairing, facts: [{ ...kept, stale: ['new batch'] }] }).cut.focusOffsetMm).toBe(-3);
    const stepped = factNow('cutFocus', { way: 'stepped', focusOffsetMm: -1.5, taperMm: 0.1 });
    expect(proposedCut({ pairing, facts: [stepped] }).cut.focusOffsetMm).toBe(-3);
  });
});
