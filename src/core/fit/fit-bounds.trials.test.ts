import seedrandom from 'seedrandom';
import { beforeEach, describe, expect, it } from 'vitest';
import {
  boundsToKeep,
  chancesAt,
  clearanceFor,
  fitBounds,
  FITS,
  keptBounds,
  middleOfFit,
  movedBounds,
  thicknessBy,
  USUAL_FITS,
  type FeltSlot,
  type Fit,
} from './fit-bounds';

/** Stock of the test's own: where its fits begin, and how slots scatter. */
const TRUE_MM = { press: -0.12, snug: -0.03, slip: 0.05, loose: 0.15 } as const;
const feltAt = (clearanceMm: number): Fit =>
  FITS.findLast((fit) => fit === 'no' || clearanceMm >= TRUE_MM[fit]) ?? 'no';

const comb = (from: number, to: number, count: number, off: (k: number) => number = () => 0): FeltSlot[] =>
  Array.from({ length: count }, (_, k) => {
    const clearanceMm = from + ((to - from) * k) / (count - 1);
    return { clearanceMm, fit: feltAt(clearanceMm + off(k)) };
  });

describe('where fits begin', () => {
  it('lies between the slots that tell, and is as sure as these are close', () => {
    const coarse = fitBounds(comb(-0.2, 0.25, 10));
    const fine = fitBounds(comb(-0.2, 0.25, 46));
    for (const fit of ['press', 'snug', 'slip', 'loose'] as const) {
      expect(Math.abs(coarse.from[fit].atMm - TRUE_MM[fit])).toBeLessThan(0.03);
      expect(Math.abs(fine.from[fit].atMm - TRUE_MM[fit])).toBeLessThan(0.01);
      expect(fine.from[fit].sigmaMm).toBeLessThan(coarse.from[fit].sigmaMm);
    }
  });
  it('are told by another clearance where a kerf lies between, and have a middle', () => {
    const bounds = fitBounds(comb(-0.2, 0.25, 46));
    const wider = movedBounds(bounds, 0.2);
    expect(wider.from.snug.atMm - bounds.from.snug.atMm).toBeCloseTo(0.2, 9);
    expect(wider.from.loose.sigmaMm).toBe(bounds.from.loose.sigmaMm);
    // The same slot feels the same, whichever way its width is told.
    expect(chancesAt(wider, 0.22).snug).toBeCloseTo(chancesAt(bounds, 0.02).snug, 9);
    expect(middleOfFit(bounds, 'snug')).toBeCloseTo((bounds.from.snug.atMm + bounds.from.slip.atMm) / 2, 9);
    // Where nobody tried anything, no fit of a flush joint is likelier than even.
    expect(Math.max(...Object.values(chancesAt(USUAL_FITS, 0)))).toBeLessThan(0.5);
  });
  it('stays as unsure as before where no slot lies beyond it, and is none where nothing was tried', () => {
    // All tight: nothing tells where it gets loose, but that it is not yet so.
    const tight = fitBounds(comb(-0.2, -0.05, 6));
    expect(tight.from.loose.sigmaMm).toBeGreaterThan(0.08);
    expect(tight.from.loose.atMm).toBeGreaterThan(0.05);
    expect(tight.from.press.sigmaMm).toBeLessThan(0.03);
    expect(() => fitBounds([])).toThrow('missing slots');
  });
  it('moves with the slots, and by the kerf where only what is usual speaks', () => {
    const plain = fitBounds(comb(-0.2, 0.25, 10));
    const shifted = comb(-0.2, 0.25, 10).map((slot) => ({ ...slot, clearanceMm: slot.clearanceMm - 0.2 }));
    expect(fitBounds(shifted, 0.2).from.snug.atMm).toBeCloseTo(plain.from.snug.atMm - 0.2, 2);
    const one = [{ clearanceMm: -0.6, fit: 'no' }] as const;
    expect(fitBounds(one, 0.2).from.slip.atMm).toBeCloseTo(fitBounds(one, 0).from.slip.atMm - 0.2, 2);
  });
  // By hand: with a scatter that is nothing against the steps, a bound is where a rectangle between two slots is cut off a normal law of 0.15 mm: as good as its middle.
  it('is the middle of the two slots that tell, between which it may lie anywhere', () => {
    const { from } = fitBounds([
      ...[-0.5, -0.4, -0.3].map((clearanceMm) => ({ clearanceMm, fit: 'no' as const })),
      ...[-0.1, 0, 0.1, 0.2].map((clearanceMm) => ({ clearanceMm, fit: 'press' as const })),
    ]);
    expect(from.press.atMm).toBeCloseTo(-0.2, 1);
    // A rectangle 0.2 mm wide has a standard deviation of 0.2 / sqrt 12, by hand 0.058.
    expect(from.press.sigmaMm).toBeGreaterThan(0.04);
    expect(from.press.sigmaMm).toBeLessThan(0.07);
  });
  it('holds the truth in nineteen of twenty combs, scattered as slots are', () => {
    const random = seedrandom('combs');
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let [held, all] = [0, 0];
    for (let turn = 0; turn < 60; turn++) {
      const scatter = 0.01 + 0.03 * random();
      const { from } = fitBounds(comb(-0.22, 0.26, 10, () => scatter * normal()));
      for (const fit of ['press', 'snug', 'slip', 'loose'] as const) {
        all++;
        if (Math.abs(from[fit].atMm - TRUE_MM[fit]) < 2 * from[fit].sigmaMm) held++;
      }
    }
    expect(held / all).toBeGreaterThan(0.92);
  });
});

