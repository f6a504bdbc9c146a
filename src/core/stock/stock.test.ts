import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { lightnessOfLuminance } from '../color/lab';
import { luminance, parseHexColour, srgbToLinear } from '../color/srgb';
import { stalenessReasons } from '../book/staleness';
import { deliveredPowerW, type SourceKind } from '../machine/machine';
import { assessPairing } from './assess';
import { BANNED_MATERIALS } from './banned';
import { preBurnCautions } from './cautions';
import { cutThroughJPerMm } from './cutting';
import { bareFaceOf, burnedColourOf, expectedMarkOf, FAMILIES } from './families';
import { responseOf, suitabilityTable } from './response';
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
  const under = (sourceKind: SourceKind, family: string, type = '') => responseOf({ family, type }, { sourceKind });
  it.each<[SourceKind, string, string, string]>([
    ['blue-diode', 'acrylic-cast', 'clear', 'no'],
    ['blue-diode', 'acrylic-cast', 'see-through green', 'no'],
    ['blue-diode', 'acrylic-cast', 'opaque dark', 'badly'],
    ['blue-diode', 'acrylic-cast', 'opaque black', 'works'],
    ['blue-diode', 'acrylic-cast', 'transparent red', 'badly'],
    ['blue-diode', 'acrylic-cast', 'opaque light', 'no'],
    ['co2-glass', 'acrylic-cast', 'clear', 'works'],
    ['blue-diode', 'glass', 'float glass', 'no'],
    ['fibre', 'glass', 'float glass', 'no'],
    ['co2-glass', 'glass', 'float glass', 'works'],
    ['fibre', 'leatherette', 'two-tone dark over light', 'works'],
    ['fibre', 'two-layer', 'acrylic based, dark over light', 'works'],
    ['blue-diode', 'slate', 'roof slate', 'works'],
    ['blue-diode', 'coated-clear', 'coat on the far face', 'works'],
    ['co2-glass', 'coated-clear', 'coat on the far face', 'no'],
    ['co2-glass', 'coated-clear', 'coat on the near face', 'works'],
  ])('%s on %s, %s: %s', (source, family, type, verdict) => {
    expect(under(source, family, type).verdict).toBe(verdict);
  });
  it('has the energies of daily work', () => {
    // Slate under a blue diode: 3.6 to 4.7 J/mm² at 0.1 mm.
    expect(under('blue-diode', 'slate').energies.deep).toBeGreaterThanOrEqual(3.6);
    expect(under('blue-diode', 'slate').energies.deep).toBeLessThanOrEqual(4.7);
    // Tile with a white coat: a first mark at about 1, good at 5 to 14, spoiled from about 18 J/mm².
    const tile = under('blue-diode', 'tile').energies;
    expect(tile.faint).toBeCloseTo(1, 6);
    expect(tile.deep).toBeGreaterThan(5);
    expect(tile.deep).toBeLessThan(14);
    expect(tile.over).toBeCloseTo(18, 6);
    // Leatherette under a 1 µm fibre: 0.36 J/mm² at lines of 0.02 mm, 0.15 at 0.05 mm, both between first mark and ruin.
    const leatherette = under('fibre', 'leatherette').energies;
    for (const energy of [0.15, 0.36]) {
      expect(energy).toBeGreaterThan(leatherette.faint);
      expect(energy).toBeLessThan(leatherette.over);
    }
    // Rubber for stamps is judged by depth: 4 to 8 J/mm² (from memory).
    expect(under('co2-glass', 'rubber')).toMatchObject({ basis: 'from memory' });
    expect(under('co2-glass', 'rubber').energies.deep).toBeGreaterThanOrEqual(4);
    expect(under('co2-glass', 'rubber').energies.deep).toBeLessThanOrEqual(8);
  });
  it('knows marking from cutting: a fibre marks the face of leatherette and coated plastic, and cuts neither', () => {
    const { stock: sheet } = demoPairing('marl', 'twoLayer');
    for (const [family, type] of [
      ['leatherette', 'two-tone dark over light'],
      ['two-layer', 'acrylic based, dark over light'],
    ] as const) {
      expect(under('fibre', family, type)).toMatchObject({ verdict: 'works', cuts: false });
      expect(cutThroughJPerMm({ sourceKind: 'fibre' }, { ...sheet, family, type })).toBeNull();
      expect(cutThroughJPerMm({ sourceKind: 'co2-glass' }, { ...sheet, family, type })).toBeGreaterThan(0);
    }
    expect(
      cutThroughJPerMm({ sourceKind: 'blue-diode' }, { ...sheet, family: 'acrylic-cast', type: 'clear' }),
    ).toBeNull();
  });
  it('orders every stock’s energies, and lets weaker absorption ask for more', () => {
    for (const { id, types } of FAMILIES)
      for (const { name } of types)
        for (const source of ['blue-diode', 'co2-glass', 'co2-rf', 'fibre', 'uv'] as const) {
          const { verdict, energies } = under(source, id, name);
          if (verdict === 'no') continue;
          expect(energies.faint).toBeGreaterThan(0);
          expect(energies.deep).toBeGreaterThan(2 * energies.faint);
          expect(energies.over).toBeGreaterThan(1.5 * energies.deep);
        }
    expect(under('blue-diode', 'plywood').energies.faint).toBeGreaterThan(under('co2-glass', 'plywood').energies.faint);
  });
  it('expects marks by the type: dark plastic brightens, pale plastic over a dark core darkens', () => {
    const mark = (family: string, type: string) => expectedMarkOf({ family, type });
    expect(mark('two-layer', 'acrylic based, dark over light')).toBe('brighter');
    expect(mark('two-layer', 'acrylic based, light over dark')).toBe('darker');
    expect(mark('leatherette', 'light over dark core')).toBe('darker');
    expect(mark('cloth', 'denim')).toBe('brighter');
    expect(mark('cloth', 'linen')).toBe('darker');
    expect(mark('leather-vegetable', 'dyed dark')).toBe('brighter');
    expect(bareFaceOf({ family: 'cloth', type: 'denim' }).lightness).toBeLessThan(50);
    // The colour drawn for a burn is on the side that is expected.
    for (const { id, types } of FAMILIES)
      for (const { name } of types) {
        const stock = { family: id, type: name };
        const level = (hex: string) => {
          const [r, g, b] = parseHexColour(hex).map((byte) => srgbToLinear(byte / 255)) as [number, number, number];
          return lightnessOfLuminance(luminance(r, g, b));
        };
        const darker = level(burnedColourOf(stock)) < bareFaceOf(stock).lightness;
        expect(darker ? 'darker' : 'brighter', `${id}, ${name}`).toBe(expectedMarkOf(stock));
      }
  });
  it('an unknown family is an error, not a guess', () =>
    expect(() => under('fibre', 'mystery')).toThrow(/unknown family/));
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
    for (const word of [
      'unattended',
      'powder or CO2',
      'switched off',
      'Extraction',
      'flat',
      'dried off',
      'Guards stay on',
      'room under',
      'clamp',
      'run-up',
    ])
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
