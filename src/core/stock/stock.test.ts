import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { lightnessOfLuminance } from '../color/lab';
import { luminance, parseHexColour, srgbToLinear } from '../color/srgb';
import { SOURCE_NAMES, type SourceKind } from '../machine/machine';
import { assessPairing } from './assess';
import { BANNED_MATERIALS } from './banned';
import { preBurnCautions } from './cautions';
import { cutThroughJPerMm } from './cutting';
import { bareFaceOf, burnedColourOf, expectedMarkOf, familyOf, FAMILIES, type StockType } from './families';
import { responseOf, suitabilityTable } from './response';
import { thicknessOf } from './stock';
import { listed } from '../../../tests/support/listed';

const { machine, stock } = demoPairing('heron', 'birch');

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
  it('cuts twice the thickness by twice the energy, and by as much more as the light is taken up less', () => {
    const { stock: mdf } = demoPairing('marl', 'mdf');
    const cut = (sourceKind: SourceKind, mm: number, family = 'mdf', type = mdf.type) =>
      cutThroughJPerMm({ sourceKind }, { ...mdf, family, type, nominalThicknessMm: mm, thicknessReadingsMm: [] })!;
    // Common practice: about 1 J/mm for each millimetre of MDF under CO2, which takes up all of it.
    expect(cut('co2-glass', 3)).toBeCloseTo(3, 9);
    expect(cut('co2-glass', 6)).toBeCloseTo(6, 9);
    const { absorption } = under('blue-diode', 'plywood');
    expect(absorption).toBeLessThan(1);
    expect(cut('blue-diode', 3, 'plywood') / cut('co2-glass', 3, 'plywood')).toBeCloseTo(
      under('co2-glass', 'plywood').absorption / absorption,
      9,
    );
    expect(() => cutThroughJPerMm({ sourceKind: 'co2-glass' }, { ...mdf, family: 'cheese' })).toThrow(/cheese/);
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

describe('cautions before a burn', () => {
  it('name this wavelength and this sheet', () => {
    const text = preBurnCautions(machine, stock)
      .map((caution) => caution.text + caution.more)
      .join(' ');
    expect(text).toContain('450 nm');
    expect(text).toContain('Birch ply');
    for (const word of listed(
      'unattended; powder or CO2; switched off; Extraction; flat; dried off; Guards stay on; room under; ' +
        'clamp; run-up',
    ))
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

describe('every caution', () => {
  it('is a line to tick and what is behind it, under a code of its own, in the same order each time', () => {
    const everything = {
      ...demoPairing('marl', 'tile'),
      stock: { ...demoPairing('marl', 'tile').stock, batch: 'T-9' },
    };
    const cautions = preBurnCautions(everything.machine, everything.stock, [
      'The face is wiped clean.',
      'It lies flat.',
    ]);
    for (const { text, more } of cautions) {
      expect(text).toMatch(/^[A-Z].{12,}/);
      expect(more).toMatch(/^[A-Z].{20,}/);
    }
    const found = cautions.map(({ code }) => code);
    expect(new Set(found).size).toBe(found.length);
    expect(found.slice(0, 13)).toEqual(
      listed(
        'attended; fire; fumes; eyes; material; dry; flat; clearance; coolant; silica; reflection; setup-1; ' +
          'setup-2',
      ),
    );
    const family = familyOf(everything.stock.family);
    expect(found.slice(13)).toEqual(family.cautions.map((_, index) => `family-${index + 1}`));
    expect(cautions[11]).toMatchObject({ text: 'The face is wiped clean.' });
    expect(cautions[4]!.text).toBe(`The sheet is what the label says: ${everything.stock.name}, batch T-9.`);
    expect(preBurnCautions(machine, { ...stock, batch: '' })[4]!.text).toBe(
      'The sheet is what the label says: Birch ply.',
    );
  });
  it('of a mirror-like face goes by the coat’s words as well as the type’s', () => {
    const codesOf = (change: object) => preBurnCautions(machine, { ...stock, ...change }).map(({ code }) => code);
    for (const coating of ['gold leaf', 'brushed aluminium look', 'Polished lacquer', 'foil'])
      expect(codesOf({ coating }), coating).toContain('reflection');
    expect(codesOf({ coating: 'matt paint' })).not.toContain('reflection');
  });
});

describe('what speaks against a pairing', () => {
  const codesOf = (change: object, on = { machine, stock }) =>
    assessPairing(on.machine, { ...on.stock, ...change }).map(({ severity, code }) => `${severity} ${code}`);
  it('is nothing for measured stock that the light suits', () => expect(codesOf({})).toEqual([]));
  it('is a ban before all else, by family, type, name or coat', () => {
    const banned = BANNED_MATERIALS[0]!;
    for (const change of [
      { family: banned.id },
      { type: 'soft PVC film' },
      { name: 'vinyl offcuts' },
      { coating: 'PVC' },
    ])
      expect(codesOf({ ...change, adhesiveBacking: true }), JSON.stringify(change)).toEqual(['stop banned-material']);
  });
  it('is told with the material, the light and what to do', () => {
    const [ban] = assessPairing(machine, { ...stock, name: 'vinyl offcuts' });
    expect(ban!.text).toMatch(/^PVC.*: never burn this\. .{20,}/);
    const [stop] = assessPairing(machine, { ...stock, family: 'glass', type: '' });
    expect(stop!.text).toContain(`lass under a ${SOURCE_NAMES[machine.sourceKind]} (${machine.wavelengthNm} nm): `);
    expect(stop!.whatToDo).toBe('Choose another machine or another stock.');
    const [poor] = assessPairing(machine, { ...stock, family: 'cloth', type: '' });
    expect(poor!.text).toContain(
      ` under a ${SOURCE_NAMES[machine.sourceKind]} (${machine.wavelengthNm} nm) works badly: `,
    );
  });
  it('is a light that passes or does little, an adhesive, a thickness that nobody measured', () => {
    expect(codesOf({ family: 'glass', type: '' })).toEqual(['stop wavelength-passes']);
    expect(codesOf({ family: 'cloth', type: '' })).toEqual(['warning wavelength-poor']);
    expect(codesOf({ adhesiveBacking: true })).toEqual(['warning adhesive-backing']);
    expect(codesOf({ thicknessReadingsMm: [] })).toEqual(['warning thickness-from-label']);
    for (const { text, whatToDo } of assessPairing(machine, {
      ...stock,
      family: 'cloth',
      type: '',
      adhesiveBacking: true,
      thicknessReadingsMm: [],
    })) {
      expect(text).toMatch(/^[A-Z].*\.$/);
      expect(whatToDo).toMatch(/^[A-Z].*\.$/);
    }
  });
});

describe('a face until it is measured', () => {
  it('is its type’s where the type has one of its own, and its family’s else', () => {
    for (const family of FAMILIES) {
      expect(bareFaceOf({ family: family.id, type: 'something of my own' })).toEqual({
        colour: family.bareColour,
        lightness: family.bareLightness,
      });
      for (const type of family.types) {
        const own: StockType = type;
        const face = bareFaceOf({ family: family.id, type: type.name });
        expect(face.colour).toBe(own.bareColour === undefined ? family.bareColour : own.bareColour);
        expect(face.lightness).toBe(own.bareLightness === undefined ? family.bareLightness : own.bareLightness);
      }
    }
    // Light over dark is pale where its family is dark.
    expect(bareFaceOf({ family: 'two-layer', type: 'acrylic based, light over dark' })).toEqual({
      colour: '#e6e4da',
      lightness: 90,
    });
    expect(() => bareFaceOf({ family: 'mystery', type: '' })).toThrow('unknown family: mystery');
  });
});
