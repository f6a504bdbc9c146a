import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../bench/random';
import { nextPair, rankedByPairs, type Comparison } from './bradley-terry';
import { tuples } from '../../../tests/support/tuples';

/**
 * Wins of seven baseball teams over each other, 1987: A. Agresti, Categorical Data Analysis (2002), table 10.10 (from memory), whose worths less the last
 * team's are 1.58, 1.44, 1.29, 1.25, 1.11, 0.68; the further digits, and those with a prior, by SciPy 1.17.
 */
const WINS = [
  [0, 7, 9, 7, 7, 9, 11],
  [6, 0, 7, 5, 11, 9, 9],
  [4, 6, 0, 7, 7, 8, 12],
  [6, 8, 6, 0, 6, 7, 10],
  [6, 2, 6, 7, 0, 7, 12],
  [4, 4, 5, 6, 6, 0, 6],
  [2, 4, 1, 3, 1, 7, 0],
];
const GAMES = WINS.flatMap((row, better) =>
  row.flatMap((times, worse) => Array.from({ length: times }, (): Comparison => ({ better, worse, equal: false }))),
);
const worthsOf = (ranked: ReturnType<typeof rankedByPairs>): number[] =>
  [...ranked].sort((a, b) => a.index - b.index).map(({ worth }) => worth);

describe('worths by pairs', () => {
  it('are the published ones where nothing is known before', () => {
    const worths = worthsOf(rankedByPairs(7, GAMES, 1e4));
    [1.58136, 1.43641, 1.29449, 1.24762, 1.1077, 0.68385, 0].forEach((worth, at) =>
      expect(worths[at]! - worths[6]!).toBeCloseTo(worth, 4),
    );
  });
  it('with a prior lie nearer together; sigmas and chances of being best are SciPy’s', () => {
    const ranked = rankedByPairs(7, GAMES);
    const worths = worthsOf(ranked);
    [0.51779, 0.37643, 0.23786, 0.19208, 0.05537, -0.35844, -1.02109].forEach((worth, at) =>
      expect(worths[at]).toBeCloseTo(worth, 4),
    );
    expect(ranked[0]).toMatchObject({ index: 0 });
    expect(ranked[0]!.sigma).toBeCloseTo(0.60272, 4);
    // By 400 000 draws: 0.5637, 0.2530, 0.0968, 0.0668, 0.0196, 0.0001, 0.
    [0.5637, 0.253, 0.0968, 0.0668].forEach((best, at) => expect(Math.abs(ranked[at]!.best - best)).toBeLessThan(0.03));
    expect(ranked.reduce((sum, { best }) => sum + best, 0)).toBeCloseTo(1, 9);
  });
  it('stay finite for what won every time, and are alike for what nobody compared', () => {
    const [first, second, third] = rankedByPairs(3, Array<Comparison>(20).fill({ better: 2, worse: 0, equal: false }));
    expect(first!.index).toBe(2);
    expect(first!.worth).toBeLessThan(6);
    expect([second!.index, third!.index]).toEqual([1, 0]);
    expect(rankedByPairs(2, []).map(({ worth }) => worth)).toEqual([0, 0]);
    expect(rankedByPairs(2, [])[0]!.best).toBeCloseTo(0.5, 1);
  });
  it('meet in the middle where two are called equal', () => {
    const both = rankedByPairs(2, [{ better: 1, worse: 0, equal: true }]);
    expect(both[0]!.worth).toBeCloseTo(both[1]!.worth, 9);
    const once = rankedByPairs(2, [
      { better: 1, worse: 0, equal: false },
      { better: 1, worse: 0, equal: true },
    ]);
    const won = rankedByPairs(2, [{ better: 1, worse: 0, equal: false }]);
    expect(once[0]!.worth).toBeLessThan(won[0]!.worth);
    expect(once[0]!.worth).toBeGreaterThan(0);
  });
  it('refuse comparisons of what is not there, or with itself', () => {
    for (const [better, worse] of tuples([0, 3], [3, 0], [0, -1], [-1, 0], [1, 1]))
      expect(() => rankedByPairs(3, [{ better, worse, equal: false }])).toThrow(/invalid comparison/);
  });
});

describe('the next pair', () => {
  /** Somebody who prefers by worths, asked until nothing more is. */
  const asked = (worths: readonly number[], seed: string): Comparison[] => {
    const random = randomFrom(seed);
    const said: Comparison[] = [];
    for (;;) {
      const pair = nextPair(worths.length, said);
      if (!pair) return said;
      const [a, b] = pair;
      const first = random() < 1 / (1 + Math.exp(worths[b]! - worths[a]!));
      said.push({ better: first ? a : b, worse: first ? b : a, equal: false });
    }
  };
  it('has everything compared once, and ends when the best is sure, long before all pairs were asked', () => {
    let [right, asks] = [0, 0];
    for (let turn = 0; turn < 16; turn++) {
      const said = asked([0, 0.5, 4, -1, 1, -2], `turn ${turn}`);
      const seen = new Set(said.flatMap(({ better, worse }) => [better, worse]));
      expect(seen.size).toBe(6);
      asks += said.length;
      if (rankedByPairs(6, said)[0]!.index === 2) right++;
    }
    expect(right).toBeGreaterThanOrEqual(14);
    expect(asks / 16).toBeLessThan(14);
  });
  it('asks no more than three times for each, of somebody who answers at random, and is not sure then', () => {
    const random = randomFrom('coin');
    const said: Comparison[] = [];
    for (let pair = nextPair(5, said); pair; pair = nextPair(5, said)) {
      const [a, b] = random() < 0.5 ? pair : [pair[1], pair[0]];
      said.push({ better: a, worse: b, equal: false });
    }
    expect(said.length).toBeLessThanOrEqual(15);
    expect(nextPair(1, [])).toBeNull();
    expect(nextPair(2, [])).toEqual([1, 0]);
  });
  it('is the best so far with one that nobody compared yet, however sure the best of the others is', () => {
    const won = Array.from({ length: 5 }, (): Comparison => ({ better: 0, worse: 1, equal: false }));
    expect(nextPair(3, won)).toEqual([0, 2]);
    expect(nextPair(2, won)).toBeNull();
    expect(nextPair(2, won.slice(0, 1))).toEqual([0, 1]);
  });
  it('is of equals the one that was asked least, and nothing with itself', () => {
    const equal = (better: number, worse: number): Comparison => ({ better, worse, equal: true });
    const around = [equal(0, 1), equal(1, 0), equal(1, 2), equal(2, 1), equal(0, 2)];
    expect([...nextPair(3, around)!].sort((a, b) => a - b)).toEqual([0, 2]);
    const other = [equal(2, 0), equal(0, 2), equal(1, 2), equal(2, 1), equal(1, 0)];
    expect([...nextPair(3, other)!].sort((a, b) => a - b)).toEqual([0, 1]);
  });
  it('goes on with those that may be the best, not with those that lost', () => {
    const lost = [3, 4, 5].flatMap((worse) => [0, 1, 2].map((better): Comparison => ({ better, worse, equal: false })));
    const [a, b] = nextPair(6, lost)!;
    expect(a).toBeLessThan(3);
    expect(b).toBeLessThan(3);
  });
});
