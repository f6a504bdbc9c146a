import { describe, expect, it } from 'vitest';
import type { Fit } from '../fit/fit-bounds';
import { mateLadders, nextMates, type PairOfMates } from './mates';
import { tuples } from '../../../tests/support/tuples';

const sumsOf = ({ holesMm, partsMm }: ReturnType<typeof mateLadders>) =>
  holesMm.flatMap((hole) => partsMm.map((part) => hole + part)).sort((a, b) => a - b);

describe('ladders of holes and parts', () => {
  it('make every sum once, in even steps', () => {
    expect(mateLadders(0.1, 0.01, 2, 3)).toEqual({ holesMm: [0.05, 0.08], partsMm: [0.05, 0.06, 0.07] });
    const sums = sumsOf(mateLadders(-0.03, 0.015, 4, 4));
    expect(sums).toHaveLength(16);
    sums.forEach((sum, k) => expect(sum).toBeCloseTo(-0.03 + 0.015 * k, 9));
  });
});

/** What pairs do that are loose, slip, are snug, pressed and too tight from these steps on. */
const doAs =
  (from: readonly [number, number, number, number]) =>
  ({ tighterMm }: PairOfMates): Fit =>
    (['loose', 'slip', 'snug', 'press', 'no'] as const)[from.filter((at) => tighterMm >= at).length]!;

/** Tries what is proposed until nothing more is. */
function searched(goes: (pair: PairOfMates) => Fit, count = 16): PairOfMates[] {
  let pairs = Array.from({ length: count }, (_, k): PairOfMates => ({
    cellIndex: k,
    other: 0,
    tighterMm: k,
    fit: null,
  }));
  for (let next = nextMates(pairs); next; next = nextMates(pairs)) {
    const { cellIndex } = next;
    pairs = pairs.map((pair) => (pair.cellIndex === cellIndex ? { ...pair, fit: goes(pair) } : pair));
  }
  return pairs.filter(({ fit }) => fit !== null);
}

describe('the next pair to try', () => {
  it('is the middle one first, then the middle of what is open', () => {
    const pairs = [0, 1, 2, 3, 4].map((k): PairOfMates => ({ cellIndex: k, other: 0, tighterMm: k, fit: null }));
    expect(nextMates(pairs)?.cellIndex).toBe(2);
    expect([1, 3, 4]).toContain(
      nextMates(pairs.map((pair) => ({ ...pair, fit: pair.cellIndex === 2 ? 'loose' : null })))?.cellIndex,
    );
    expect(nextMates([])).toBeNull();
  });

  it('leaves no bound open, and most pairs that lie between two alike untried', () => {
    for (const from of tuples([3, 6, 9, 12], [0, 1, 2, 3], [12, 13, 14, 15], [5, 5, 5, 5], [16, 17, 18, 19])) {
      const tried = searched(doAs(from));
      // On either side of every bound within the ladder stands a pair that was tried.
      for (const at of from)
        for (const side of [at - 1, at])
          if (side >= 0 && side < 16) expect(tried.map(({ tighterMm }) => tighterMm)).toContain(side);
    }
    expect(searched(doAs([5, 5, 5, 5])).length).toBeLessThan(8);
    expect(searched(doAs([3, 6, 9, 12])).length).toBeLessThan(13);
  });
});
