import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { stalenessReasons } from '../book/staleness';
import { deliveredPowerW } from '../machine/machine';
import { suitability, suitabilityTable } from './absorption';
import { assessPairing } from './assess';
import { BANNED_MATERIALS } from './banned';
import { preBurnCautions } from './cautions';
import { FAMILIES } from './families';
import { thicknessOf } from './stock';

const { machine, lens, stock } = demoPairing('heron', 'birch');

// Usual shop cautions, common practice; local codes come first.
describe('what is never burned', () => {
  it.each(BANNED_MATERIALS.map((material) => [material.id]))('%s stops whatever it is called', (family) => {
    const [stop] = assessPairing(machine, { ...stock, family });
    expect(stop).toMatchObject({ severity: 'stop', code: 'banned-material' });
    expect(stop!.whatToDo).not.toBe('');
  });
});

// Common practice without a published source.
describe('families and wavelengths', () => {
  it('cover each other', () => {
    expect(suitabilityTable()).toHaveLength(FAMILIES.length);
    for (const { bands } of suitabilityTable())
      for (const { reason } of Object.values(bands)) expect(reason.length).toBeGreaterThan(5);
  });
  it('clear acrylic passes blue light, dark acrylic does not', () => {
    expect(suitability('acrylic-cast', 'blue-diode', 'clear').verdict).toBe('no');
    expect(suitability('acrylic-cast', 'blue-diode', 'opaque dark').verdict).toBe('badly');
    expect(suitability('acrylic-cast', 'co2-glass', 'clear').verdict).toBe('works');
  });
  it('paper-backed leatherette passes 1 µm', () => expect(suitability('leatherette', 'fibre').verdict).toBe('no'));
  it('an unknown family is an error, not a guess', () =>
    expect(() => suitability('mystery', 'fibre')).toThrow(/unknown family/));
});

describe('thickness', () => {
  // Common practice: stock sold as 1/8 in read 0.120 in.
  it('is what was measured, not what the label says', () => {
    const read = thicknessOf({ nominalThicknessMm: 3.175, thicknessReadingsMm: [3.048, 3.05, 3.046] });
    expect(read.meanMm).toBeCloseTo(3.048, 6);
    expect(read.spreadMm).toBeCloseTo(0.002, 6);
    expect(thicknessOf({ nominalThicknessMm: 3.175, thicknessReadingsMm: [] })).toMatchObject({
      meanMm: 3.175,
      origin: 'label',
    });
  });
});

describe('delivered power', () => {
  it('follows the measured table, and is nothing below the firing command', () => {
    const tube = demoPairing('marl', 'slate').machine;
    expect(deliveredPowerW(tube, 0.05)).toBe(0);
    expect(deliveredPowerW(tube, 0.3)).toBeCloseTo(17.25, 9);
    expect(deliveredPowerW(tube, 1)).toBe(50);
    expect(deliveredPowerW(machine, 0.5)).toBe(5);
    expect(() => deliveredPowerW(machine, NaN)).toThrow(RangeError);
  });
});

describe('cautions before a burn', () => {
  it('name this wavelength and this sheet', () => {
    const text = preBurnCautions(machine, stock)
      .map((caution) => caution.text + caution.more)
      .join(' ');
    expect(text).toContain('450 nm');
    expect(text).toContain('Birch ply');
    for (const word of ['unattended', 'powder or CO2', 'switched off', 'Extraction', 'flat', 'dried off'])
      expect(text).toContain(word);
  });
  const codes = (machineName: 'heron' | 'marl', stockName: 'birch' | 'slate' | 'tile' | 'alder'): string[] => {
    const on = demoPairing(machineName, stockName);
    return preBurnCautions(on.machine, on.stock).map((caution) => caution.code);
  };
  it('ask for coolant at a glass tube only, for silica at stone and tile, for reflections at glaze and metal', () => {
    expect(codes('marl', 'alder')).toContain('coolant');
    expect(codes('heron', 'birch')).not.toContain('coolant');
    expect(codes('marl', 'slate')).toContain('silica');
    expect(codes('marl', 'tile')).toEqual(expect.arrayContaining(['silica', 'reflection']));
    expect(codes('marl', 'alder')).not.toContain('silica');
    expect(codes('marl', 'alder')).not.toContain('reflection');
    const metal = { ...stock, type: 'two-tone dark over metal look', family: 'leatherette' };
    expect(preBurnCautions(machine, metal).map((caution) => caution.code)).toContain('reflection');
  });
});

describe('staleness', () => {
  const then = { machine, lens, stock };
  it('finds nothing when nothing that counts has changed', () => {
    expect(stalenessReasons(then, { ...then, machine: { ...machine, name: 'Renamed' } })).toEqual([]);
  });
  it('names what has', () => {
    expect(stalenessReasons(then, { ...then, stock: { ...stock, batch: 'SG-15' } })).toEqual(['new batch SG-15']);
    expect(stalenessReasons(then, { ...then, lens: { ...lens, spotXMm: 0.2 } })).toEqual(['lens or spot changed']);
    expect(stalenessReasons(then, { ...then, machine: { ...machine, ratedPowerW: 20 } })).toEqual(['another source']);
    expect(stalenessReasons(then, { ...then, stock: { ...stock, thicknessReadingsMm: [4] } })[0]).toContain(
      'thickness',
    );
  });
});
