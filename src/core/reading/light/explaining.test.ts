import { describe, expect, it } from 'vitest';
import { tileOf } from '../../../../tests/support/tiles';
import { explaining, isWorth } from './explaining';
import { designOf, leftOver, weightedFit, type Surface, type Term } from './surface';

const TERMS: Term[] = [() => 1, (x) => x, (_, y) => y];
const tiles = Array.from({ length: 400 }, (_, k) => {
  const [x, y] = [k % 20, Math.floor(k / 20)];
  return tileOf(x, y, 0.3 - 0.02 * x + 0.05 * Math.sin(0.7 * x * y) + (x > 11 ? 0.2 : 0));
});

/** The plain least-squares surface of some terms. */
function plain(terms: Term[]): Surface {
  const design = designOf(tiles, terms);
  const weights = new Float64Array(tiles.length).fill(1);
  const wanted = tiles.map((tile) => tile.logLuminance);
  const coefficients = weightedFit(design, wanted, weights);
  return { terms, design, weights, coefficients, residuals: leftOver(design, wanted, coefficients), sigma: 0.05 };
}
const squares = ({ residuals }: Surface): number => residuals.reduce((sum, value) => sum + value * value, 0);
const withResiduals = (residuals: number[], sigma = 0.01): Surface => ({
  ...plain(TERMS),
  residuals: Float64Array.from(residuals),
  sigma,
});

describe('what a further term explains', () => {
  it.each([
    ['a step', (x: number) => (x > 11 ? 1 : 0)],
    ['a bow', (x: number) => x * x],
    ['a twist', (x: number, y: number) => x * y],
  ])('%s: as much as a fit with it leaves less', (_, term) => {
    const base = plain(TERMS);
    const less = squares(base) - squares(plain([...TERMS, term]));
    expect(explaining(tiles, base).by(term)).toBeCloseTo(less, 6);
  });
  it('is nothing where the surface has the term already', () => {
    const explained = explaining(tiles, plain(TERMS));
    for (const known of [(x: number) => 3 * x + 2, () => 7, (x: number, y: number) => x - y])
      expect(explained.by(known)).toBe(0);
  });
});

describe('an explanation is worth its terms', () => {
  const before = Array.from({ length: 100 }, (_, k) => (k % 2 === 0 ? 0.02 : -0.02));
  const better = (count: number, to: number): Surface =>
    withResiduals(before.map((value, k) => (k < count ? Math.sign(value) * to : value)));
  it('where it leaves at most three quarters of the squares', () => {
    // All to 0.0174: 0.757 of the squares, but only 2.6 thousandths better; to 0.0156: 0.61, and 4.4 thousandths.
    expect(isWorth(better(100, 0.0156), withResiduals(before))).toBe(true);
    expect(isWorth(better(100, 0.0174), withResiduals(before))).toBe(false);
    expect(isWorth(better(24, 0), withResiduals(before))).toBe(false);
    expect(isWorth(better(26, 0), withResiduals(before))).toBe(true);
  });
  it('and many tiles the better for it, not only a knot’s', () => {
    const knot = before.map((value, k) => (k < 8 ? 0.5 : value / 100));
    const without = knot.map((value, k) => (k < 8 ? 0 : value));
    expect(isWorth(withResiduals(without, 0.2), withResiduals(knot, 0.2))).toBe(false);
    const wide = knot.map((value, k) => (k === 8 ? 0.5 : value));
    expect(
      isWorth(
        withResiduals(
          wide.map((value, k) => (k < 9 ? 0 : value)),
          0.2,
        ),
        withResiduals(wide, 0.2),
      ),
    ).toBe(true);
  });
  it('a tile counts for no more than four sigmas of what was left before', () => {
    const wild = before.map((value, k) => (k === 0 ? 50 : value));
    // Before 0.04² + 99 x 0.02² = 0.0412. With the wild one and nine more healed 0.036 are left, with the others less by a third 0.0194.
    expect(isWorth(withResiduals(wild.map((value, k) => (k < 10 ? 0 : value))), withResiduals(wild))).toBe(false);
    expect(isWorth(withResiduals(wild.map((value, k) => (k === 0 ? 0 : 0.7 * value))), withResiduals(wild))).toBe(true);
  });
});
