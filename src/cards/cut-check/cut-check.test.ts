import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Answer } from '../../core/card/asks';
import { deliveredBy } from '../../core/card/energy';
import { layCard, planProblems } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { estimateCard } from '../../core/card/estimate';
import { proposedCut } from '../../core/card/propose-cut';
import { thicknessOf } from '../../core/stock/stock';
import { kindAskedFor } from '../registry';
import type { CutCheckPlan } from './plan';
import { cutCheck } from '.';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'alder');
const { cut: settings } = proposedCut({ pairing, facts: [] });
const laidDown = deliveredBy(settings, pairing).lineJPerMm / thicknessOf(pairing.stock).meanMm;
const kept = {
  ...factNow('cut', {
    settings,
    certainty: 0.98,
    outlineMm: 24,
    thicknessMm: { from: 5, to: 6.1 },
    comesThrough: laidDown / 1.25,
    laidDown,
    edge: 'brown',
  }),
  at: { shade: 'clean' },
};
const known = { pairing, facts: [kept] };
let plan: CutCheckPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = cutCheck.propose(known));
  layout = layCard(cutCheck, plan, pairing, { cardNumber: 61 });
});
const find = (...words: string[]) => {
  const answers = words.map((value, cellIndex): Answer => ({ field: 'drop', cellIndex, repeat: 0, value }));
  return cutCheck.find(layout, { readings: [], answers }, known);
};

describe('three discs', () => {
  it('have the kept energy, and less down to little more than came through, in a few seconds', () => {
    const shares = layout.cells.map(
      (cell) =>
        deliveredBy(mainBurn(cell).settings, pairing).lineJPerMm / (laidDown * thicknessOf(pairing.stock).meanMm),
    );
    expect(shares[2]).toBeCloseTo(1, 3);
    // Of the way from 1/1.25 to 1 in the logarithm: a quarter, and three fifths.
    expect(shares[0]).toBeCloseTo(1.25 ** -0.75, 1);
    expect(shares[1]).toBeCloseTo(1.25 ** -0.4, 1);
    expect(mainBurn(layout.cells[2]!).settings).toEqual(settings);
    expect(estimateCard(layout, pairing.machine).totalS).toBeLessThan(45);
    expect(planProblems(cutCheck, { ...plan, shares: [0.9, 0.8, 1] }, pairing)[0]).toMatchObject({ field: 'shares.0' });
    expect(planProblems(cutCheck, { ...plan, shares: [0.8, 0.9, 0.95] }, pairing)[0]!.message).toContain('all of it');
  });

  it('are asked for where a kept cut went stale', () => {
    expect(kindAskedFor('cut', true, known)!.kind).toBe('cut-check');
    expect(kindAskedFor('cut', false, known)!.kind).toBe('cut');
  });
});

describe('a kept cut on another sheet', () => {
  it('still holds where all drop, and is kept as it was', () => {
    const finding = find('clean', 'clean', 'charred');
    expect(finding.verdict).toBe('holds');
    // From the least energy up, in whatever order they were burned.
    const words = ['clean', 'clean', 'charred'].map((value, cellIndex) => said('drop', cellIndex, value));
    const turned = { ...layout, order: [...layout.order].reverse() };
    for (const { discs } of [finding, cutCheck.find(turned, { readings: [], answers: words }, known)])
      expect(discs.map(({ cellIndex }) => cellIndex)).toEqual([0, 1, 2]);
    expect(finding.says).toMatch(/^The kept cut still holds: 9\d of 100 drop/);
    const [draft] = cutCheck.settle(finding);
    expect(draft).toMatchObject({ name: 'cut', at: { shade: 'clean' }, value: { settings, edge: 'brown' } });
    expect(draft!.value.laidDown).toBeCloseTo(laidDown, 9);
    // This sheet comes through with no more than the other did.
    expect(draft!.value.comesThrough).toBeLessThan(laidDown / 1.25);
  });

  it('goes slower where the weak ones hang, by what the wanted share takes', () => {
    const finding = find('hangs', 'hangs', 'clean');
    expect(finding.verdict).toBe('slower');
    const slower = finding.settings!.speedMmPerS / settings.speedMmPerS;
    expect(slower).toBeLessThan(1);
    expect(slower).toBeGreaterThan(1 / 1.4 - 0.01);
    expect(finding.shift!.dropsAt(laidDown / slower)).toBeGreaterThanOrEqual(0.979);
    const [draft] = cutCheck.settle(finding);
    expect(draft!.value.laidDown).toBeCloseTo(laidDown / slower, 6);
    expect(draft!.value.comesThrough).toBeGreaterThan(laidDown / 1.25);
  });

  it('is judged by what it lays down in this sheet, not in the one it was kept on', () => {
    const thick = { ...pairing, stock: { ...pairing.stock, thicknessReadingsMm: [7.2] } };
    const answers = ['clean', 'clean', 'clean'].map((value, cellIndex): Answer => said('drop', cellIndex, value));
    const on = cutCheck.find(layout, { readings: [], answers }, { pairing: thick, facts: [kept] });
    // The same line energy over 7.2 mm.
    expect(on.laidDown! / laidDown).toBeCloseTo(thicknessOf(pairing.stock).meanMm / 7.2, 9);
    expect(on.chance!).toBeCloseTo(on.shift!.dropsAt(on.laidDown!), 9);
    const [draft] = cutCheck.settle(on);
    expect(draft!.value.thicknessMm).toEqual({ from: 5, to: 7.2 });
    expect(draft!.value.laidDown / on.laidDown!).toBeCloseTo(
      settings.speedMmPerS / draft!.value.settings.speedMmPerS,
      9,
    );
  });

  it('starts again where none drops, and says what it cannot tell', () => {
    const none = find('not-through', 'not-through', 'not-through');
    expect(none.verdict).toBe('again');
    expect(none.says).toContain('Burn a card of cut squares');
    expect(cutCheck.settle(none)).toEqual([]);
    expect(find('clean', 'hangs', 'clean').missing[0]).toContain('knot');
    expect(find('clean', 'clean').missing[0]).toContain('Tap the sheet');
    const without = cutCheck.find(layout, { readings: [], answers: [] }, { pairing, facts: [] });
    expect(without.missing[0]).toContain('No cut is kept');
  });
});
