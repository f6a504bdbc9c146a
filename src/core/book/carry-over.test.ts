import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { arealEnergyJPerMm2 } from '../quantities/energy';
import { deliveredPowerW } from '../machine/machine';
import type { BurnSettings } from '../card/settings';
import { responseOf } from '../stock/response';
import { carrySettings } from './carry-over';

const heron = demoPairing('heron', 'leather');
const withMachine = (change: object) => ({ ...heron, machine: { ...heron.machine, ...change } });
/** J/mm² by hand: watts over speed and interval. */
const areal = (settings: BurnSettings, on: typeof heron): number =>
  arealEnergyJPerMm2(
    deliveredPowerW(on.machine, settings.powerFraction),
    settings.speedMmPerS,
    settings.intervalMm,
    settings.passes,
  );

describe('a setting carried to another bench', () => {
  it('keeps its energy and speed on a weaker machine, by more power', () => {
    const weaker = withMachine({ name: 'Wren', ratedPowerW: 5 });
    const { settings, reasons } = carrySettings(PLAIN_FILL, heron, weaker);
    // 20 % of 10 W are 40 % of 5 W.
    expect(settings.powerFraction).toBeCloseTo(0.4, 3);
    expect(settings.speedMmPerS).toBe(100);
    expect(areal(settings, weaker)).toBeCloseTo(areal(PLAIN_FILL, heron), 3);
    expect(reasons).toEqual(['the same 0.2 J/mm²']);
  });
  it('goes slower where the cap gives no more, and faster where nothing weaker fires', () => {
    const tiny = withMachine({ name: 'Wren', ratedPowerW: 1, powerCap: 0.8 });
    const slow = carrySettings(PLAIN_FILL, heron, tiny);
    expect(slow.settings.powerFraction).toBeCloseTo(0.8, 6);
    expect(slow.settings.speedMmPerS).toBeCloseTo(40, 6);
    expect(areal(slow.settings, tiny)).toBeCloseTo(areal(PLAIN_FILL, heron), 3);
    expect(slow.reasons.join()).toContain('slower');
    const huge = withMachine({ name: 'Gannet', ratedPowerW: 200, lowestFiringCommand: 0.1, topSpeedXMmPerS: 2000 });
    const fast = carrySettings(PLAIN_FILL, heron, huge);
    expect(fast.settings.speedMmPerS).toBeGreaterThan(1000);
    expect(areal(fast.settings, huge)).toBeCloseTo(areal(PLAIN_FILL, heron), 1);
    expect(fast.reasons.join()).toContain('faster');
  });
  it('says so where no setting of that machine gives the energy that is wanted', () => {
    // 200 W fire at 20 W or more; at 250 mm/s and 0.1 mm that is 0.8 J/mm² where 0.2 are wanted.
    const brute = withMachine({ name: 'Gannet', ratedPowerW: 200, lowestFiringCommand: 0.1 });
    const { reasons, settings } = carrySettings(PLAIN_FILL, heron, brute);
    expect(areal(settings, brute)).toBeGreaterThan(0.7);
    expect(reasons[0]).toMatch(/^careful: 0\.84 J\/mm² instead of 0\.2/);
  });
  it('scales by what the two stocks take for their darkest mark', () => {
    const birch = demoPairing('heron', 'birch');
    const { settings } = carrySettings(PLAIN_FILL, heron, birch);
    const wanted =
      (areal(PLAIN_FILL, heron) * responseOf(birch.stock, birch.machine).energies.deep) /
      responseOf(heron.stock, heron.machine).energies.deep;
    expect(areal(settings, birch)).toBeCloseTo(wanted, 2);
  });
  it('says by how much two stocks differ, in their own numbers', () => {
    const birch = demoPairing('heron', 'birch');
    const there = responseOf(birch.stock, birch.machine).energies.deep;
    const here = responseOf(heron.stock, heron.machine).energies.deep;
    const [because] = carrySettings(PLAIN_FILL, heron, birch).reasons;
    const told =
      /^energy ([\d.]+) times as before: plywood under this source darkens at ([\d.]+) J\/mm², the other at ([\d.]+)$/.exec(
        because!,
      )!;
    expect(Number(told[1])).toBeCloseTo(there / here, 1);
    expect([Number(told[2]), Number(told[3])]).toEqual([there, here].map((one) => Number(one.toPrecision(2))));
  });
  it('has nothing to compare with where the old source could not mark its stock: the energy stays', () => {
    const blind = demoPairing('heron', 'acrylic');
    const { reasons, settings } = carrySettings(PLAIN_FILL, blind, heron);
    expect(reasons).toEqual(['the same 0.2 J/mm²']);
    expect(areal(settings, heron)).toBeCloseTo(0.2, 3);
  });
  it('shares the energy of crossed lines between both ways', () => {
    const tern = demoPairing('tern', 'twoLayer');
    const crossed = { ...PLAIN_FILL, intervalMm: 0.02, powerFraction: 0.4, crossHatch: true };
    const { settings, reasons } = carrySettings(crossed, tern, tern);
    expect(settings).toMatchObject({ powerFraction: 0.4, speedMmPerS: PLAIN_FILL.speedMmPerS });
    expect(reasons.join()).not.toContain('careful');
  });
  it('goes at the other head’s top speed where the old one was faster, and says so', () => {
    const slow = withMachine({ name: 'Wren', topSpeedXMmPerS: 60, topSpeedYMmPerS: 60 });
    const { settings, reasons } = carrySettings(PLAIN_FILL, heron, slow);
    expect(settings.speedMmPerS).toBe(60);
    expect(reasons[1]).toMatch(/^at this head’s top speed of 3600 mm\/min$/);
    expect(areal(settings, slow)).toBeCloseTo(0.2, 3);
  });
  it('keeps two decimals of slow speeds, one of quick ones', () => {
    const at = (ratedPowerW: number) =>
      carrySettings(PLAIN_FILL, heron, withMachine({ name: 'Wren', ratedPowerW, powerCap: 1 })).settings.speedMmPerS;
    // 0.2 J/mm² at 0.1 mm take 0.02 J/mm: 0.1337 W go 6.685 mm/s, 0.3337 W go 16.685.
    expect([at(0.1337), at(0.3337), at(0.2)]).toEqual([6.69, 16.7, 10]);
  });
  it('lays lines no wider apart than a finer lens marks, at the same energy', () => {
    const fine = { ...heron, lens: { ...heron.lens, name: 'fine', spotXMm: 0.02, spotYMm: 0.02 } };
    const wide = { ...PLAIN_FILL, intervalMm: 0.2, focusOffsetMm: -1 };
    const { settings, reasons } = carrySettings(wide, heron, fine);
    expect(settings.intervalMm).toBeLessThan(0.1);
    expect(areal(settings, fine)).toBeCloseTo(areal(wide, heron), 3);
    // A focus offset belongs to the lens that it was found with.
    expect(settings.focusOffsetMm).toBe(0);
    expect(reasons).toContain('focus offset back to 0: the old one belongs to its lens');
    expect(reasons.find((words) => words.startsWith('lines'))).toBe(
      `lines ${settings.intervalMm} mm apart: as wide as this lens marks`,
    );
    expect(carrySettings({ ...wide, focusOffsetMm: 0 }, heron, fine).reasons.join()).not.toContain('focus');
  });
  it('keeps run-up, scan offset and longer dots on the machine that they belong to, and nowhere else', () => {
    const own = { ...PLAIN_FILL, runUpMm: 4, scanOffsetMm: 0.12, lengthenMm: 0.02 };
    const there = carrySettings(own, heron, withMachine({ name: 'Wren', ratedPowerW: 5 })).settings;
    expect(there).toMatchObject({ runUpMm: null, scanOffsetMm: 0, lengthenMm: 0 });
    expect(carrySettings(own, heron, demoPairing('heron', 'birch')).settings).toMatchObject({
      runUpMm: 4,
      scanOffsetMm: 0.12,
      lengthenMm: 0.02,
    });
  });
  it('keeps a focus offset with its lens', () => {
    const raised = carrySettings({ ...PLAIN_FILL, focusOffsetMm: 1.5 }, heron, demoPairing('heron', 'birch'));
    expect(raised.settings.focusOffsetMm).toBe(1.5);
    expect(raised.reasons.join()).not.toContain('focus offset');
  });
  it('turns and crosses lines under mirrors only, and pulses within their source’s range only', () => {
    const tern = demoPairing('tern', 'twoLayer');
    const turned = { ...PLAIN_FILL, lineAngleDeg: 30, crossHatch: true, frequencyKHz: 40 };
    expect(carrySettings(turned, tern, tern).settings).toMatchObject({
      lineAngleDeg: 30,
      crossHatch: true,
      frequencyKHz: 40,
    });
    const gantry = carrySettings(turned, tern, demoPairing('marl', 'twoLayer')).settings;
    expect(gantry).toMatchObject({ lineAngleDeg: 0, crossHatch: false, frequencyKHz: null });
    const pulsed = (frequencyKHz: number) =>
      carrySettings({ ...turned, frequencyKHz }, tern, tern).settings.frequencyKHz;
    expect([19, 20, 80, 81].map(pulsed)).toEqual([null, 20, 80, null]);
    expect(carrySettings({ ...turned, frequencyKHz: null }, tern, tern).settings.frequencyKHz).toBeNull();
  });
  it('blows as much as the other machine can', () => {
    const air = (airAssist: string, wanted: BurnSettings['air']) => {
      const { settings, reasons } = carrySettings({ ...PLAIN_FILL, air: wanted }, heron, withMachine({ airAssist }));
      expect(reasons.some((words) => words.startsWith('air '))).toBe(settings.air !== wanted);
      return settings.air;
    };
    expect((['off', 'low', 'on'] as const).map((wanted) => air('none', wanted))).toEqual(['off', 'off', 'off']);
    expect((['off', 'low', 'on'] as const).map((wanted) => air('on-off', wanted))).toEqual(['off', 'off', 'on']);
    expect((['off', 'low', 'on'] as const).map((wanted) => air('adjustable', wanted))).toEqual(['off', 'low', 'on']);
  });
  it('is refused where the other source cannot mark that stock', () => {
    expect(() => carrySettings(PLAIN_FILL, heron, demoPairing('heron', 'acrylic'))).toThrow(/^invalid pairing: ./);
  });
});
