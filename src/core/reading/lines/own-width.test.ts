import { describe, expect, it } from 'vitest';
import { ownWidth, type SeenWidths } from './own-width';

/** Widths of a normal law at parts of its height, in closed form: 2 sigma times the root of 2 ln(1 / part). */
const normal = (sigma: number): SeenWidths => {
  const at = (part: number): number => 2 * sigma * Math.sqrt(2 * Math.log(1 / part));
  return { quarterMm: at(0.25), halfMm: at(0.5), threeQuartersMm: at(0.75) };
};
const FWHM = 2 * Math.sqrt(2 * Math.log(2));

describe('the width behind a blurred line', () => {
  it('is what is left of a normal law: variances add', () => {
    expect(ownWidth(normal(0.05), 0.03)).toBeCloseTo(FWHM * 0.04, 4);
    expect(ownWidth(normal(0.05), 0)).toBeCloseTo(FWHM * 0.05, 4);
    expect(ownWidth(normal(0.05), 0.05)).toBeLessThan(0.004);
    // Seen sharper than the blur: nothing is left.
    expect(ownWidth(normal(0.03), 0.05)).toBeLessThan(1e-6);
  });
  it('is all of a band far wider than its blur, whose edges fall by a normal law’s sum', () => {
    // The quarter and three quarters of a single edge lie 0.6745 sigmas to both sides of it, by the tables of the normal law.
    const [band, sigma] = [1, 0.05];
    const seen = { quarterMm: band + 2 * 0.67449 * sigma, halfMm: band, threeQuartersMm: band - 2 * 0.67449 * sigma };
    expect(ownWidth(seen, sigma)).toBeCloseTo(band, 3);
    expect(ownWidth(seen, 0.02)).toBeCloseTo(band, 3);
    expect(ownWidth({ quarterMm: 1, halfMm: 1, threeQuartersMm: 1 }, 0)).toBeCloseTo(1, 3);
  });
  it('of a hard band is wider, and of a normal law narrower, where both are seen as wide at half their height', () => {
    const seen = normal(0.05);
    const hard = { ...seen, quarterMm: seen.halfMm, threeQuartersMm: seen.halfMm };
    expect(ownWidth(hard, 0.03)).toBeGreaterThan(ownWidth(seen, 0.03) + 0.005);
  });
});
