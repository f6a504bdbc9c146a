import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import type { Answer, Seen } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import type { KerfPlan } from './plan';
import { cardPath } from '../../core/card/path';
import { asksOn } from '../../core/card/usual-asks';
import { kerf } from '.';

const pairing = demoPairing('marl', 'alder');
const known = { pairing, facts: [] };
let plan: KerfPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = kerf.propose(known));
  layout = layCard(kerf, plan, pairing, { cardNumber: 15 });
});

const reading = (cellIndex: number, field: string, repeat: number, value: number | string): Answer => ({
  field,
  cellIndex,
  repeat,
  value,
});

describe('the kerf squares', () => {
  it('are measured by caliper on any stock, and numbered before they are cut out', () => {
    for (const family of ['hardwood', 'rubber'])
      expect(asksOn(kerf.asks, { family }).map(({ field }) => field)).toEqual(
        expect.arrayContaining(['width-x', 'width-y']),
      );
    const parts = [...cardPath(layout, pairing.machine)].filter((step) => step.step === 'part');
    const common = parts.flatMap((part, at) => (part.name === 'common' ? [at] : []));
    const firstCell = parts.findIndex((part) => part.cells.length > 0);
    expect(common).toHaveLength(layout.before.length);
    expect(layout.before).toHaveLength(plan.count);
    for (const at of common) expect(at).toBeLessThan(firstCell);
  });
  it('give the worked example from the published guide, along the axis it was read on only', () => {
    const square = layCard(kerf, { ...plan, sizeMm: 25, count: 2 }, pairing, { cardNumber: 1 });
    // Five readings of one size: three of the first square, two of the second.
    const answers = [24.86, 24.88, 24.85, 24.87, 24.86].map((mm, n) => reading(n < 3 ? 0 : 1, 'width-x', n % 3, mm));
    const finding = kerf.find(square, { readings: [], answers }, known);
    expect(finding.missing).toEqual([]);
    expect(finding.x!.kerf.mean).toBeCloseTo(0.136, 9);
    // The caliper's stated error of 0.02 mm comes on top of the example's step alone.
    expect(finding.x!.kerf.combined).toBeCloseTo(Math.hypot(0.00586, 0.02 / Math.sqrt(3)), 4);
    expect(finding.y).toBeNull();
    const [draft] = kerf.settle(finding, square);
    expect(draft).toMatchObject({ name: 'kerf', value: { yMm: null } });
    expect(draft!.at).toEqual({
      power: plan.cut.powerFraction,
      speed: plan.cut.speedMmPerS,
      passes: plan.cut.passes,
      focus: plan.cut.focusOffsetMm,
    });
  });
  it('are told in words, with what is not measured and how sure one reading is', () => {
    const of = (...answers: Answer[]) => kerf.find(layout, { readings: [], answers }, known).says;
    const size = plan.sizeMm;
    // By one caliper's step and stated error: hypot(0.01/sqrt(12), 0.02/sqrt(3)) = 0.0119, 1.96 times that is 0.023.
    expect(of(reading(0, 'width-x', 0, size - 0.14))).toBe(
      'Kerf, full width: along X 0.14 mm ± 0.023 mm (95 %), 0.07 mm per side; along Y not measured. One reading alone shows no scatter: take more.',
    );
    expect(of(...[0, 1].map((repeat) => reading(0, 'width-x', repeat, size - 0.14)))).not.toContain('One reading');
    const both = ['width-x', 'width-y'].flatMap((field, axis) =>
      [0, 1, 2].map((repeat) => reading(0, field, repeat, size - 0.14 - 0.1 * axis)),
    );
    expect(of(...both)).toBe(
      'Kerf, full width: along X 0.14 mm ± 0.023 mm (95 %), 0.07 mm per side; along Y 0.24 mm ± 0.023 mm (95 %), 0.12 mm per side.',
    );
  });
  it('name the square whose reading stands out once, and count it all the same', () => {
    const widths = [0.14, 0.14, 0.15, 0.13, 0.9, 0.92].map((mm, n) =>
      reading(Math.floor(n / 3), 'width-x', n % 3, plan.sizeMm - mm),
    );
    const finding = kerf.find(layout, { readings: [], answers: widths }, known);
    expect(finding.x!.odd).toEqual([1]);
    expect(finding.x!.kerf.readings).toBe(6);
    const of = (index: number) =>
      finding.x!.points.flatMap(({ cellIndex, kerfMm }) => (cellIndex === index ? [Number(kerfMm.toFixed(6))] : []));
    expect([of(0), of(1)]).toEqual([
      [0.14, 0.14, 0.15],
      [0.13, 0.9, 0.92],
    ]);
  });
  it('wait to be measured, and are refused only where the readings speak against them for sure', () => {
    expect(kerf.find(layout, { readings: [], answers: [] }, known)).toMatchObject({
      missing: ['Measure the squares along X and along Y.'],
      says: '',
    });
    // Two hundredths larger lie within what one caliper cannot tell.
    const hardly = kerf.find(layout, { readings: [], answers: [reading(0, 'width-y', 0, plan.sizeMm + 0.02)] }, known);
    expect(hardly.missing).toEqual([]);
    const surely = kerf.find(layout, { readings: [], answers: [reading(0, 'width-y', 0, plan.sizeMm + 0.03)] }, known);
    expect(surely).toMatchObject({
      missing: ['The squares measure larger than they were drawn: look at the drawn size and the readings.'],
      says: '',
    });
  });
  it('leave out what did not drop, and say so when nothing did', () => {
    const seen = (word: string): Seen => ({
      readings: [],
      answers: [
        ...layout.order.map((index) => reading(index, 'width-x', 0, plan.sizeMm - 0.14)),
        reading(0, 'width-x', 0, plan.sizeMm + 2),
        ...layout.order.map((index) => reading(index, 'drop', 0, index === 0 ? 'hangs' : word)),
      ].filter(
        (one, at, all) => all.findLastIndex((b) => b.field === one.field && b.cellIndex === one.cellIndex) === at,
      ),
    });
    const good = kerf.find(layout, seen('clean'), known);
    expect(good.stuck).toEqual([0]);
    for (const word of ['knife', 'flare', 'not-through'])
      expect(kerf.find(layout, seen(word), known).stuck, word).toHaveLength(layout.order.length);
    for (const word of ['charred', 'tip']) expect(kerf.find(layout, seen(word), known).stuck, word).toEqual([0]);
    expect(good.x!.kerf.mean).toBeCloseTo(0.14, 6);
    expect(kerf.find(layout, seen('not-through'), known).missing[0]).toMatch(/No square dropped/);
  });
  it('refuse parts that measure larger than they were drawn', () => {
    const answers = layout.order.map((index) => reading(index, 'width-x', 0, plan.sizeMm + 0.3));
    expect(kerf.find(layout, { readings: [], answers }, known).missing[0]).toMatch(/larger than they were drawn/);
  });
  it('are not proposed where this source does not cut', () => {
    expect(() => kerf.propose({ pairing: demoPairing('marl', 'slate'), facts: [] })).toThrow(/not cut/);
  });
});
