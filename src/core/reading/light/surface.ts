import { Matrix, solve } from 'ml-matrix';
import { MAD_TO_SIGMA, median } from '../../stats/robust';
import type { Tile } from './bare-tiles';

/** A term of the light's logarithm, by place in card mm. */
export type Term = (x: number, y: number) => number;

const TUKEY = 4.685;
/** No photo shows stock more evenly; without a least scatter, tiles that happen to agree would leave no weight to the others. */
const LEAST_SIGMA = 5e-4;

/** Terms at places: one row for each place, all in one array. */
export interface Design {
  readonly values: Float64Array;
  readonly rows: number;
  readonly terms: number;
}

export function designOf(
  places: readonly { readonly x: number; readonly y: number }[],
  terms: readonly Term[],
): Design {
  const values = new Float64Array(places.length * terms.length);
  let at = 0;
  for (const { x, y } of places) for (const term of terms) values[at++] = term(x, y);
  return { values, rows: places.length, terms: terms.length };
}

/** The coefficients whose sum of terms lies nearest to the values, by weighted least squares. */
export function weightedFit(design: Design, wanted: ArrayLike<number>, weights: Float64Array): Float64Array {
  const { terms } = design;
  const { normal, right } = normalEquations(design, wanted, weights);
  const matrix = Matrix.zeros(terms, terms);
  for (let i = 0; i < terms; i++)
    for (let j = 0; j < terms; j++)
      matrix.set(i, j, normal[Math.max(i, j) * terms + Math.min(i, j)]! + (i === j ? 1e-9 : 0));
  return Float64Array.from(solve(matrix, Matrix.columnVector([...right])).to1DArray());
}

/** Weighted sums of products of terms, of which the lower half is filled, and of terms and values. */
function normalEquations(
  { values, rows, terms }: Design,
  wanted: ArrayLike<number>,
  weights: Float64Array,
): { readonly normal: Float64Array; readonly right: Float64Array } {
  const normal = new Float64Array(terms * terms);
  const right = new Float64Array(terms);
  for (let row = 0; row < rows; row++) {
    const weight = weights[row]!;
    if (weight === 0) continue;
    const start = row * terms;
    const want = wanted[row]!;
    for (let i = 0; i < terms; i++) {
      const wi = weight * values[start + i]!;
      right[i]! += wi * want;
      for (let j = 0; j <= i; j++) normal[i * terms + j]! += wi * values[start + j]!;
    }
  }
  return { normal, right };
}

/** Values less what coefficients make of the terms at their places. */
export function leftOver(
  { values, rows, terms }: Design,
  wanted: ArrayLike<number>,
  coefficients: Float64Array,
): Float64Array {
  const left = new Float64Array(rows);
  for (let row = 0; row < rows; row++) {
    let sum = 0;
    for (let k = 0; k < terms; k++) sum += coefficients[k]! * values[row * terms + k]!;
    left[row] = wanted[row]! - sum;
  }
  return left;
}

/** Weights that no longer change by more than this are settled. */
const SETTLED = 1e-5;

/** A surface through the logarithm of bare tiles' luminance. */
export interface Surface {
  readonly terms: readonly Term[];
  readonly design: Design;
  readonly weights: Float64Array;
  readonly coefficients: Float64Array;
  readonly residuals: Float64Array;
  /** Robust standard deviation of tiles about the surface. */
  readonly sigma: number;
}

/**
 * Iteratively reweighted least squares of the logarithm of luminance on some terms, with Tukey's biweight, so that knots and smudges weigh
 * little: so many turns at most, fewer where weights are settled. Source of the weights: A. E. Beaton, J. W. Tukey, Technometrics 16 (1974) 147.
 */
export function robustSurface(
  tiles: readonly Tile[],
  terms: readonly Term[],
  turns: number,
  from?: Float64Array,
): Surface {
  const design = designOf(tiles, terms);
  const wanted = Float64Array.from(tiles, (tile) => tile.logLuminance);
  const weights = from ? Float64Array.from(from) : new Float64Array(tiles.length).fill(1);
  let coefficients = new Float64Array(terms.length);
  let residuals = wanted;
  let sigma = 0;
  for (let turn = 0; turn < turns; turn++) {
    coefficients = weightedFit(design, wanted, weights) as Float64Array<ArrayBuffer>;
    residuals = leftOver(design, wanted, coefficients) as Float64Array<ArrayBuffer>;
    // About the surface itself, not about their median: a first surface that knots pulled lies beside all sound tiles.
    sigma = Math.max(LEAST_SIGMA, MAD_TO_SIGMA * median(residuals.map(Math.abs)));
    let changed = 0;
    for (let k = 0; k < tiles.length; k++) {
      const u = residuals[k]! / (TUKEY * sigma);
      const weight = Math.abs(u) < 1 ? (1 - u * u) ** 2 : 0;
      changed = Math.max(changed, Math.abs(weight - weights[k]!));
      weights[k] = weight;
    }
    if (changed < SETTLED) break;
  }
  return { terms, design, weights, coefficients, residuals, sigma };
}

/** The value of a sum of terms at a place. */
export function sumAt(terms: readonly Term[], coefficients: Float64Array, x: number, y: number): number {
  let sum = 0;
  for (let k = 0; k < terms.length; k++) sum += coefficients[k]! * terms[k]!(x, y);
  return sum;
}
