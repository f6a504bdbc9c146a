import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Seen } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { thicknessOf } from '../../core/stock/stock';
import { USUAL_SLOTS_WISH } from './find';
import type { SlotsPlan } from './plan';
import { slots } from '.';

const pairing = demoPairing('marl', 'alder');
const known = { pairing, facts: [] };
const thickness = thicknessOf(pairing.stock).meanMm;
let plan: SlotsPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = slots.propose(known));
  layout = layCard(slots, plan, pairing, { cardNumber: 21 });
});

/** Answers from the narrowest slot on. */
const felt = (...fits: string[]): Seen => ({
  readings: [],
  answers: fits.map((value, cellIndex) => ({ field: 'fit', cellIndex, repeat: 0, value })),
});
const COMB = ['no', 'no', 'press', 'press', 'snug', 'snug', 'slip', 'slip', 'loose', 'loose'];

describe('a comb of slots', () => {
  it('is drawn around the measured thickness, narrower by the kerf: kept, or about what the spot burns', () => {
    expect(plan.thicknessMm).toBeCloseTo(thickness, 3);
    const guessed = Math.round(pairing.lens.spotXMm * 130) / 100;
    expect(plan.clearance.from).toBeCloseTo(-0.2 - guessed, 2);
    const kerf = factNow('kerf', { xMm: 0.3, yMm: 0.1 });
    const after = slots.propose({ pairing, facts: [kerf] });
    expect(after.plan.clearance).toMatchObject({ from: -0.5, to: -0.05 });
    expect(after.reasons['clearance.from']).toContain('0.3 mm, the kerf that was kept');
    const stale = slots.propose({ pairing, facts: [{ ...kerf, stale: ['new batch'] }] });
    expect(stale.reasons['clearance.from']).toContain('a kerf that is stale: new batch');
    const widths = layout.cells.map(({ box }) => box.width);
    expect(widths[0]).toBeCloseTo(plan.thicknessMm + plan.clearance.from, 3);
    expect(widths.at(-1)).toBeCloseTo(plan.thicknessMm + plan.clearance.to, 3);
    const coated = layCard(slots, { ...plan, coatMm: 0.1 }, pairing, { cardNumber: 21 });
    expect(coated.cells[0]!.box.width).toBeCloseTo(widths[0]! + 0.1, 3);
  });
  it('is lettered at every slot, though it has few words otherwise: it is kept as a gauge', () => {
    const numbers = layout.frame.lettering.filter(({ role }) => role === 'axis').map(({ text }) => text);
    const step = (plan.clearance.to - plan.clearance.from) / (plan.clearance.count - 1);
    layout.cells.forEach((_, k) =>
      expect(numbers.some((text) => Math.abs(parseFloat(text) - (plan.clearance.from + k * step)) < 0.006)).toBe(true),
    );
  });
  it('is closer about what a comb before it found', () => {
    const value = {
      fromMm: { press: -0.3, snug: -0.22, slip: -0.14, loose: -0.05 },
      sigmaMm: { press: 0.01, snug: 0.01, slip: 0.01, loose: 0.01 },
      scatterMm: 0.02,
      thicknessMm: 3,
    };
    expect(slots.propose({ pairing, facts: [factNow('fit', value)] }).plan.clearance).toMatchObject({
      from: -0.36,
      to: 0.01,
    });
  });
  it('says where each fit begins, how wide the wanted one is drawn, and how likely it comes out', () => {
    const finding = slots.find(layout, felt(...COMB), known, USUAL_SLOTS_WISH);
    expect(finding.missing).toEqual([]);
    const { from } = finding.bounds!;
    const step = (plan.clearance.to - plan.clearance.from) / 9;
    // Between the slots on either side, by hand.
    expect(from.snug.atMm).toBeGreaterThan(plan.clearance.from + 3 * step - 0.01);
    expect(from.snug.atMm).toBeLessThan(plan.clearance.from + 4 * step + 0.01);
    expect(from.slip.atMm).toBeGreaterThan(from.snug.atMm);
    expect(finding.drawnMm).toBeCloseTo(plan.thicknessMm + (from.snug.atMm + from.slip.atMm) / 2, 1);
    expect(finding.says).toMatch(/^A slot for 6\.\d+ mm is drawn [\d.]+ mm wide: snug in \d+ of 100\.$/);
    const thicker = slots.find(layout, felt(...COMB), known, { fit: 'snug', thicknessMm: plan.thicknessMm + 1 });
    expect(thicker.drawnMm! - finding.drawnMm!).toBeCloseTo(1, 9);
    const pressed = slots.find(layout, felt(...COMB), known, { ...USUAL_SLOTS_WISH, fit: 'press' });
    expect(pressed.drawnMm!).toBeLessThan(finding.drawnMm!);
    const [draft] = slots.settle(finding, layout);
    expect(draft).toMatchObject({ name: 'fit', at: { speed: plan.cut.speedMmPerS } });
    expect(draft!.value).toMatchObject({ thicknessMm: expect.closeTo(plan.thicknessMm, 6) });
  });
  it('waits for four slots, and says what is wrong with a comb that is all too tight or too loose', () => {
    const missing = (...fits: string[]) => slots.find(layout, felt(...fits), known, USUAL_SLOTS_WISH).missing[0];
    expect(missing('no', 'press', 'snug')).toContain('4 of them at the least');
    expect(missing(...COMB.map(() => 'no'))).toContain('make them wider');
    expect(missing(...COMB.map(() => 'loose'))).toContain('make them narrower');
    expect(slots.settle(slots.find(layout, felt(), known, USUAL_SLOTS_WISH), layout)).toEqual([]);
  });
  it('names slots that speak against narrower ones, and is less sure by them', () => {
    const crossed = COMB.with(7, 'press');
    const finding = slots.find(layout, felt(...crossed), known, USUAL_SLOTS_WISH);
    expect(finding.odd).toEqual([7]);
    const plain = slots.find(layout, felt(...COMB), known, USUAL_SLOTS_WISH);
    expect(plain.odd).toEqual([]);
    // Two neighbours that change places are what slots scatter by.
    expect(slots.find(layout, felt(...COMB.with(5, 'press')), known, USUAL_SLOTS_WISH).odd).toEqual([]);
    expect(finding.bounds!.scatterMm).toBeGreaterThan(plain.bounds!.scatterMm);
    expect(finding.chances!.snug).toBeLessThan(plain.chances!.snug);
  });
  it('has slots longer than they are wide for thick sheets too', () => {
    const thick = {
      ...pairing,
      machine: { ...pairing.machine, ratedPowerW: 400, powerTable: null },
      stock: { ...pairing.stock, thicknessReadingsMm: [14], nominalThicknessMm: 14 },
    };
    const proposed = slots.propose({ pairing: thick, facts: [] }).plan;
    expect(proposed.lengthMm).toBe(21);
    expect(slots.check(proposed, thick)).toEqual([]);
  });
  it('is not proposed for what bends', () => {
    const thin = { ...pairing, stock: { ...pairing.stock, thicknessReadingsMm: [0.8], nominalThicknessMm: 0.8 } };
    expect(() => slots.propose({ pairing: thin, facts: [] })).toThrow(
      /^invalid pairing: sheets under a millimetre bend/,
    );
    const felt = {
      ...pairing,
      stock: { ...pairing.stock, family: 'felt', type: 'wool felt', thicknessReadingsMm: [5] },
    };
    expect(() => slots.propose({ pairing: felt, facts: [] })).toThrow('invalid pairing: wool felt gives way');
  });
  it('is refused where a slot is narrower than a cut, wider than long, or its walls would give way', () => {
    const fields = (change: Partial<SlotsPlan>) =>
      slots.check({ ...plan, ...change }, pairing).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    expect(fields({ thicknessMm: 0.5 })).toEqual(['clearance.from']);
    expect(fields({ lengthMm: 3 })).toEqual(expect.arrayContaining(['lengthMm']));
    expect(fields({ lengthMm: plan.thicknessMm })).toContain('lengthMm');
    expect(fields({ gapMm: 1 })).toEqual(['gapMm']);
    expect(fields({ coatMm: -0.1 })).toEqual(['coatMm']);
    expect(fields({ clearance: { ...plan.clearance, to: 3 } })).toEqual(['clearance.to']);
  });
});
