import { describe, expect, it } from 'vitest';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { demoPairing } from '../../../stand-ins/demo';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
import { CHANNELS, letterOf, levelWords, signed } from './channels';
import { checkConstants, checkPower, checkSettings, checkSpeed } from './check-settings';
import { constantsText } from './constants-text';
import type { BurnSettings } from './settings';

const heron = demoPairing('heron', 'birch');
const on = {
  ...heron,
  machine: { ...heron.machine, likedUnits: DEFAULT_LIKED_UNITS, topSpeedXMmPerS: 250, topSpeedYMmPerS: 200 },
};
const tern = demoPairing('tern', 'twoLayer');
const settings: BurnSettings = { ...PLAIN_FILL, powerFraction: 0.5 };
const fields = (change: Partial<BurnSettings>, pairing = on) =>
  checkConstants({ ...settings, ...change }, pairing).map(({ field }) => field.replace('constants.', ''));

describe('settings that a machine can burn', () => {
  it.each([
    ['intervalMm', [0.01, 2], [0.0099, 2.01, NaN]],
    ['focusOffsetMm', [-20, 0, 20], [-20.1, 20.1]],
    ['scanOffsetMm', [-2, 2], [-2.1, 2.1]],
    ['lengthenMm', [-0.5, 0.5], [-0.51, 0.51]],
    ['runUpMm', [null, 0, 300], [-1, 301]],
    ['passes', [1, 20], [0, 21, 1.5, NaN]],
  ] as const)('have %s of %j, and not of %j', (field, good, bad) => {
    for (const value of good) expect(fields({ [field]: value }), String(value)).toEqual([]);
    for (const value of bad) expect(fields({ [field]: value }), String(value)).toEqual([field]);
  });
  it('are refused in words', () => {
    const words = (change: Partial<BurnSettings>, pairing = on) =>
      checkConstants({ ...settings, ...change }, pairing).map(({ message }) => message);
    expect(
      words({ intervalMm: 3, focusOffsetMm: 30, scanOffsetMm: 3, lengthenMm: 1, runUpMm: 400, passes: 0 }),
    ).toEqual([
      'Line interval is 0.01 to 2 mm.',
      'Focus offset is -20 to 20 mm.',
      'Scan offset is -2 to 2 mm.',
      'Dots are lengthened by -0.5 to 0.5 mm.',
      'Run-up is 0 to 300 mm, or empty.',
      '1 to 20 passes, a whole number.',
    ]);
    expect(words({ air: 'on' }, { ...on, machine: { ...on.machine, airAssist: 'none' } })).toEqual([
      'This machine has no air assist.',
    ]);
    expect(words({ air: 'low' }, { ...on, machine: { ...on.machine, airAssist: 'on-off' } })).toEqual([
      'This machine’s air is either on or off.',
    ]);
    expect(words({ lineAngleDeg: 90 }, tern)).toEqual(['Lines are turned by 0 up to 90 degrees.']);
    expect(words({ lineAngleDeg: 9 })).toEqual(['Only a galvo head turns or crosses its lines here.']);
    expect(words({ frequencyKHz: 40 })).toEqual(['This machine’s source is not recorded as pulsing.']);
  });
  it('have the air that the machine has', () => {
    const withAir = (airAssist: 'none' | 'on-off' | 'adjustable') => ({ ...on, machine: { ...on.machine, airAssist } });
    for (const air of ['off', 'low', 'on'] as const) expect(fields({ air }, withAir('adjustable'))).toEqual([]);
    expect(fields({ air: 'low' }, withAir('on-off'))).toEqual(['air']);
    expect(fields({ air: 'on' }, withAir('on-off'))).toEqual([]);
    expect(fields({ air: 'on' }, withAir('none'))).toEqual(['air']);
    expect(fields({ air: 'off' }, withAir('none'))).toEqual([]);
  });
  it('turn and cross their lines under mirrors only, and pulse within the source’s range', () => {
    for (const angle of [0, 45, 89.9]) expect(fields({ lineAngleDeg: angle }, tern)).toEqual([]);
    for (const angle of [-1, 90, NaN]) expect(fields({ lineAngleDeg: angle }, tern)).toEqual(['lineAngleDeg']);
    expect(fields({ crossHatch: true })).toEqual(['lineAngleDeg']);
    expect(fields({ lineAngleDeg: 10 })).toEqual(['lineAngleDeg']);
    for (const kHz of [20, 80]) expect(fields({ frequencyKHz: kHz }, tern)).toEqual([]);
    for (const kHz of [19.9, 80.1]) expect(fields({ frequencyKHz: kHz }, tern)).toEqual(['frequencyKHz']);
    expect(fields({ frequencyKHz: 40 })).toEqual(['frequencyKHz']);
    const [problem] = checkConstants({ ...settings, frequencyKHz: 200 }, tern);
    expect(problem!.message).toBe('This source pulses at 20 to 80 kHz.');
  });
  it('stay at or under the cap, above nothing', () => {
    const at = (power: number) => checkPower('p', power, { ...on, machine: { ...on.machine, powerCap: 0.8 } });
    expect(at(0.8)).toEqual([]);
    expect(at(0.801)[0]!.message).toMatch(/^80.1 % is above this machine’s cap of 80 %/);
    for (const power of [0, -0.1, NaN]) expect(at(power)[0]!.message).toBe('Power must be a number above zero.');
  });
  it('go no faster than the head does along their lines, or along either axis where both are burned', () => {
    const at = (speed: number, along: 'horizontal' | 'vertical' | 'both') => checkSpeed('s', speed, along, on).length;
    expect([at(250, 'horizontal'), at(251, 'horizontal')]).toEqual([0, 1]);
    expect([at(200, 'vertical'), at(201, 'vertical')]).toEqual([0, 1]);
    expect([at(200, 'both'), at(201, 'both')]).toEqual([0, 1]);
    expect([at(0, 'both'), at(NaN, 'horizontal')]).toEqual([1, 1]);
    expect(checkSpeed('s', 251, 'horizontal', on)[0]!.message).toBe(
      'The head’s top speed along the lines is 250 mm/s.',
    );
  });
  it('are looked at as a whole, by the direction of their own lines unless another is asked for', () => {
    const all = (change: Partial<BurnSettings>, along?: 'both') =>
      checkSettings({ ...settings, ...change }, on, 'at', along).map(({ field }) => field);
    expect(all({})).toEqual([]);
    expect(all({ speedMmPerS: 220 })).toEqual([]);
    expect(all({ speedMmPerS: 220, direction: 'vertical' })).toEqual(['at.speedMmPerS']);
    expect(all({ speedMmPerS: 220 }, 'both')).toEqual(['at.speedMmPerS']);
    expect(all({ powerFraction: 0, passes: 0 })).toEqual(['at.powerFraction', 'at.passes']);
  });
});

