import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { cellsASide, compare, lookAt, lookAtPairs, pairsWanted, type Comparison } from './two-looks';
import { tuples } from '../../../tests/support/tuples';

/** Values about a mean, by sums of twelve even ones: none of the project's own normal deviates. */
function values(count: number, mean: number, spread: number, random: () => number): number[] {
  const deviate = (): number => Array.from({ length: 12 }, random).reduce((sum, one) => sum + one, -6);
  return Array.from({ length: count }, () => mean + spread * deviate());
}

/** One comparison as it goes: six a side, and a second look where the first asks for it. */
function gone(difference: number, spread: number, seed: string): { last: Comparison; cells: number } {
  const random = seedrandom(seed);
  const burn = (count: number, sheet: number) =>
    lookAt(values(count, sheet, spread, random), values(count, sheet + difference, spread, random));
  const first = burn(6, 50);
  const told = compare([first], 4, 0.3);
  if (told.verdict !== 'more') return { last: told, cells: 6 };
  // Another sheet, lighter by 9.
  return { last: compare([first, burn(told.more, 59)], 4, 0.3), cells: 6 + told.more };
}

const RUNS = 600;
const share = (difference: number, spread: number): number =>
  Array.from({ length: RUNS }, (_, run) => gone(difference, spread, `two looks ${difference} ${spread} ${run}`)).filter(
    ({ last }) => last.verdict === 'differ',
  ).length / RUNS;

describe('two sides of a comparison', () => {
  it('differ by the published example, as Student’s test says', () => {
    // Sleep of ten patients by two drugs. Source: Student, Biometrika 6 (1908) 1; as two samples t = -1.861 at 18 degrees (R 4, ?sleep; from memory).
    const drugA = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0, 2];
    const drugB = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];
    const { difference, sigma, verdict } = compare([lookAt(drugA, drugB)], 1, 0.01);
    expect(difference).toBeCloseTo(1.58, 6);
    expect(difference / sigma).toBeCloseTo(1.861, 3);
    expect(verdict).toBe('more');
  });

  it('differ by the same example as pairs, which it was: each patient with himself', () => {
    const drugA = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0, 2];
    const drugB = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];
    const look = lookAtPairs(drugA.map((a, patient): [number, number] => [a, drugB[patient]!]));
    // Paired, t = -4.0621 at 9 degrees (R 4, ?sleep; from memory).
    const { difference, sigma, verdict, half } = compare([look], 1, 0.01);
    expect(difference).toBeCloseTo(1.58, 6);
    expect(difference / sigma).toBeCloseTo(4.0621, 4);
    expect(verdict).toBe('differ');
    // What all of one side are off by together counts whatever their number: 2.1701 is the normal law's 98.5 % point.
    const wide = compare([look], 1, 0.01, 0.5);
    expect(wide.half).toBeCloseTo(Math.hypot(half, 2.1701 * 0.5), 3);
    expect(wide.sigma).toBeCloseTo(Math.hypot(sigma, 0.5), 9);
    // Two looks share half of its square.
    expect(compare([look, look], 1, 0.01, 0.5).sigma).toBeCloseTo(
      Math.hypot(compare([look, look], 1, 0.01).sigma, 0.5 / Math.SQRT2),
      9,
    );
    expect(() => lookAtPairs([[1, 2]])).toThrow('too few pairs: 1');
    expect(lookAtPairs(tuples([1, 2], [1, 4]))).toMatchObject({
      aCount: 2,
      difference: 2,
      squares: expect.closeTo(2, 9),
    });
  });

  it('ask for as many pairs as a power calculation by the noncentral t law', () => {
    // Two-tailed 0.05: power 0.808 and 0.821, and 0.795 and 0.790 with one pair fewer (SciPy, scipy.stats.nct).
    expect(pairsWanted(1, 0.5, 0.05, 0.8)).toBe(34);
    expect(pairsWanted(1, 0.8, 0.05, 0.8)).toBe(15);
    expect(() => pairsWanted(1, 0)).toThrow(RangeError);
    const scattered = lookAtPairs(tuples([0, 1], [0, 9], [0, -4]));
    const { verdict, more, spread } = compare([scattered], 4, 0.3);
    expect([verdict, more]).toEqual(['more', pairsWanted(spread, 4) - 3]);
  });

  it('ask for as many values as the published tables of power', () => {
    // J. Cohen (1988), table 2.4.1, two-tailed 0.05: d 0.5 and 0.8 at power 0.8, d 1 at power 0.9 (from memory).
    expect(cellsASide(1, 0.5, 0.05, 0.8)).toBe(64);
    expect(cellsASide(1, 0.8, 0.05, 0.8)).toBe(26);
    expect(cellsASide(1, 1, 0.05, 0.9)).toBe(23);
    // Only their ratio counts.
    expect(cellsASide(3, 4)).toBe(cellsASide(6, 8));
    expect(() => cellsASide(0, 1)).toThrow(RangeError);
  });

  it('are called different by chance in under 6 of 100 over both looks', () => {
    for (const spread of [1.5, 3]) expect(share(0, spread)).toBeLessThan(0.06);
  });

  it.each([1.5, 2, 3])('are told apart where they lie 4 apart, in nine of ten, values scattering by %s', (spread) => {
    expect(share(4, spread)).toBeGreaterThanOrEqual(0.9);
  });

  it('say the largest difference that is left, which holds the truth in 94 of 100 that were not told apart', () => {
    const alike = Array.from({ length: RUNS }, (_, run) => gone(1, 1.5, `largest ${run}`).last).filter(
      ({ verdict }) => verdict === 'same',
    );
    expect(alike.length).toBeGreaterThan(RUNS / 3);
    expect(alike.filter(({ largest }) => largest >= 1).length / alike.length).toBeGreaterThan(0.94);
  });

  it('are compared within each look only: a second sheet may be darker as a whole', () => {
    const looks = [lookAt([50, 51, 49, 50], [54, 55, 53, 54]), lookAt([20, 21, 19, 20], [24, 25, 23, 24])];
    const told = compare(looks, 4, 0.1);
    expect(told).toMatchObject({ verdict: 'differ', difference: 4, more: 0 });
    // Variance within 2/3 of each side of each look: sigma² = 2/3 (1/4 + 1/4) / 2.
    expect(told.sigma).toBeCloseTo(Math.sqrt(1 / 6), 9);
  });

  it('answer at the second look whatever it finds, and are not looked at a third time', () => {
    const wide = lookAt([40, 60, 45, 55], [41, 61, 46, 56]);
    const first = compare([wide], 4, 0.3);
    expect(first.verdict).toBe('more');
    expect(first.more).toBe(cellsASide(first.spread, 4) - 4);
    expect(compare([wide, wide], 4, 0.3)).toMatchObject({ verdict: 'same', more: 0 });
    expect(() => compare([wide, wide, wide], 4, 0.3)).toThrow(RangeError);
    expect(() => compare([], 4, 0.3)).toThrow(RangeError);
    expect(() => lookAt([1], [1, 2])).toThrow(RangeError);
  });

  it('are never surer than single values are known', () => {
    const equal = lookAt([50, 50, 50], [50.4, 50.4, 50.4]);
    expect(compare([equal], 4, 0.5)).toMatchObject({ verdict: 'same', spread: 0.5 });
    expect(compare([equal], 4, 0.05).verdict).toBe('differ');
  });
});
