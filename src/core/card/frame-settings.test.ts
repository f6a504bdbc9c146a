import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { deliveredPowerW } from '../machine/machine';
import { responseOf } from '../stock/response';
import { cutThroughJPerMm } from '../stock/cutting';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
import { checkFrame, markingLimitJPerMm, proposeFrame } from './frame-settings';
import type { Pairing } from './contract';

const tern = demoPairing('tern', 'twoLayer');
const marl = demoPairing('marl', 'alder');
const withSpot = (on: Pairing, spotMm: number): Pairing => ({
  ...on,
  lens: { ...on.lens, spotXMm: spotMm, spotYMm: spotMm },
});

describe('how markers and lettering are burned', () => {
  // A square of a marker is 0.4 mm. Mirrors are quick, so that lines lie a tenth closer than the spot is wide: by hand.
  it.each([
    [0.02, 10, 0.04],
    [0.08, 5, 0.08],
    [0.1, 4, 0.1],
    [0.15, 2, 0.2],
    [0.5, 2, 0.2],
  ])('a spot of %f mm lays %i lines in a square, %f mm apart', (spotMm, lines, intervalMm) => {
    const { settings, reasons } = proposeFrame(withSpot(tern, spotMm));
    expect(settings.marker.intervalMm).toBeCloseTo(intervalMm, 9);
    expect(reasons.marker.startsWith(`${lines} lines for each square`)).toBe(true);
  });
  it('lays as few lines as can be told apart where the head is slow', () => {
    const slow = { ...marl, machine: { ...marl.machine, accelerationXMmPerS2: 300 } };
    expect(proposeFrame(withSpot(slow, 0.05)).settings.marker.intervalMm).toBeCloseTo(0.2, 9);
  });
  it('lays more lines in the same time where power follows speed: ramps are not run up to there', () => {
    const lines = (rampPower: 'constant' | 'follows-speed') => {
      const machine = { ...marl.machine, accelerationXMmPerS2: 12_000, rampPower };
      return proposeFrame(withSpot({ ...marl, machine }, 0.05)).settings.marker.intervalMm;
    };
    expect(lines('follows-speed')).toBeLessThan(lines('constant'));
  });
  it('goes under mirrors no faster than a late beam leaves four fifths of a square, and no faster than they can', () => {
    // A fifth of 0.4 mm in a tenth of a millisecond.
    expect(proposeFrame(tern).settings.marker.speedMmPerS).toBe(800);
    const slow = { ...tern, machine: { ...tern.machine, topSpeedXMmPerS: 500, topSpeedYMmPerS: 500 } };
    expect(proposeFrame(slow).settings.marker.speedMmPerS).toBeLessThanOrEqual(500);
  });
  it('spends the energy of a plain mark on the spot’s width, markers a fifth more', () => {
    const on = withSpot(demoPairing('marl', 'slate'), 0.1);
    const { settings } = proposeFrame(on);
    const { deep } = responseOf(on.stock, on.machine).energies;
    const lineJ = ({ powerFraction, speedMmPerS }: { powerFraction: number; speedMmPerS: number }) =>
      deliveredPowerW(on.machine, powerFraction) / speedMmPerS;
    expect(lineJ(settings.lettering) / (deep * 0.1)).toBeCloseTo(0.5, 2);
    expect(lineJ(settings.marker) / (deep * 0.1)).toBeCloseTo(0.6, 2);
    expect(settings.words).toBe('short');
  });
  it('stays under a third of what cuts through, and says so', () => {
    // Thin felt is cut by little: a plain mark would take half of it.
    const felt = demoPairing('marl', 'felt');
    const on = withSpot({ ...felt, stock: { ...felt.stock, nominalThicknessMm: 0.4, thicknessReadingsMm: [] } }, 0.3);
    expect(markingLimitJPerMm(on)).toBeCloseTo(cutThroughJPerMm(on.machine, on.stock)! / 3, 12);
    const { settings, reasons } = proposeFrame(on);
    for (const { powerFraction, speedMmPerS } of [settings.marker, settings.lettering])
      expect(deliveredPowerW(on.machine, powerFraction) / speedMmPerS).toBeLessThanOrEqual(markingLimitJPerMm(on));
    const said = /, held to a third of what cuts through \(([\d.]+) J\/mm\)$/.exec(reasons.lettering)?.[1];
    expect(Number(said) / cutThroughJPerMm(on.machine, on.stock)!).toBeCloseTo(1, 1);
    expect(checkFrame(settings, on)).toEqual([]);
    expect(proposeFrame(marl).reasons.lettering).toMatch(/^a plain mark on the spot’s [\d.]+ mm, [\d.]+ J\/mm$/);
  });
  it('knows no limit where nothing is cut', () =>
    expect(markingLimitJPerMm(demoPairing('marl', 'slate'))).toBe(Infinity));
  it('letters no faster than corners stay sharp, and as the slower axis goes', () => {
    const quick = proposeFrame(demoPairing('marl', 'slate')).settings;
    expect(quick.lettering.speedMmPerS).toBe(120);
    const slate = demoPairing('marl', 'slate');
    const lame = { ...slate, machine: { ...slate.machine, topSpeedYMmPerS: 60 } };
    expect(proposeFrame(lame).settings.lettering.speedMmPerS).toBe(60);
  });
});