describe('settings in words', () => {
  const inches = { ...DEFAULT_LIKED_UNITS, length: 'in', density: 'dpi', speed: 'mm/min' } as const;
  it('name what is the same in every cell, in capitals for the card, and leave out what is not given', () => {
    expect(constantsText({ ...settings, focusOffsetMm: 1.5 }, DEFAULT_LIKED_UNITS)).toBe(
      '50% 100MM/S INT 0.1 N1 FOCUS +1.5 AIR off X BOTH WAYS',
    );
    expect(constantsText({ passes: 3, direction: 'vertical', bothWays: false }, DEFAULT_LIKED_UNITS)).toBe(
      'N3 Y ONE WAY',
    );
    expect(constantsText({ intervalMm: 0.1, speedMmPerS: 10 }, inches)).toBe('600MM/MIN INT 254 DPI');
    expect(constantsText({}, DEFAULT_LIKED_UNITS)).toBe('');
  });
  it('say what a cell stands for, channel by channel in one order', () => {
    expect(levelWords({ speed: 120, power: 0.35, focus: 2, side: 'inside' }, DEFAULT_LIKED_UNITS)).toEqual([
      '35 %',
      '120 mm/s',
      '+2 mm',
      'inside',
    ]);
    expect(levelWords({ focus: -2, passes: 3 }, DEFAULT_LIKED_UNITS)).toEqual(['-2 mm', '3 passes']);
    expect(levelWords({}, DEFAULT_LIKED_UNITS)).toEqual([]);
    for (const { name } of Object.values(CHANNELS)) expect(name).toMatch(/^[A-Z]/);
  });
  it('are lettered as the bare number, its unit apart', () => {
    expect(letterOf('speed', 60, inches)).toEqual({ text: '3600', unit: 'mm/min', means: '3600 mm/min' });
    expect(letterOf('power', 0.2, inches)).toEqual({ text: '20', unit: '%', means: '20 %' });
    expect(letterOf('passes', 4, inches)).toEqual({ text: '4', unit: '', means: '4 passes' });
    expect([signed(0.5), signed(-0.5), signed(0)]).toEqual(['+0.5', '-0.5', '0']);
  });
});
