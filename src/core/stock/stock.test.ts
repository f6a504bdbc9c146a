import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { stalenessReasons } from '../book/staleness';
import { deliveredPowerW } from '../machine/machine';
import { suitability, suitabilityTable } from './absorption';
import { assessPairing, assessStock } from './assess';
import { BANNED_MATERIALS, banNamedIn } from './banned';
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
  it.each(['PVC foam', 'white vinyl', 'ABS sheet', 'chrome-tanned hide', 'unknown plastic', 'Carbon fibre plate'])(
    '"%s" is found by name',
    (name) => {
      expect(banNamedIn(name)).toBeDefined();
    },
  );
  it.each(['absorbent card', 'birch ply', 'Glass bead tile'])('"%s" is not', (name) =>
    expect(banNamedIn(name)).toBeUndefined(),
  );
  it('looks at the coating too', () => {
    expect(assessStock({ ...stock, coating: 'vinyl foil' })[0]).toMatchObject({ severity: 'stop' });
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
    for (const word of ['unattended', 'Extinguisher', 'Extraction', 'flat']) expect(text).toContain(word);
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
