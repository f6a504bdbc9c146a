/** Median of the values; the mean of the middle two for an even count; NaN for none. Does not change its input. */
export function median(values: ArrayLike<number>): number {
  return quantile(values, 0.5);
}

/**
 * Quantile by linear interpolation between order statistics (type 7 of Hyndman & Fan, The American Statistician 50 (1996) 361).
 * NaN for no values. Does not change its input.
 */
export function quantile(values: ArrayLike<number>, share: number): number {
  const sorted = Float64Array.from(values).sort();
  if (sorted.length === 0) return NaN;
  const position = share * (sorted.length - 1);
  const below = Math.floor(position);
  const above = Math.min(sorted.length - 1, below + 1);
  return sorted[below]! + (sorted[above]! - sorted[below]!) * (position - below);
}

/** Scale to a standard deviation under a normal law: 1 / Φ⁻¹(3/4). */
export const MAD_TO_SIGMA = 1.4826;

/** Robust standard deviation: 1.4826 times the median absolute deviation from the median. NaN for no values. */
export function robustSigma(values: ArrayLike<number>): number {
  const centre = median(values);
  return MAD_TO_SIGMA * median(Float64Array.from(values, (value) => Math.abs(value - centre)));
}

export interface MeanAndSpread {
  readonly count: number;
  readonly mean: number;
  /** Sample standard deviation (n - 1); NaN below two values. */
  readonly spread: number;
}

/** Mean and sample standard deviation in two passes. NaN mean for no values. */
export function meanAndSpread(values: readonly number[]): MeanAndSpread {
  const count = values.length;
  const mean = values.reduce((sum, value) => sum + value, 0) / count;
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  return { count, mean, spread: count > 1 ? Math.sqrt(squares / (count - 1)) : NaN };
}
