import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { deliveredPowerW } from '../../core/machine/machine';
import { cutThroughJPerMm } from '../../core/stock/cutting';
import { kerf } from '.';

const alder = demoPairing('marl', 'alder');
const proposed = (pairing = alder) => kerf.propose({ pairing, facts: [] });
const through = (pairing = alder) => cutThroughJPerMm(pairing.machine, pairing.stock)!;
/** The same tube with so many watts at its cap, measured nowhere. */
const withWatts = (watts: number, pairing = alder) => ({
  ...pairing,
  machine: {
    ...pairing.machine,
    powerTable: null,
    powerCap: 1,
    ratedPowerW: watts,
    topSpeedXMmPerS: 600,
    topSpeedYMmPerS: 250,
  },
});

describe('a proposed cut', () => {
  it('is at the cap, as fast as leaves 1.4 times what comes through', () => {
    const { plan } = proposed();
    const { powerFraction, speedMmPerS, passes } = plan.cut;
    expect(powerFraction).toBe(alder.machine.powerCap);
    expect(passes).toBe(1);
    const energy = (deliveredPowerW(alder.machine, powerFraction) * passes) / speedMmPerS;
    // Speeds are rounded down: never less, and little more.
    expect(energy).toBeGreaterThanOrEqual(1.4 * through());
    expect(energy).toBeLessThan(1.4 * through() * 1.12);
  });
  it('takes another pass where one would be slower than 4 mm/s', () => {
    // By hand: one pass at 4 mm/s needs 4 x 1.4 x what comes through, in watts.
    const just = 4 * 1.4 * through();
    expect(proposed(withWatts(just * 1.01)).plan.cut.passes).toBe(1);
    expect(proposed(withWatts(just * 0.99)).plan.cut.passes).toBe(2);
    expect(proposed(withWatts(just * 0.49)).plan.cut.passes).toBe(3);
    expect(proposed(withWatts(just * 0.99)).reasons['cut.passes']).toMatch(/^fewer would be slower than 4 mm\/s/);
    expect(proposed(withWatts(just * 1.01)).reasons['cut.passes']).toBe('one is enough by the table');
    // Eight are the most.
    expect(proposed(withWatts(just / 7.99)).plan.cut.passes).toBe(8);
    expect(() => proposed(withWatts(just / 8.01))).toThrow(/would take 9 passes; not with this machine/);
  });
  it('is rounded down to a whole mm/s, below ten to a tenth, and stays at half of the slower axis’ top speed', () => {
    const at = (speed: number) => proposed(withWatts(speed * 1.4 * through())).plan.cut.speedMmPerS;
    expect(at(9.97)).toBe(9.9);
    expect(at(10.04)).toBe(10);
    expect(at(23.9)).toBe(23);
    expect(at(300)).toBe(125);
  });
  it('has its focus in the middle of sheets over 3 mm, lowered by half of them, 3 mm at the most', () => {
    const focusOf = (mm: number): number => {
      const pairing = { ...alder, stock: { ...alder.stock, nominalThicknessMm: mm, thicknessReadingsMm: [mm] } };
      return proposed(withWatts(400, pairing)).plan.cut.focusOffsetMm;
    };
    const why = (mm: number): string | undefined => {
      const pairing = { ...alder, stock: { ...alder.stock, nominalThicknessMm: mm, thicknessReadingsMm: [mm] } };
      return proposed(withWatts(400, pairing)).reasons['cut.focusOffsetMm'];
    };
    expect(why(3)).toBe('on the face: thin sheet');
    expect(why(3.2)).toBe('in the middle of the sheet: lowered by half its thickness');
    expect([focusOf(2), focusOf(3), focusOf(3.2), focusOf(5), focusOf(6.5)]).toEqual([0, 0, -1.6, -2.5, -3]);
  });
  it('has air where the machine has some, and squares of 20 mm or what the sheet leaves', () => {
    expect(proposed().plan).toMatchObject({ sizeMm: 20, smallMm: 8, count: 2, gapMm: 3 });
    expect(proposed().plan.cut.air).toBe('on');
    const still = { ...alder, machine: { ...alder.machine, airAssist: 'none' as const } };
    expect(proposed(still).plan.cut.air).toBe('off');
    const sheet = (sheetWidthMm: number, sheetDepthMm: number) =>
      proposed({ ...alder, stock: { ...alder.stock, sheetWidthMm, sheetDepthMm } }).plan;
    // By hand: (50 - 20) / 2 = 15; two of them and two of 8 with three gaps of 3 are 55 mm, and 20 around them.
    expect(sheet(75, 50)).toMatchObject({ sizeMm: 15, smallMm: 8, count: 2 });
    expect(sheet(74, 50)).toMatchObject({ sizeMm: 15, smallMm: 8, count: 1 });
    expect(sheet(45, 50)).toMatchObject({ sizeMm: 12, smallMm: 8, count: 1 });
    // Squares of 8 mm have none beside them that is clearly smaller.
    expect(sheet(50, 30)).toMatchObject({ sizeMm: 8, smallMm: null, count: 2 });
    expect(sheet(30, 30)).toMatchObject({ sizeMm: 8, smallMm: null, count: 1 });
  });
});
