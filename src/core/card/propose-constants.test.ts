import { describe, expect, it } from 'vitest';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { FactNow } from '../book/facts';
import { deliveredPowerW, type Machine } from '../machine/machine';
import { FAMILIES } from '../stock/families';
import { responseOf } from '../stock/response';
import type { Stock } from '../stock/stock';
import { widthAcross } from './mark-across';
import { proposeConstants } from './propose-constants';
import { withMachineFacts } from './propose-machine-facts';
import { proposeFill } from './propose-fill';
import { PLAIN_EXTRAS, type BurnSettings } from './settings';
import { fastestUsefulMmPerS } from './useful-speed';

const MM_PER_INCH = 25.4;

/** A pairing of another source, spot and family than the demo has. */
function on(sourceKind: Machine['sourceKind'], spotMm: number, family: string, grain: 'none' | 'along-width' = 'none') {
  const { machine, lens, stock } = demoPairing('marl', 'mdf');
  return {
    machine: { ...machine, sourceKind },
    lens: { ...lens, spotXMm: spotMm, spotYMm: spotMm },
    stock: { ...stock, family, type: '', grain },
  };
}
const intervalOf = (pairing: ReturnType<typeof on>): number =>
  proposeConstants({ pairing, facts: [] }).constants.intervalMm;

describe('the interval to start from', () => {
  // Common practice: a fine diode marks wood wider than its spot, 190 to 290 lines per inch.
  it.each([0.05, 0.06, 0.08, 0.1])(
    'is 190 to 290 lines per inch on wood under a diode with a spot of %f mm',
    (spot) => {
      const perInch = MM_PER_INCH / intervalOf(on('blue-diode', spot, 'plywood'));
      expect(perInch).toBeGreaterThanOrEqual(190);
      expect(perInch).toBeLessThanOrEqual(290);
    },
  );
  // Common practice: coats and plastics mark no wider than the spot, nor does ultraviolet light; lines lie 0.8 to 1.2 marks apart.
  it.each([
    ['uv', 0.02, 'plywood'],
    ['uv', 0.02, 'two-layer'],
    ['fibre', 0.03, 'leatherette'],
    ['fibre', 0.04, 'two-layer'],
    ['co2-rf', 0.08, 'tile'],
    ['co2-rf', 0.12, 'acrylic-cast'],
    ['co2-glass', 0.2, 'coated-clear'],
  ] as const)('lies 0.8 to 1 marks apart under %s, %f mm, on %s', (source, spot, family) => {
    const marks = intervalOf(on(source, spot, family)) / spot;
    expect(marks).toBeGreaterThanOrEqual(0.79);
    expect(marks).toBeLessThanOrEqual(1 + 1e-9);
  });
  it('leaves no unlit gap on any stock under any source', () => {
    for (const { id } of FAMILIES)
      for (const source of ['blue-diode', 'co2-glass', 'co2-rf', 'fibre', 'uv'] as const)
        for (const spot of [0.015, 0.0234, 0.03, 0.0432, 0.05, 0.0618, 0.08, 0.113, 0.13, 0.2, 0.35]) {
          const pairing = on(source, spot, id);
          const { constants, reasons } = proposeConstants({ pairing, facts: [] });
          const { markMm } = widthAcross(pairing, constants.direction);
          expect(constants.intervalMm, `${id} ${source} ${spot}`).toBeLessThanOrEqual(markMm + 1e-9);
          expect(constants.intervalMm).toBeGreaterThan(0.3 * spot);
          expect(reasons['constants.intervalMm']).toMatch(/usual for|spot/);
        }
  });
  it('is a whole number of steps, the widest that leaves no gap: 5 µm where marks are wide, 1 µm where they are fine', () => {
    // Coats and plastics mark as wide as the spot, and their usual interval is wider than these.
    expect(intervalOf(on('fibre', 0.0437, 'two-layer'))).toBe(0.043);
    expect(intervalOf(on('fibre', 0.0599, 'two-layer'))).toBe(0.059);
    expect(intervalOf(on('fibre', 0.0687, 'two-layer'))).toBe(0.065);
  });
  it('goes by the spot across the lines, not along them', () => {
    const pairing = on('blue-diode', 0.05, 'two-layer');
    const oblong = { ...pairing, lens: { ...pairing.lens, spotXMm: 0.3 } };
    expect(intervalOf(oblong)).toBe(intervalOf(pairing));
    const turned = on('blue-diode', 0.05, 'plywood', 'along-width');
    // Lines along Y: now the spot along X is across them.
    const { machine } = turned;
    const quick = { ...turned, machine: { ...machine, accelerationYMmPerS2: machine.accelerationXMmPerS2 } };
    expect(intervalOf({ ...quick, lens: { ...quick.lens, spotXMm: 0.3 } })).toBeGreaterThan(2 * intervalOf(quick));
  });
});

