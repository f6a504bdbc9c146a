import { describe, expect, it } from 'vitest';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { demoPairing } from '../../../stand-ins/demo';
import { responseOf } from '../stock/response';
import { deliveredBy, fateOfFill } from './energy';
import { squareFillTimeS } from './fill-time';
import { columnOfBoxes, rowOfBoxes } from './row';
import type { BurnSettings } from './settings';
import { fastestUsefulMmPerS } from './useful-speed';

const on = demoPairing('heron', 'birch');
/** Ten watts for each command of one, in a gantry of plain numbers. */
const machine = {
  ...on.machine,
  ratedPowerW: 10,
  powerTable: null,
  lowestFiringCommand: 0.05,
  topSpeedXMmPerS: 300,
  topSpeedYMmPerS: 150,
  accelerationXMmPerS2: 3000,
  accelerationYMmPerS2: 1000,
};
const pairing = { ...on, machine };
const settings: BurnSettings = { ...PLAIN_FILL, powerFraction: 0.5 };

describe('what settings deliver', () => {
  it('is watts over speed along a line and over speed and interval on an area, for each crossing', () => {
    // By hand: 5 W / 100 mm/s = 0.05 J/mm; over 0.1 mm: 0.5 J/mm².
    expect(deliveredBy(settings, pairing)).toEqual({ watts: 5, lineJPerMm: 0.05, arealJPerMm2: 0.5 });
    const twice = deliveredBy({ ...settings, passes: 2 }, pairing);
    expect(twice.lineJPerMm).toBeCloseTo(0.1, 12);
    expect(twice.arealJPerMm2).toBeCloseTo(1, 12);
    const crossed = deliveredBy({ ...settings, passes: 2, crossHatch: true }, pairing);
    expect(crossed.lineJPerMm).toBeCloseTo(0.1, 12);
    expect(crossed.arealJPerMm2).toBeCloseTo(2, 12);
  });
  it('is nothing below the lowest command that fires, and no more than all there is', () => {
    expect(deliveredBy({ ...settings, powerFraction: 0.04 }, pairing).watts).toBe(0);
    expect(deliveredBy({ ...settings, powerFraction: 1.5 }, pairing).watts).toBe(10);
  });
});

describe('where a fill is bound to end up', () => {
  const { faint, over } = responseOf(on.stock, machine).energies;
  /** The speed at which 5 W leave so many J/mm² at 0.1 mm. */
  const atEnergy = (arealJPerMm2: number): BurnSettings => ({ ...settings, speedMmPerS: 5 / arealJPerMm2 / 0.1 });
  const slow = (energy: number) => fateOfFill({ ...atEnergy(energy), direction: 'horizontal' }, fast);
  const fast = { ...pairing, machine: { ...machine, topSpeedXMmPerS: 1e6 } };
  it('is nothing to be seen under 0.45 of a faint mark, and spoiled above the family’s limit', () => {
    expect(slow(faint * 0.44)).toBe('no-mark');
    expect(slow(faint * 0.46)).toBeNull();
    expect(slow(over * 0.99)).toBeNull();
    expect(slow(over * 1.01)).toBe('overburn');
  });
  it('goes by what the stock takes of this light: the family’s energies over its share', () => {
    const tube = { ...fast, machine: { ...fast.machine, sourceKind: 'co2-glass' as const } };
    // A tube's light is taken whole, a blue diode's to three quarters: what is just short of spoiling under blue spoils under a tube.
    expect(fateOfFill(atEnergy(over * 0.99), tube)).toBe('overburn');
  });
  it('says first that it does not fire, and that the head does not go so fast along that axis', () => {
    expect(fateOfFill({ ...settings, powerFraction: 0.04 }, pairing)).toBe('does-not-fire');
    expect(fateOfFill({ ...settings, speedMmPerS: 301 }, pairing)).toBe('too-fast');
    expect(fateOfFill({ ...settings, speedMmPerS: 151, direction: 'vertical' }, pairing)).toBe('too-fast');
    expect(fateOfFill({ ...settings, speedMmPerS: 150, direction: 'vertical' }, pairing)).not.toBe('too-fast');
  });
});

describe('the time of a filled square', () => {
  it('is its lines, each with its ramps, and the way back where it is burned one way', () => {
    // By hand: 100 lines of 10 / 100 + 2 x 100 / 3000 s; back at 300 mm/s: 10 / 300 + 2 x 300 / 3000 s each.
    const there = 0.1 + 200 / 3000;
    expect(squareFillTimeS(settings, machine, 10)).toBeCloseTo(100 * there, 9);
    expect(squareFillTimeS({ ...settings, bothWays: false }, machine, 10)).toBeCloseTo(
      100 * (there + 10 / 300 + 600 / 3000),
      9,
    );
    expect(squareFillTimeS({ ...settings, passes: 3 }, machine, 10)).toBeCloseTo(300 * there, 9);
    // Along y: 10 / 100 + 2 x 100 / 1000 s.
    expect(squareFillTimeS({ ...settings, direction: 'vertical' }, machine, 10)).toBeCloseTo(100 * 0.3, 9);
  });
  it('has no ramps under mirrors, but their delays, and a jump to the next line or all the way back', () => {
    const galvo = {
      ...machine,
      head: 'galvo' as const,
      galvo: { jumpSpeedMmPerS: 1000, jumpDelayS: 0.001, markDelayS: 0.002, frequencyKHz: null },
    };
    const mark = 0.1 + 0.002;
    expect(squareFillTimeS(settings, galvo, 10)).toBeCloseTo(100 * (mark + 0.0001 + 0.001), 9);
    expect(squareFillTimeS({ ...settings, bothWays: false }, galvo, 10)).toBeCloseTo(100 * (mark + 0.01 + 0.001), 9);
  });
});

describe('the fastest speed that still pays', () => {
  it('is sqrt(L a / 2) on lines of 40 mm, or the axis’ top speed where that is less', () => {
    expect(fastestUsefulMmPerS(machine, 'horizontal')).toBeCloseTo(Math.sqrt((40 * 3000) / 2), 9);
    expect(fastestUsefulMmPerS(machine, 'vertical')).toBeCloseTo(Math.sqrt((40 * 1000) / 2), 9);
    expect(fastestUsefulMmPerS({ ...machine, topSpeedXMmPerS: 200 }, 'horizontal')).toBe(200);
    expect(fastestUsefulMmPerS({ ...machine, head: 'galvo' }, 'horizontal')).toBe(300);
  });
});

describe('boxes in a row', () => {
  it('stand side by side from the left with their gaps, or under one another from the top', () => {
    expect(rowOfBoxes(3, 4, 2, 0.5)).toEqual([
      { x: 0, y: 0, width: 4, height: 2 },
      { x: 4.5, y: 0, width: 4, height: 2 },
      { x: 9, y: 0, width: 4, height: 2 },
    ]);
    expect(columnOfBoxes(2, 4, 2, 0.5)).toEqual([
      { x: 0, y: 0, width: 4, height: 2 },
      { x: 0, y: 2.5, width: 4, height: 2 },
    ]);
    expect(rowOfBoxes(2, 1 / 3, 1, 0)[1]!.x).toBe(0.3333);
  });
});
