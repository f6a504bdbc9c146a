import { determinant, inverse, Matrix } from 'ml-matrix';
import seedrandom from 'seedrandom';
import { beforeEach, describe, expect, it } from 'vitest';
import { BesideTerms, type PatternFound } from './beside-terms';

const random = seedrandom('beside terms');
const COUNT = 9;
const among = (low: number, high: number): Float64Array =>
  Float64Array.from({ length: COUNT }, () => low + (high - low) * random());
const values = among(-1, 1);
const sigmas = among(0.1, 0.4);
const terms = [among(-1, 1), among(0, 1)];
const priors = [0.5, 3];
const pattern = among(0, 1);
const PRIOR = 2;

/** Covariance of values with these terms, and this pattern among them. */
function covariance(of: readonly (readonly [Float64Array, number])[]): Matrix {
  const all = Matrix.diag(Array.from(sigmas, (sigma) => sigma ** 2));
  for (const [term, prior] of of) {
    const column = Matrix.columnVector([...term]);
    all.add(column.mmul(column.transpose()).mul(prior ** 2));
  }
  return all;
}
const known = terms.map((term, k) => [term, priors[k]!] as const);
/** Logarithm of a normal law's density, but for what is alike for all of as many values. */
function logDensity(all: Matrix): number {
  const column = Matrix.columnVector([...values]);
  return -0.5 * (column.transpose().mmul(inverse(all)).mmul(column).get(0, 0) + Math.log(determinant(all)));
}

describe('a pattern beside terms of unknown weights', () => {
  let told: BesideTerms;
  let found: PatternFound;
  beforeEach(() => {
    told = new BesideTerms(values, sigmas, terms, priors);
    found = told.find(pattern, PRIOR);
  });

  it('is as likely as the joint normal law of all values has it', () => {
    const [withIt, without] = [covariance([...known, [pattern, PRIOR]]), covariance(known)];
    expect(found.logFactor).toBeCloseTo(logDensity(withIt) - logDensity(without), 9);
  });

  it('has the height and the variance of the joint law, given the values', () => {
    // Covariance of the height with the values, times the inverse of theirs. Source: Rasmussen & Williams (2006), A.2.
    const byAll = inverse(covariance([...known, [pattern, PRIOR]]));
    const withHeight = Matrix.columnVector([...pattern]).mul(PRIOR ** 2);
    const gain = withHeight.transpose().mmul(byAll);
    expect(found.height).toBeCloseTo(gain.mmul(Matrix.columnVector([...values])).get(0, 0), 9);
    expect(found.variance).toBeCloseTo(PRIOR ** 2 - gain.mmul(withHeight).get(0, 0), 9);
  });

  it('takes from each term what that would have explained of it', () => {
    const before = [...pattern];
    const half = pattern.map((value) => value / 2);
    expect(told.find(half, PRIOR).taken[0]).toBeCloseTo(found.taken[0]! / 2, 12);
    // A pattern that is a term, and no other, is that term but for what its prior holds back.
    const own = new BesideTerms(values, sigmas, [terms[0]!], [1e6]).find(terms[0]!, PRIOR);
    expect(own.taken[0]).toBeCloseTo(1, 6);
    expect(own.height).toBeCloseTo(0, 6);
    expect(own.variance).toBeCloseTo(PRIOR ** 2, 6);
    // What is looked for is not changed by it.
    expect([...pattern]).toEqual(before);
  });

  it('leaves over what neither it nor the terms are, in each value’s own sigmas', () => {
    const sum = pattern.map((value, k) => 0.7 * value + 0.3 * terms[0]![k]! - 2 * terms[1]![k]!);
    sum[4]! += 5 * sigmas[4]!;
    const wide = new BesideTerms(
      sum,
      sigmas.map((sigma, k) => (k === 4 ? 1e3 : sigma)),
      terms,
      [1e3, 1e3],
    );
    const off = wide.off(pattern, 0.7);
    off.forEach((by, k) => expect(by).toBeCloseTo(k === 4 ? (5 * sigmas[4]!) / 1e3 : 0, 4));
    expect(wide.off(pattern, 0).some((by) => Math.abs(by) > 0.2)).toBe(true);
  });

  it('refuses sigmas that are none', () => {
    for (const wrong of [0, -1, NaN]) {
      expect(() => new BesideTerms(values, sigmas, terms, [wrong, 1])).toThrow(/invalid sigma/);
      expect(() => new BesideTerms(values, sigmas.slice().fill(wrong, 0, 1), terms, priors)).toThrow(/invalid sigma/);
    }
  });
});