describe('constants to start from', () => {
  const { machine } = demoPairing('heron', 'birch');
  const kept: BurnSettings = {
    ...PLAIN_FILL,
    powerFraction: 0.4,
    speedMmPerS: 60,
    intervalMm: 0.137,
    passes: 2,
    focusOffsetMm: 0.75,
    air: 'on',
  };
  const engrave = factNow('engrave', { settings: kept, lightness: null, lightnessSigma: null, confidence: null });
  const interval = factNow('interval', { intervalMm: 0.161 });
  const focus = factNow('focus', { focusOffsetMm: -1.25, flat: false });
  const pairing = demoPairing('heron', 'birch');
  const from = (...facts: FactNow[]) => proposeConstants({ pairing, facts });
  const stale = <Fact extends FactNow>(fact: Fact): FactNow => ({ ...fact, stale: ['the lens was changed'] });

  it('are as the kept engraving setting, passes and focus too, while it holds', () => {
    const { constants, reasons } = from(engrave);
    expect(constants).toMatchObject({ intervalMm: 0.137, passes: 2, focusOffsetMm: 0.75 });
    for (const field of ['intervalMm', 'passes', 'focusOffsetMm'])
      expect(reasons[`constants.${field}`]).toBe('as the kept engraving setting');
    expect(from(stale(engrave)).constants).toEqual(from().constants);
  });
  it('follow the cards that asked for interval or focus alone before that, while they hold', () => {
    const { constants, reasons } = from(engrave, interval, focus);
    expect(constants).toMatchObject({ intervalMm: 0.161, passes: 2, focusOffsetMm: -1.25 });
    expect(reasons['constants.intervalMm']).toBe('as found by the interval card');
    expect(reasons['constants.focusOffsetMm']).toBe('as found by the focus card');
    expect(from(engrave, stale(interval), stale(focus)).constants).toEqual(from(engrave).constants);
    expect(from().constants).toMatchObject({ passes: 1, focusOffsetMm: 0, bothWays: true, ...PLAIN_EXTRAS });
  });
  it('have the family’s air as far as the machine has it: low air that can only be full is better off', () => {
    const airOf = (family: string, airAssist: Machine['airAssist']) => {
      const base = on('co2-glass', 0.1, family);
      return proposeConstants({ pairing: { ...base, machine: { ...base.machine, airAssist } }, facts: [] });
    };
    const likesLow = FAMILIES.find(({ air }) => air === 'low')!;
    const likesFull = FAMILIES.find(({ air }) => air === 'on')!;
    expect(airOf(likesLow.id, 'adjustable').constants.air).toBe('low');
    expect(airOf(likesLow.id, 'on-off').constants.air).toBe('off');
    expect(airOf(likesLow.id, 'on-off').reasons['constants.air']).toMatch(/would like low air/);
    expect(airOf(likesFull.id, 'on-off').constants.air).toBe('on');
    expect(airOf(likesFull.id, 'on-off').reasons['constants.air']).toBe(likesFull.airReason);
    expect(airOf(likesFull.id, 'none').constants.air).toBe('off');
  });
  it('run across the grain unless the head is much slower that way, and along X where there is none', () => {
    const runs = (family: string, grain: Stock['grain'], accelerationYMmPerS2: number) => {
      const base = demoPairing('heron', 'birch');
      const { constants, reasons } = proposeConstants({
        pairing: {
          ...base,
          machine: { ...machine, accelerationXMmPerS2: 4000, accelerationYMmPerS2 },
          stock: { ...base.stock, family, grain },
        },
        facts: [],
      });
      return `${constants.direction}: ${reasons['constants.direction']}`;
    };
    expect(runs('plywood', 'along-width', 2000)).toBe('vertical: across the grain');
    expect(runs('plywood', 'along-width', 1999)).toMatch(/^horizontal: along X: across the grain would be better/);
    expect(runs('plywood', 'along-depth', 2000)).toBe('horizontal: across the grain');
    expect(runs('plywood', 'none', 2000)).toBe('horizontal: along X, the axis that moves the lighter part');
    expect(runs('mdf', 'along-width', 2000)).toBe('horizontal: along X, the axis that moves the lighter part');
  });
});

