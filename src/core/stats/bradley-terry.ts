import { CholeskyDecomposition, inverse, Matrix } from 'ml-matrix';
import seedrandom from 'seedrandom';

/** One comparison of two things, by index: which was better, or that neither was. */
export interface Comparison {
  readonly better: number;
  readonly worse: number;
  readonly equal: boolean;
}

export interface Ranked {
  readonly index: number;
  /** How much better it is, on the scale on which a lead of 1 wins 73 of 100 comparisons; their mean is 0. */
  readonly worth: number;
  readonly sigma: number;
  /** Chance that it is the best of all. */
  readonly best: number;
}

/** How far apart things may lie before anybody compared them: one standard deviation. A lead of two of them wins 95 of 100. */
const PRIOR = 1.5;
const MOST_STEPS = 100;
const DRAWS = 2000;

/** Source: G. E. P. Box, M. E. Muller, Ann. Math. Statist. 29 (1958) 610. */
const standardNormal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

const chanceOf = (lead: number): number => 1 / (1 + Math.exp(-lead));

/**
 * What things are worth by comparisons of two at a time, best first: the chance that one is called better grows with its lead. Equals count half
 * for either. A prior holds what nobody compared, and what won every time, at a distance. Chances of being the best by draws from the normal law
 * about the most likely worths, from a fixed seed. Throws RangeError for a comparison of what is not there, or of something with itself.
 * Source: R. A. Bradley, M. E. Terry, Biometrika 39 (1952) 324; the prior as in F. Caron, A. Doucet, J. Comput. Graph. Stat. 21 (2012) 174.
 */
export function rankedByPairs(count: number, comparisons: readonly Comparison[], prior = PRIOR): Ranked[] {
  for (const { better, worse } of comparisons)
    if (!(better >= 0 && better < count && worse >= 0 && worse < count) || better === worse)
      throw new RangeError(`invalid comparison: ${better} with ${worse}`);
  let worths = new Array<number>(count).fill(0);
  /** Slope and bend of the log posterior. */
  const curve = (): { slope: Matrix; bend: Matrix } => {
    const slope = Matrix.columnVector(worths.map((worth) => -worth / prior ** 2));
    const bend = Matrix.eye(count, count).mul(1 / prior ** 2);
    const add = (matrix: Matrix, row: number, column: number, by: number): void =>
      void matrix.set(row, column, matrix.get(row, column) + by);
    for (const { better, worse, equal } of comparisons) {
      const chance = chanceOf(worths[better]! - worths[worse]!);
      const gain = (equal ? 0.5 : 1) - chance;
      add(slope, better, 0, gain);
      add(slope, worse, 0, -gain);
      const information = chance * (1 - chance);
      add(bend, better, better, information);
      add(bend, worse, worse, information);
      add(bend, better, worse, -information);
      add(bend, worse, better, -information);
    }
    return { slope, bend };
  };
  for (let step = 0; step < MOST_STEPS; step++) {
    const { slope, bend } = curve();
    const change = new CholeskyDecomposition(bend).solve(slope).to1DArray();
    worths = worths.map((worth, at) => worth + change[at]!);
    if (Math.max(...change.map(Math.abs), 0) < 1e-10) break;
  }
  const covariance = inverse(curve().bend);
  const factor = new CholeskyDecomposition(
    Matrix.add(covariance, covariance.transpose()).mul(0.5),
  ).lowerTriangularMatrix.to2DArray();
  const random = seedrandom.alea('best of all');
  const wins = new Array<number>(count).fill(0);
  for (let draw = 0; draw < DRAWS; draw++) {
    const normals = worths.map(() => standardNormal(random));
    let [top, most] = [0, -Infinity];
    worths.forEach((worth, at) => {
      const drawn = factor[at]!.reduce((sum, by, other) => sum + by * normals[other]!, worth);
      if (drawn > most) [top, most] = [at, drawn];
    });
    wins[top]!++;
  }
  return worths
    .map((worth, index) => ({
      index,
      worth,
      sigma: Math.sqrt(covariance.get(index, index)),
      best: wins[index]! / DRAWS,
    }))
    .sort((a, b) => b.worth - a.worth || a.index - b.index);
}

/** So sure of the best one, nothing more is asked. */
export const SURE_OF_BEST = 0.8;
/** Nor after so many comparisons for each thing: an eye tires. */
const MOST_FOR_EACH = 3;

/**
 * Which two to compare next: the one that is most likely the best with the one whose answer would tell most about that; two that nobody compared
 * yet first. Null where the best is sure, or where enough was asked.
 */
export function nextPair(count: number, comparisons: readonly Comparison[]): readonly [number, number] | null {
  if (count < 2 || comparisons.length >= MOST_FOR_EACH * count) return null;
  const ranked = rankedByPairs(count, comparisons);
  const compared = (index: number): number =>
    comparisons.filter(({ better, worse }) => better === index || worse === index).length;
  const together = (a: number, b: number): number =>
    comparisons.filter(({ better, worse }) => (better === a && worse === b) || (better === b && worse === a)).length;
  const [first] = ranked;
  const open = ranked.filter(({ index }) => compared(index) === 0);
  if (open.length === 0 && first!.best >= SURE_OF_BEST) return null;
  if (open.length > 0) {
    const other = ranked.find(({ index }) => index !== open[0]!.index && compared(index) > 0) ?? open[1]!;
    return [other.index, open[0]!.index];
  }
  let next: { readonly pair: readonly [number, number]; readonly worth: number } | null = null;
  for (const a of ranked)
    for (const b of ranked) {
      if (a.worth < b.worth || a.index === b.index) continue;
      const chance = chanceOf(a.worth - b.worth);
      // How much either may be the best, how open the answer is, and how seldom it was asked.
      const worth = ((a.best + b.best) * chance * (1 - chance)) / (1 + together(a.index, b.index));
      if (next === null || worth > next.worth) next = { pair: [a.index, b.index], worth };
    }
  return next?.pair ?? null;
}
