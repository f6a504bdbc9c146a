import { mean, median as middleOf, medianAbsoluteDeviation, sampleStandardDeviation } from 'simple-statistics';

/** As the statistics package wants them: it only reads places and takes copies, which typed arrays do as well. */
const listed = (values: ArrayLike<number>): readonly number[] => values as readonly number[];

/** Median of the values; the mean of the middle two for an even count; NaN for none. Does not change its input. */
export function median(values: ArrayLike<number>): number {
  return values.length === 0 ? NaN : middleOf(listed(values));
}

/**
 * Quantile by linear interpolation between order statistics (type 7 of Hyndman & Fan, The American Statistician 50 (1996) 361), which the
 * statistics package does not have. NaN for no values. Does not change its input.
 */
export function quantile(values: ArrayLike<number>, share: number): number {
  const sorted = Float64Array.from(values).sort();
  const position = share * (sorted.length - 1);
  const below = Math.floor(position);
  const above = Math.min(sorted.length - 1, below + 1);
  return sorted[below]! + (sorted[above]! - sorted[below]!) * (position - below);
}

/** Scale to a standard deviation under a normal law: 1 / Φ⁻¹(3/4). */
export const MAD_TO_SIGMA = 1.4826;

/** Robust standard deviation: 1.4826 times the median absolute deviation from the median. NaN for no values. */
export function robustSigma(values: ArrayLike<number>): number {
  return values.length === 0 ? NaN : MAD_TO_SIGMA * medianAbsoluteDeviation(listed(values));
}

export interface MeanAndSpread {
  readonly count: number;
  readonly mean: number;
  /** Sample standard deviation (n - 1); NaN below two values. */
  readonly spread: number;
}

/** Mean and sample standard deviation. NaN mean for no values. */
export function meanAndSpread(values: ArrayLike<number>): MeanAndSpread {
  const count = values.length;
  return {
    count,
    mean: count > 0 ? mean(listed(values)) : NaN,
    spread: count > 1 ? sampleStandardDeviation(listed(values)) : NaN,
  };
}
