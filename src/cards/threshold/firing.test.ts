import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import type { Answer, Seen } from '../../core/card/asks';
import { layCard, planProblems } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { responseOf } from '../../core/stock/response';
import type { ThresholdPlan } from './plan';
import { MARK_FIELD } from './asks';
import { followWay, wouldHaveMarked } from './firing';
import { threshold } from '.';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'alder');
const { machine } = pairing;
const usual = threshold.propose({ pairing, facts: [] }).plan;
let plan: ThresholdPlan;
let layout: Layout;
beforeEach(() => {
  plan = followWay({ ...usual, way: 'firing' }, 'way', usual, pairing);
  layout = layCard(threshold, plan, pairing, { cardNumber: 9 });
});
const powerOf = (index: number): number => mainBurn(layout.cells[index]!).settings.powerFraction;
/** An eye that sees a mark wherever the source fired. */
const firedFrom = (command: number): Seen => ({
  readings: [],
  answers: layout.cells.map(({ index }): Answer =>
    said(MARK_FIELD, index, powerOf(index) >= command ? 'marked' : 'nothing'),
  ),
});

describe('a strip that asks for the source’s own least command', () => {
  it('goes from half to one and a half of what the record has, so slowly that what fires marks deep', () => {
    expect(planProblems(threshold, plan, pairing)).toEqual([]);
    const least = machine.lowestFiringCommand;
    expect(plan.power.from / least).toBeCloseTo(0.5, 2);
    expect(plan.power.to / least).toBeCloseTo(1.5, 2);
    // By hand: rated watts times command over speed and interval.
    const { speedMmPerS, intervalMm } = plan.constants;
    const { deep } = responseOf(pairing.stock, machine).energies;
    expect((machine.ratedPowerW * 0.7 * least) / (speedMmPerS * intervalMm) / deep).toBeCloseTo(1, 1);
    expect(wouldHaveMarked(0.75 * least, plan.constants, pairing)).toBe(true);
    expect(wouldHaveMarked(0.6 * least, plan.constants, pairing)).toBe(false);
    expect(wouldHaveMarked(least, usual.constants, pairing)).toBe(false);
  });
  it('is left again for the usual strip, and nothing follows from other fields', () => {
    expect(followWay({ ...plan, way: 'strip' }, 'way', plan, pairing)).toEqual(usual);
    expect(followWay({ ...plan, way: 'search' }, 'way', plan, pairing)).toEqual({ ...usual, way: 'search' });
    const wider = { ...plan, gapMm: 2 };
    expect(followWay(wider, 'gapMm', plan, pairing)).toBe(wider);
    // A plan of another way, of which another field was changed, and one whose way was only typed again.
    const firing = { ...usual, way: 'firing' as const };
    expect(followWay(firing, 'gapMm', usual, pairing)).toBe(firing);
    expect(followWay(wider, 'way', plan, pairing)).toBe(wider);
    const searching = { ...usual, way: 'search' as const };
    expect(followWay(searching, 'way', usual, pairing)).toBe(searching);
  });
  it('looks around five per cent where the record knows of none', () => {
    const unsaid = { ...pairing, machine: { ...machine, lowestFiringCommand: 0 } };
    const { power } = followWay({ ...usual, way: 'firing' }, 'way', usual, unsaid);
    expect([power.from, power.to]).toEqual([0.025, 0.075]);
  });
  it('tells where it begins to fire, keeps that of the machine, and says nothing of the stock', () => {
    const command = machine.lowestFiringCommand * 1.02;
    const found = threshold.find(layout, firedFrom(command), { pairing, facts: [] });
    expect(found).toMatchObject({ floor: null, machineFloor: true, missing: [] });
    expect(found.firing!.power / command).toBeCloseTo(1, 1);
    expect(found.says).toMatch(
      /^The source begins to fire at about .* \(95 % sure: .* to .*\): below it patches had light enough/,
    );
    expect(found.says).not.toMatch(/record says/);
    const [fact, ...others] = threshold.settle(found, layout);
    expect(others).toEqual([]);
    expect(fact).toMatchObject({ name: 'firing', at: {}, value: { command: found.firing!.power }, cellIndex: null });
    const { low, high, power } = found.firing!;
    expect(fact!.sigma).toBeCloseTo(Math.max(power - low!, high! - power) / 2, 12);
  });
  it('points out a record that is wrong', () => {
    const late = threshold.find(layout, firedFrom(machine.lowestFiringCommand * 1.35), { pairing, facts: [] });
    expect(late.says).toMatch(/The machine’s record says .*: change it there\.$/);
  });
  it('is about the stock where what stayed bare had too little light', () => {
    const early = threshold.find(layout, firedFrom(machine.lowestFiringCommand * 0.6), { pairing, facts: [] });
    expect(early.firing).toBeNull();
    expect(early.floor).not.toBeNull();
  });
});
