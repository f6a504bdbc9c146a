import { cholesky, solvedBy } from './cholesky';
import { dot } from './dot';

/** How much of a pattern lies in some values. */
export interface PatternFound {
  /** What the pattern is taken times, the mean of what that may be. */
  readonly height: number;
  readonly variance: number;
  /** By how much more than none the pattern explains, with what its height was expected to be counted in: the logarithm of a Bayes factor. */
  readonly logFactor: number;
  /** What of each term goes away for each of the pattern's height. */
  readonly taken: Float64Array;
}

/**
 * Values with noise and with terms of unknown weights, among which patterns are looked for one after the other: the terms' weights are no
 * matter, and are integrated out once for all patterns. `priors` say how far from 0 each weight may lie, as standard deviations. Throws
 * RangeError for a sigma or prior that is not above 0.
 * Source: C. M. Bishop, Pattern Recognition and Machine Learning (2006), 2.3.3 and 3.5.1, with the terms' part by M. A. Woodbury's identity.
 */
export class BesideTerms {
  private readonly weights: Float64Array;
  /** Terms times the values' weights. */
  private readonly weighted: readonly Float64Array[];
  /** Covariance of the terms' weights, where there is no pattern. */
  private readonly covariance: Float64Array;
  /** What is left of the values beside the terms, times their weights. */
  private readonly left: Float64Array;

  constructor(
    private readonly values: Float64Array,
    private readonly sigmas: Float64Array,
    private readonly terms: readonly Float64Array[],
    priors: readonly number[],
  ) {
    for (const sigma of [...sigmas, ...priors]) if (!(sigma > 0)) throw new RangeError(`invalid sigma: ${sigma}`);
    this.weights = sigmas.map((sigma) => 1 / sigma ** 2);
    this.weighted = terms.map((term) => term.map((value, k) => value * this.weights[k]!));
    const count = terms.length;
    const normal = new Float64Array(count * count);
    for (let row = 0; row < count; row++)
      for (let column = 0; column < count; column++)
        normal[row * count + column] =
          dot(this.weighted[row]!, terms[column]!) + (row === column ? 1 / priors[row]! ** 2 : 0);
    // Priors keep it from having no inverse.
    const lower = cholesky(normal, count)!;
    this.covariance = new Float64Array(count * count);
    for (let column = 0; column < count; column++) {
      const unit = new Float64Array(count);
      unit[column] = 1;
      this.covariance.set(solvedBy(lower, unit), column * count);
    }
    this.left = this.besides(values).map((value, k) => value * this.weights[k]!);
  }

  /** The terms' weights that some values ask for. */
  private weightsFor(values: Float64Array): Float64Array {
    const count = this.terms.length;
    const out = new Float64Array(count);
    for (let column = 0; column < count; column++) {
      const sum = dot(this.weighted[column]!, values);
      for (let row = 0; row < count; row++) out[row]! += this.covariance[row * count + column]! * sum;
    }
    return out;
  }

  private besides(values: Float64Array): Float64Array {
    const weights = this.weightsFor(values);
    const left = values.slice();
    for (let term = 0; term < weights.length; term++) {
      const [weight, shape] = [weights[term]!, this.terms[term]!];
      for (let k = 0; k < left.length; k++) left[k]! -= weight * shape[k]!;
    }
    return left;
  }

  /** How much of a pattern there is, `prior` being the standard deviation of how much there may be. */
  find(pattern: Float64Array, prior: number): PatternFound {
    const taken = this.weightsFor(pattern);
    let precision = 1 / prior ** 2;
    for (let k = 0; k < pattern.length; k++) precision += this.weights[k]! * pattern[k]! * pattern[k]!;
    for (let term = 0; term < taken.length; term++) precision -= taken[term]! * dot(this.weighted[term]!, pattern);
    const along = dot(pattern, this.left);
    const height = along / precision;
    return {
      height,
      variance: 1 / precision,
      logFactor: (along * height - Math.log(prior ** 2 * precision)) / 2,
      taken,
    };
  }

  /** What each value is off by beside the terms and a pattern of such a height, in its own sigmas. */
  off(pattern: Float64Array, height: number): Float64Array {
    return this.besides(this.values.map((value, k) => value - height * pattern[k]!)).map(
      (value, k) => value / this.sigmas[k]!,
    );
  }
}
