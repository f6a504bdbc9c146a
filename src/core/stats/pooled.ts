/** A value with its standard uncertainty. */
export interface Uncertain {
  readonly value: number;
  readonly sigma: number;
}

/**
 * The mean of independent values weighted by one over their sigmas squared; its own sigma grows by the Birge ratio where they scatter more than they
 * should. Throws RangeError for none, or for a sigma that is not above 0. 50 and 51, each to 0.5: 50.5 to 0.5, for they lie 1.41 of their sigmas apart.
 * Source: R. T. Birge, Phys. Rev. 40 (1932) 207.
 */
export function pooled(values: readonly Uncertain[]): Uncertain {
  if (values.length === 0) throw new RangeError('missing values');
  for (const { sigma } of values) if (!(sigma > 0)) throw new RangeError(`invalid sigma: ${sigma}`);
  const total = values.reduce((sum, { sigma }) => sum + 1 / sigma ** 2, 0);
  const mean = values.reduce((sum, { value, sigma }) => sum + value / sigma ** 2, 0) / total;
  const scatter = values.reduce((sum, { value, sigma }) => sum + ((value - mean) / sigma) ** 2, 0);
  return { value: mean, sigma: Math.sqrt(Math.max(1, scatter / Math.max(1, values.length - 1)) / total) };
}
