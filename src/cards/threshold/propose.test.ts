import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { fastestUsefulMmPerS } from '../../core/card/useful-speed';
import { responseOf } from '../../core/stock/response';
import { threshold } from '.';

const birch = demoPairing('heron', 'birch');
/** Watts in proportion to the command, so that shares can be told by hand. */
const plain = (ratedPowerW: number, lowestFiringCommand = 0.001) => ({
  ...birch,
  machine: { ...birch.machine, powerTable: null, ratedPowerW, lowestFiringCommand, powerCap: 0.8 },
});
const faintOf = (pairing: typeof birch): number => responseOf(pairing.stock, pairing.machine).energies.faint;

describe('a proposed strip', () => {
  it('goes from 0.3 to 1.5 times the energy at which a mark begins, at a speed where that takes a sixth of the cap', () => {
    const pairing = plain(2);
    const { plan } = threshold.propose({ pairing, facts: [] });
    const { speedMmPerS, intervalMm } = plan.constants;
    const watts = faintOf(pairing) * intervalMm * speedMmPerS;
    expect(watts / (2 * 0.8)).toBeCloseTo(1 / 6, 2);
    expect(plan.power.from / (watts / 2)).toBeCloseTo(0.3, 1);
    expect(plan.power.to / (watts / 2)).toBeCloseTo(1.5, 1);
    expect(plan.power).toMatchObject({ count: 10, spacing: 'ratio' });
    expect(plan).toMatchObject({ way: 'strip', patchMm: 3, gapMm: 1 });
  });
  it('goes no faster than pays and no slower than 5 mm/s', () => {
    const strong = plain(4000);
    const { plan } = threshold.propose({ pairing: strong, facts: [] });
    expect(plan.constants.speedMmPerS).toBe(
      Math.round(fastestUsefulMmPerS(strong.machine, plan.constants.direction) * 10) / 10,
    );
    expect(threshold.propose({ pairing: plain(0.05), facts: [] }).plan.constants.speedMmPerS).toBe(5);
  });
  it('begins at the lowest command that fires where that is more, and reaches nearly twice as far', () => {
    const { plan, reasons } = threshold.propose({ pairing: plain(40, 0.2), facts: [] });
    expect(plan.power.from).toBe(0.2);
    expect(plan.power.to).toBeCloseTo(0.36, 9);
    expect(reasons['power.from']).toBe('the lowest command that fires, 20 %');
    const early = threshold.propose({ pairing: plain(2), facts: [] });
    expect(early.reasons['power.from']).toMatch(/^well below .* J\/mm², where plywood begins to show a mark$/);
    expect(threshold.propose({ pairing: plain(40, 0.6), facts: [] }).plan.power.to).toBe(0.8);
  });
  it('is asked at the speed of the kept setting, where there is one', () => {
    const base = threshold.propose({ pairing: birch, facts: [] });
    const settings = { ...base.plan.constants, powerFraction: 0.5, speedMmPerS: 37 };
    const engrave = factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null });
    const { plan, reasons } = threshold.propose({ pairing: birch, facts: [engrave] });
    expect(plan.constants.speedMmPerS).toBe(37);
    expect(reasons['constants.speedMmPerS']).toMatch(/a floor holds at its speed/);
    expect(base.reasons['constants.speedMmPerS']).toMatch(/about a sixth of the cap/);
  });
  it('lies closer around a floor that was found at its settings, in two rows, and elsewhere starts anew', () => {
    const pairing = plain(2);
    const { constants } = threshold.propose({ pairing, facts: [] }).plan;
    const at = { speed: constants.speedMmPerS, interval: constants.intervalMm, passes: constants.passes };
    const propose = (change: object) =>
      threshold.propose({ pairing, facts: [factNow('floor', { powerFraction: 0.1 }, { at, ...change })] });
    const { plan, reasons } = propose({});
    expect(plan.power).toEqual({ from: 0.083, to: 0.13, count: 10, spacing: 'ratio' });
    expect(plan.repeats).toBe(2);
    for (const path of ['power.from', 'power.to']) expect(reasons[path]).toMatch(/^around the floor of 10 %/);
    expect(reasons['repeats']).toMatch(/twice/);
    const first = threshold.propose({ pairing, facts: [] }).plan;
    for (const change of [
      { stale: ['new batch'] },
      { at: { ...at, speed: at.speed + 1 } },
      { at: { ...at, interval: 9 } },
      { at: { ...at, passes: 2 } },
    ])
      expect(propose(change).plan).toMatchObject({ power: first.power, repeats: 1 });
  });
});
