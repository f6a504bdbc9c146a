import { describe, expect, it } from 'vitest';
import { tileOf } from '../../../../tests/support/tiles';
import { designOf, leftOver, robustSurface, sumAt, weightedFit, type Term } from './surface';
import { points } from '../../../../tests/support/points';

const TERMS: Term[] = [() => 1, (x) => x, (_, y) => y];
const places = Array.from({ length: 60 }, (_, k) => ({ x: k % 10, y: Math.floor(k / 10) }));
/** Equal sums of ± one along both axes and in themselves, so that a plain fit cannot take any of it. */
const square = (x: number, y: number): number => ((x + y) % 2 === 0 ? 1 : -1);

describe('a sum of terms', () => {
  it('is laid out row by row', () => {
    const design = designOf(points([2, 3], [5, 7]), TERMS);
    expect([...design.values]).toEqual([1, 2, 3, 1, 5, 7]);
    expect([design.rows, design.terms]).toEqual([2, 3]);
    expect(sumAt(TERMS, Float64Array.of(10, 2, -1), 5, 7)).toBe(13);
  });
  it('is fitted exactly to what it can be, whatever the weights, and leaves nothing over', () => {
    const design = designOf(places, TERMS);
    const wanted = places.map(({ x, y }) => 0.5 + 0.25 * x - 0.75 * y);
    const weights = Float64Array.from(places, (_, k) => 1 + (k % 3));
    const found = weightedFit(design, wanted, weights);
    [0.5, 0.25, -0.75].forEach((value, k) => expect(found[k]).toBeCloseTo(value, 6));
    for (const left of leftOver(design, wanted, found)) expect(Math.abs(left)).toBeLessThan(1e-6);
    expect([...leftOver(design, wanted, Float64Array.of(0, 0, 0))]).toEqual(wanted);
  });
  it('takes no notice of what has no weight, and of twice the weight as of two', () => {
    const design = designOf([...places, { x: 4, y: 4 }, { x: 0, y: 0 }], TERMS);
    const wanted = [...places.map(({ x, y }) => 1 + x + y + square(x, y)), 1000, 5];
    const weights = (last: number) => Float64Array.from([...places.map(() => 1), 0, last]);
    const twice = weightedFit(
      designOf([...places, { x: 0, y: 0 }, { x: 0, y: 0 }], TERMS),
      [...wanted.slice(0, 60), 5, 5],
      new Float64Array(62).fill(1),
    );
    weightedFit(design, wanted, weights(2)).forEach((value, k) => expect(value).toBeCloseTo(twice[k]!, 6));
    expect(weightedFit(design, wanted, weights(1))[0]).not.toBeCloseTo(twice[0]!, 3);
  });
});

describe('a robust surface', () => {
  const value = (x: number, y: number): number => -1 + 0.02 * x - 0.01 * y + 0.001 * (((x + 2 * y) % 3) - 1);
  it('lies through most of the tiles, and lets none that is far off pull it', () => {
    const tiles = places.map(({ x, y }, k) => tileOf(x, y, value(x, y) - (k % 7 === 3 ? 0.5 : 0)));
    const surface = robustSurface(tiles, TERMS, 8);
    [-1, 0.02, -0.01].forEach((wanted, k) => expect(surface.coefficients[k]).toBeCloseTo(wanted, 3));
    // A third each of -1, 0 and 1 thousandth: the median size is one thousandth.
    expect(surface.sigma).toBeCloseTo(0.0014826, 4);
    tiles.forEach((_, k) => {
      expect(surface.weights[k]! === 0, String(k)).toBe(k % 7 === 3);
      if (k % 7 === 3) expect(surface.residuals[k]).toBeCloseTo(-0.5, 2);
      // The biweight by hand: u of one thousandth is 1 / (4.685 x 1.4826) = 0.144, (1 - u²)² = 0.959.
      else expect(surface.weights[k]).toBeCloseTo(Math.abs(surface.residuals[k]!) < 0.0005 ? 1 : 0.959, 2);
    });
  });
  it('begins with the weights that it is given', () => {
    const tiles = places.map(({ x, y }, k) => tileOf(x, y, value(x, y) - (k < 40 ? 0.5 : 0)));
    const from = Float64Array.from(places, (_, k) => (k < 40 ? 0 : 1));
    expect(robustSurface(tiles, TERMS, 1, from).coefficients[0]).toBeCloseTo(-1, 2);
    expect(robustSurface(tiles, TERMS, 1).coefficients[0]).toBeLessThan(-1.1);
    expect([...from.slice(0, 2), ...from.slice(58)]).toEqual([0, 0, 1, 1]);
  });
});