describe('a slot for a fit', () => {
  let bounds: ReturnType<typeof fitBounds>;
  beforeEach(() => {
    bounds = fitBounds(comb(-0.2, 0.25, 10));
  });
  it('has chances that are one together, the likeliest in the middle of its class', () => {
    for (const at of [-0.5, -0.08, 0, 0.1, 0.6]) {
      const chances = chancesAt(bounds, at);
      expect(Object.values(chances).reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1, 9);
      expect(Math.max(...Object.values(chances))).toBe(chances[feltAt(at)]);
    }
    const snug = clearanceFor(bounds, 'snug');
    expect(snug.clearanceMm).toBeGreaterThan(bounds.from.snug.atMm);
    expect(snug.clearanceMm).toBeLessThan(bounds.from.slip.atMm);
    expect(snug.chance).toBeCloseTo(chancesAt(bounds, snug.clearanceMm).snug, 9);
  });
  it('is less sure by what its bounds are unsure by, though slots scatter alike', () => {
    const vague = { ...bounds, from: { ...bounds.from, snug: { ...bounds.from.snug, sigmaMm: 0.2 } } };
    expect(clearanceFor(vague, 'snug').chance).toBeLessThan(clearanceFor(bounds, 'snug').chance - 0.1);
  });
  it('is the same by bounds that were kept and come back', () => {
    const kept = boundsToKeep(bounds);
    expect(kept.fromMm.slip).toBe(bounds.from.slip.atMm);
    expect(kept.sigmaMm.loose).toBe(bounds.from.loose.sigmaMm);
    expect(keptBounds(kept)).toEqual(bounds);
  });
  it('is less sure by what the sheet varies', () => {
    expect(clearanceFor(bounds, 'snug', 0.05).chance).toBeLessThan(clearanceFor(bounds, 'snug').chance);
    expect(clearanceFor(bounds, 'snug').chance).toBeGreaterThan(clearanceFor(bounds, 'snug', 0.02).chance);
  });
  it('tells how thick a sheet is that goes into it so', () => {
    // Snug from about -0.03 to 0.05 wider than the sheet: in a slot of 3 mm it is 2.99 thick, by hand.
    const { thicknessMm, sigmaMm } = thicknessBy(bounds, 3, 'snug');
    expect(thicknessMm).toBeCloseTo(2.99, 1);
    expect(sigmaMm).toBeGreaterThan(0.08 / Math.sqrt(12));
    expect(thicknessBy(bounds, 3, 'press').thicknessMm).toBeGreaterThan(thicknessMm);
  });
});
