import { meanAndSpread } from './robust';
import { studentFactor } from './student';

/** What one look at two sides tells, as little as two looks need to be joined by. */
export interface Look {
  readonly aCount: number;
  readonly bCount: number;
  /** Mean of B less mean of A. */
  readonly difference: number;
  /** Sum of squared deviations from each side's own mean; of pairs, of their differences from theirs. */
  readonly squares: number;
  /** Whether each value of B is of the same place as one of A: what places differ by then cancels. */
  readonly paired?: true;
}

export type Verdict = 'differ' | 'same' | 'more';

export interface Comparison {
  readonly verdict: Verdict;
  /** B less A, with its standard uncertainty and half the width of the interval that one look claims. */
  readonly difference: number;
  readonly sigma: number;
  readonly half: number;
  /** Standard deviation of single values. */
  readonly spread: number;
  /** The largest difference, either way, that is not excluded. */
  readonly largest: number;
  /** How many more values a side a second look wants; 0 unless the verdict is `more`. */
  readonly more: number;
}

/** Chance of each look to call chance a difference: both together stay under 6 % (Bonferroni). */
export const LOOK_LEVEL = 0.03;
export const MOST_LOOKS = 2;
/** Chance to find a difference that is worth knowing. */
const POWER = 0.9;
/** A second look with fewer values a side than this says little that the first did not. */
const LEAST_MORE = 2;

/** What values of two sides tell. Throws RangeError for fewer than two a side: one value shows no scatter. */
export function lookAt(a: readonly number[], b: readonly number[]): Look {
  if (a.length < 2 || b.length < 2) throw new RangeError(`too few values: ${a.length} and ${b.length}`);
  const [one, other] = [meanAndSpread(a), meanAndSpread(b)];
  return {
    aCount: a.length,
    bCount: b.length,
    difference: other.mean - one.mean,
    squares: one.spread ** 2 * (a.length - 1) + other.spread ** 2 * (b.length - 1),
  };
}

/** What pairs of values tell, each of one place before and after. Throws RangeError for fewer than two: one pair shows no scatter. */
export function lookAtPairs(pairs: readonly (readonly [a: number, b: number])[]): Look {
  if (pairs.length < 2) throw new RangeError(`too few pairs: ${pairs.length}`);
  const { mean, spread } = meanAndSpread(pairs.map(([a, b]) => b - a));
  const { length: count } = pairs;
  return { aCount: count, bCount: count, difference: mean, squares: spread ** 2 * (count - 1), paired: true };
}

/** Weight of a look's difference, in values of the spread squared: its variance is one over it. */
const weightOf = ({ aCount, bCount, paired }: Look): number => (paired ? aCount : 1 / (1 / aCount + 1 / bCount));
const degreesOf = ({ aCount, bCount, paired }: Look): number => (paired ? aCount - 1 : aCount + bCount - 2);

/**
 * Pairs that find a mean difference with chance `power`, by a t test on both sides of level `level`, of pairs whose differences scatter by `spread`: the
 * least n with n ≥ (spread / difference)² (t(1 - level / 2) + t(power))² at n - 1 degrees of freedom. Throws RangeError as `cellsASide` does.
 */
export const pairsWanted = (spread: number, difference: number, level = LOOK_LEVEL, power = POWER): number =>
  leastCount((spread / difference) ** 2, (n) => n - 1, level, power, spread > 0 && difference > 0);

/**
 * Values a side that find a difference between two means with chance `power`, by a t test on both sides of level `level`, of values that scatter by
 * `spread`: the least n with n ≥ 2 (spread / difference)² (t(1 - level / 2) + t(power))² at 2n - 2 degrees of freedom. Throws RangeError for a
 * spread or difference that is not above 0.
 *
 * cellsASide(1, 0.5, 0.05, 0.8) -> 64. Source: J. Cohen, Statistical Power Analysis for the Behavioral Sciences (1988), table 2.4.1.
 */
export function cellsASide(spread: number, difference: number, level = LOOK_LEVEL, power = POWER): number {
  return leastCount(2 * (spread / difference) ** 2, (n) => 2 * n - 2, level, power, spread > 0 && difference > 0);
}

function leastCount(
  ratio: number,
  degrees: (n: number) => number,
  level: number,
  power: number,
  isValid: boolean,
): number {
  if (!isValid) throw new RangeError('invalid spread or difference: both are above 0');
  const wanted = (n: number): number =>
    ratio * (studentFactor(degrees(n), 1 - level) + studentFactor(degrees(n), 2 * power - 1)) ** 2;
  // From below, where the normal law would do: Student's factors are never smaller.
  let n = Math.max(2, Math.floor(ratio * (studentFactor(1e7, 1 - level) + studentFactor(1e7, 2 * power - 1)) ** 2));
  while (n < wanted(n)) n++;
  return n;
}

/**
 * What one look at two sides, or two of them, say: that they differ; that no difference was seen, and the largest that is excluded; or that more values
 * are wanted. Values of two looks are not compared with each other, only within each look, so that two sheets may be lighter or darker. Each look may
 * err in 3 of 100, and there are two at the most: the second answers whatever it finds. `worth` is the difference that is worth knowing;
 * `leastSpread` what single values are known to no better than, and `commonSigma` what all values of one side may be off by together, which no number of
 * values makes less. Throws RangeError for no looks, or for more than two.
 */
export function compare(looks: readonly Look[], worth: number, leastSpread: number, commonSigma = 0): Comparison {
  if (looks.length === 0 || looks.length > MOST_LOOKS) throw new RangeError(`invalid number of looks: ${looks.length}`);
  const weights = looks.map(weightOf);
  const weight = weights.reduce((sum, one) => sum + one, 0);
  const difference = looks.reduce((sum, look, index) => sum + look.difference * weights[index]!, 0) / weight;
  const degrees = looks.reduce((sum, look) => sum + degreesOf(look), 0);
  const squares = looks.reduce((sum, look) => sum + look.squares, 0);
  const spread = Math.max(leastSpread, Math.sqrt(squares / degrees));
  const own = spread / Math.sqrt(weight);
  const common = commonSigma / Math.sqrt(looks.length);
  const sigma = Math.hypot(own, common);
  const half = Math.hypot(studentFactor(degrees, 1 - LOOK_LEVEL) * own, studentFactor(1e7, 1 - LOOK_LEVEL) * common);
  const told = { difference, sigma, half, spread, largest: Math.abs(difference) + half, more: 0 };
  if (Math.abs(difference) > half) return { ...told, verdict: 'differ' };
  if (told.largest <= worth || looks.length === MOST_LOOKS) return { ...told, verdict: 'same' };
  const wanted = looks[0]!.paired ? pairsWanted : cellsASide;
  const have = Math.min(looks[0]!.aCount, looks[0]!.bCount);
  return { ...told, verdict: 'more', more: Math.max(LEAST_MORE, wanted(spread, worth) - have) };
}