describe('a fill to try other things with', () => {
  const pairing = demoPairing('heron', 'birch');
  const { machine, stock } = pairing;
  it('leaves half the energy past which the family gets no darker, no faster than pays and no stronger than the cap', () => {
    const { settings, reasons } = proposeFill({ pairing, facts: [] });
    const { deep } = responseOf(stock, machine).energies;
    const energy = deliveredPowerW(machine, settings.powerFraction) / settings.speedMmPerS / settings.intervalMm;
    expect(energy / (deep / 2)).toBeGreaterThan(0.97);
    expect(energy / (deep / 2)).toBeLessThan(1.03);
    expect(settings.speedMmPerS).toBeLessThanOrEqual(fastestUsefulMmPerS(machine, settings.direction));
    expect(settings.powerFraction).toBeLessThanOrEqual(machine.powerCap);
    // It is the energy that holds it back here: seven tenths of the cap.
    expect(settings.powerFraction).toBeCloseTo(0.7 * machine.powerCap, 2);
    expect(reasons['constants.powerFraction']).toMatch(/a guess at a medium mark on plywood/);
  });
  it('goes as fast as pays where power is plenty, with no less power than fires', () => {
    const strong = { ...machine, ratedPowerW: 400, lowestFiringCommand: 0.3 };
    const { settings } = proposeFill({ pairing: { ...pairing, machine: strong }, facts: [] });
    expect(settings.speedMmPerS).toBe(Math.round(fastestUsefulMmPerS(strong, settings.direction)));
    expect(settings.powerFraction).toBeCloseTo(0.33, 9);
  });
  it('is the kept setting where there is one, under today’s cap', () => {
    const settings = { ...proposeFill({ pairing, facts: [] }).settings, powerFraction: 0.9, speedMmPerS: 33 };
    const fact = factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null });
    const { settings: found, reasons } = proposeFill({ pairing, facts: [fact] });
    expect(found).toMatchObject({ powerFraction: machine.powerCap, speedMmPerS: 33 });
    expect(reasons['constants.speedMmPerS']).toBe('as the kept engraving setting');
  });
  it('is not proposed where the light does nothing', () => {
    const clear = { ...pairing, stock: { ...stock, family: 'glass', type: '' } };
    expect(() => proposeFill({ pairing: clear, facts: [] })).toThrow(/^invalid pairing: bare glass/);
  });
});

describe('what was measured of the machine', () => {
  const pairing = demoPairing('heron', 'birch');
  const { constants } = proposeConstants({ pairing, facts: [] });
  const lag = factNow(
    'lag',
    { lagS: 0.0001, standingMm: -0.005, fromMmPerS: 50, toMmPerS: 200 },
    { at: { direction: 'horizontal' } },
  );
  const runUp = factNow('runUp', { runUpMm: 6, speedMmPerS: 200 }, { at: { direction: 'horizontal' } });
  const on = (facts: FactNow[], change: object = {}, of = pairing) => {
    const plain = { ...constants, direction: 'horizontal' as const, ...change };
    const told = withMachineFacts(plain, { pairing: of, facts }, 100);
    const changed = Object.entries(told.constants).filter(
      ([field, value]) => value !== plain[field as keyof typeof plain],
    );
    return { ...Object.fromEntries(changed), reasons: Object.keys(told.reasons) };
  };
  it('is taken for lines along its axis, each with the reason, and nothing is said of what was not', () => {
    expect(on([])).toEqual({ reasons: [] });
    expect(on([lag])).toEqual({ scanOffsetMm: -0.025, reasons: ['constants.scanOffsetMm'] });
    expect(on([runUp])).toEqual({ runUpMm: 1.5, reasons: ['constants.runUpMm'] });
    expect(on([lag, runUp], { direction: 'vertical' })).toEqual({ reasons: [] });
  });
  it('leaves out the scan offset of lines that run one way, and run-up where the controller adds it or mirrors have none', () => {
    expect(on([lag], { bothWays: false })).toEqual({ reasons: [] });
    for (const change of [{ addsRunUp: true }, { head: 'galvo' as const }])
      expect(on([runUp], {}, { ...pairing, machine: { ...pairing.machine, ...change } })).toEqual({ reasons: [] });
  });
});
