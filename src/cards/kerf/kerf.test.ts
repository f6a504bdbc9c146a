import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import type { Answer, Seen } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import type { KerfPlan } from './plan';
import { cardPath } from '../../core/card/path';
import { asksOn } from '../../core/card/usual-asks';
import { scaleWords, surerBy } from './find';
import { kerf } from '.';
import { tuples } from '../../../tests/support/tuples';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'alder');
const known = { pairing, facts: [] };
let plan: KerfPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = kerf.propose(known));
  layout = layCard(kerf, plan, pairing, { cardNumber: 15 });
});

const reading = (cellIndex: number, field: string, repeat: number, value: number | string): Answer =>
  said(field, cellIndex, value, repeat);

const sizeOf = (index: number): number => layout.cells[index]!.levels.size as number;

describe('the kerf squares', () => {
  it('are measured by caliper on any stock, and numbered before they are cut out', () => {
    for (const family of ['hardwood', 'rubber'])
      expect(asksOn(kerf.asks, { family }).map(({ field }) => field)).toEqual(
        expect.arrayContaining(['width-x', 'width-y', 'hole-x', 'hole-y']),
      );
    const parts = [...cardPath(layout, pairing.machine)].filter((step) => step.step === 'part');
    const common = parts.flatMap((part, at) => (part.name === 'common' ? [at] : []));
    const firstCell = parts.findIndex((part) => part.cells.length > 0);
    expect(common).toHaveLength(layout.before.length);
    expect(layout.before).toHaveLength(2 * plan.count);
    for (const at of common) expect(at).toBeLessThan(firstCell);
  });
  it('give the worked example from the published guide, along the axis it was read on only', () => {
    const square = layCard(kerf, { ...plan, sizeMm: 25, smallMm: null, count: 2 }, pairing, { cardNumber: 1 });
    // Five readings of one size: three of the first square, two of the second.
    const answers = [24.86, 24.88, 24.85, 24.87, 24.86].map((mm, n) => reading(n < 3 ? 0 : 1, 'width-x', n % 3, mm));
    const finding = kerf.find(square, { readings: [], answers }, known);
    expect(finding.missing).toEqual([]);
    expect(finding.x!.kerf.mean).toBeCloseTo(0.136, 9);
    // The caliper's stated error of 0.02 mm comes on top of the example's step alone, and an axis that is off by a thousandth.
    expect(finding.x!.kerf.combined).toBeCloseTo(Math.hypot(0.00586, 0.02 / Math.sqrt(3), 0.025), 4);
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
    // By one caliper's step and stated error, hypot(0.01/sqrt(12), 0.02/sqrt(3)), and a thousandth of 20 mm: 0.0233, 1.96 times that is 0.046.
    expect(of(reading(0, 'width-x', 0, size - 0.14))).toBe(
      `Kerf, full width: along X 0.14 mm ± 0.046 mm (95 %), 0.07 mm per side; along Y not measured. One reading alone shows no scatter: take more.`,
    );
    expect(of(...[0, 1].map((repeat) => reading(0, 'width-x', repeat, size - 0.14)))).not.toContain('One reading');
    const both = ['width-x', 'width-y'].flatMap((field, axis) =>
      [0, 1, 2].map((repeat) => reading(0, field, repeat, size - 0.14 - 0.1 * axis)),
    );
    expect(of(...both)).toBe(
      `Kerf, full width: along X 0.14 mm ± 0.046 mm (95 %), 0.07 mm per side; along Y 0.24 mm ± 0.046 mm (95 %), 0.12 mm per side.`,
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
    expect([of(0), of(1)]).toEqual(tuples([0.14, 0.14, 0.15], [0.13, 0.9, 0.92]));
  });
  it('wait to be measured, and are refused only where the readings speak against them for sure', () => {
    expect(kerf.find(layout, { readings: [], answers: [] }, known)).toMatchObject({
      missing: ['Measure the squares along X and along Y.'],
      says: '',
    });
    // Four hundredths larger lie within what caliper and axis cannot tell.
    const hardly = kerf.find(layout, { readings: [], answers: [reading(0, 'width-y', 0, plan.sizeMm + 0.04)] }, known);
    expect(hardly.missing).toEqual([]);
    const surely = kerf.find(layout, { readings: [], answers: [reading(0, 'width-y', 0, plan.sizeMm + 0.05)] }, known);
    expect(surely).toMatchObject({
      missing: [expect.stringMatching(/^What was cut measures as if the cut had added something/)],
      says: '',
    });
  });
  it('ask again about readings in another unit, and about those that are none', () => {
    const of = (mm: number) =>
      kerf.find(layout, { readings: [], answers: [reading(0, 'width-x', 0, mm)] }, known).missing;
    expect(of(0.781)).toEqual([
      'Square 1: 0.781 mm is 25 times less than the 20 mm that were drawn: in inches? Then type 0.781 in.',
    ]);
    expect(of(504)).toEqual([
      'Square 1: 504 mm is 25 times the 20 mm that were drawn: in millimetres? Then type 19.843 mm.',
    ]);
    expect(of(3)).toEqual(['Square 1: 3 mm is far from the 20 mm that were drawn: measure again.']);
  });
  it('and their holes tell the kerf by what they differ, each named where it stands out among its own', () => {
    const sides = (cell: number, off = 0) =>
      [0, 1].flatMap((repeat) => {
        const mm = layout.cells[cell]!.levels.size as number;
        // A caliper whose jaws are off by 0.03 mm both, and an axis that goes a tenth of a millimetre too far in 20.
        const goes = mm * 1.005 + 0.03;
        return [
          reading(cell, 'width-x', repeat, goes - 0.15),
          reading(cell, 'hole-x', repeat, goes + 0.15 + (repeat === 1 ? off : 0)),
        ];
      });
    const answers = [0, 1, 2, 3].flatMap((cell) => sides(cell, cell === 3 ? 0.4 : 0));
    const finding = kerf.find(layout, { readings: [], answers }, known);
    expect(finding.x).toMatchObject({ odd: [3], sides: 'both' });
    const pointsOf = (of: 'part' | 'hole') =>
      finding.x!.points.filter(({ cellIndex, side }) => cellIndex === 0 && side === of).map(({ kerfMm }) => kerfMm);
    // By what it lacks, and by what it has too much: 20 mm x 1.005 and 0.03 mm are 0.13 too much.
    expect(pointsOf('part')).toEqual([expect.closeTo(0.15 - 0.13, 9), expect.closeTo(0.15 - 0.13, 9)]);
    expect(pointsOf('hole')).toEqual([expect.closeTo(0.15 + 0.13, 9), expect.closeTo(0.15 + 0.13, 9)]);
    const plain = kerf.find(layout, { readings: [], answers: [0, 1, 2, 3].flatMap((cell) => sides(cell)) }, known);
    expect(plain.x!.kerf.mean).toBeCloseTo(0.15, 6);
    expect(surerBy(plain.x!)).toContain('would not halve the doubt');
    expect(surerBy({ ...plain.x!, halvedBy: 3 })).toBe('About 32 readings more would halve the doubt.');
    expect(surerBy({ ...plain.x!, sides: 'part' })).toMatch(/^Measure the holes too/);
    expect(surerBy({ ...plain.x!, sides: 'hole' })).toMatch(/^Measure the squares too/);
    // Far more than an axis is usually off by, but what was read says so.
    expect(plain.x!.scale!.mean).toBeGreaterThan(0.004);
    expect(scaleWords(plain.x!)).toMatch(/^0\.\d+ mm in 100 mm too far, ± /);
    expect(scaleWords({ ...plain.x!, scale: null })).toBeNull();
    expect(scaleWords({ ...plain.x!, scale: { mean: -0.0004, expanded95: 0.0005 } })).toBe(
      'true, to 0.05 mm in 100 mm',
    );
    expect(scaleWords({ ...plain.x!, scale: { mean: -0.0006, expanded95: 0.0005 } })).toBe(
      '0.06 mm in 100 mm too short, ± 0.05 mm',
    );
  });
  it('leave out what did not drop, and say so when nothing did', () => {
    const seen = (word: string): Seen => ({
      readings: [],
      answers: [
        ...layout.order.map((index) => reading(index, 'width-x', 0, sizeOf(index) - 0.14)),
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
  it('have one size where they were planned before there were two', () => {
    const { smallMm: _none, ...older } = { ...plan, version: 2 };
    expect(kerf.upgrade(older)).toEqual({ ...plan, smallMm: null });
    expect(layCard(kerf, kerf.upgrade(older), pairing, { cardNumber: 1 }).cells).toHaveLength(plan.count);
  });
  it('are not proposed where this source does not cut', () => {
    expect(() => kerf.propose({ pairing: demoPairing('marl', 'slate'), facts: [] })).toThrow(/not cut/);
  });
});