describe('a frame that cannot be burned', () => {
  const on = { ...marl, machine: { ...marl.machine, likedUnits: DEFAULT_LIKED_UNITS } };
  const { powerCap, topSpeedXMmPerS } = on.machine;
  const good = { powerFraction: 0.1, speedMmPerS: 300 };
  const messages = (marker: object, lettering: object = {}) =>
    checkFrame(
      { marker: { ...good, intervalMm: 0.1, ...marker }, lettering: { ...good, ...lettering }, words: 'short' },
      on,
    ).map(({ field, message }) => `${field}: ${message}`);

  it('is told field by field', () => {
    expect(messages({})).toEqual([]);
    expect(messages({ powerFraction: 0.0049 }, { powerFraction: powerCap + 0.01 })).toEqual([
      'frame.marker.powerFraction: Marker power is 0.5 % to the machine’s cap.',
      'frame.lettering.powerFraction: Lettering power is 0.5 % to the machine’s cap.',
    ]);
    expect(messages({ speedMmPerS: 0.09 }, { speedMmPerS: topSpeedXMmPerS + 1 })).toEqual([
      'frame.marker.speedMmPerS: Marker speed is 0.1 mm/s to the head’s top speed.',
      'frame.lettering.speedMmPerS: Lettering speed is 0.1 mm/s to the head’s top speed.',
    ]);
    expect(messages({ powerFraction: 0.005, speedMmPerS: topSpeedXMmPerS })).toEqual([]);
    // So slow is taken as a speed, if not for what it burns.
    expect(messages({ powerFraction: 0.005, speedMmPerS: 0.1 }).filter((words) => /speed is/.test(words))).toEqual([]);
    for (const powerFraction of [0, NaN]) expect(messages({ powerFraction })).toHaveLength(1);
    expect(messages({ speedMmPerS: NaN })).toHaveLength(1);
  });
  it('is lines that come near cutting through', () => {
    const limit = markingLimitJPerMm(on);
    const powerFraction = 0.4;
    const speedMmPerS = deliveredPowerW(on.machine, powerFraction) / limit;
    expect(messages({}, { powerFraction, speedMmPerS: speedMmPerS * 1.01 })).toEqual([]);
    const [told] = messages({}, { powerFraction, speedMmPerS: speedMmPerS / 1.01 });
    expect(told).toMatch(
      /^frame.lettering.powerFraction: Lettering would take [\d.]+ J\/mm: over a third of what cuts through this sheet \([\d.]+ J\/mm are the most\). Lower the power or go faster.$/,
    );
  });
  it('is markers of lines too far apart to be told', () => {
    expect([messages({ intervalMm: 0.2 }), messages({ intervalMm: 0.01 })]).toEqual([[], []]);
    const why = ['frame.marker.intervalMm: Markers need two lines for each of their squares: 0.01 to 0.2 mm apart.'];
    for (const intervalMm of [0.201, 0.0099, NaN]) expect(messages({ intervalMm }), String(intervalMm)).toEqual(why);
  });
});
