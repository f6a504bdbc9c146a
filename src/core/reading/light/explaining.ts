import { Matrix, QrDecomposition } from 'ml-matrix';
import type { Tile } from './bare-tiles';
import { designOf, type Surface, type Term } from './surface';
import { dot } from '../../stats/dot';

/** An explanation is taken only where it leaves at most so much of what was left without it, */
const WORTH = 0.75;
/** and explains so many of the tiles better by this much of the logarithm. */
export const MANY = 0.08;
export const CLEARLY = 0.004;

/** Mean square of residuals that are held to so much: what one fit leaves against what another does. */
function leftBy({ residuals }: Surface, most: number): number {
  let sum = 0;
  for (const residual of residuals) sum += Math.min(residual * residual, most * most);
  return sum / residuals.length;
}

/** Share of tiles that one fit explains clearly better than another. */
function betterFor(better: Surface, other: Surface): number {
  let count = 0;
  for (let k = 0; k < other.residuals.length; k++)
    if (Math.abs(other.residuals[k]!) - Math.abs(better.residuals[k]!) > CLEARLY) count++;
  return count / other.residuals.length;
}

/**
 * Whether an explanation is worth its terms: it leaves at most three quarters of what was left without it, and explains many tiles, not only
 * the knot that lies in one place.
 */
export function isWorth(better: Surface, other: Surface): boolean {
  const most = Math.max(0.01, 4 * other.sigma);
  return leftBy(better, most) < WORTH * leftBy(other, most) && betterFor(better, other) > MANY;
}

/** Tiles that explanations are looked for on: enough for a shape, few enough for many shapes. */
const LOOKED_AT = 500;

/** What further terms would explain of what a surface leaves, on a part of the tiles, beside the surface's own: sums of squares. */
interface Explaining {
  /** The places of those tiles. */
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  by(term: Term): number;
  /** The same for a term whose values at the places are given. */
  byValues(values: Float64Array): number;
}

/**
 * How much of what a surface leaves a further term would explain beside its own. It is told by the part of the term that is square to the surface's
 * own. Source: R. Frisch, F. V. Waugh, Econometrica 1 (1933) 387.
 */
export function explaining(tiles: readonly Tile[], { terms, residuals }: Surface): Explaining {
  const stride = Math.max(1, Math.floor(tiles.length / LOOKED_AT));
  const some = tiles.filter((_, index) => index % stride === 0);
  const design = designOf(some, terms);
  const orthogonal = new QrDecomposition(Matrix.from1DArray(design.rows, design.terms, design.values)).orthogonalMatrix;
  const basis = Array.from({ length: terms.length }, (_, k) => Float64Array.from(orthogonal.getColumn(k)));
  const left = residuals.filter((_, index) => index % stride === 0);
  const leftAlong = basis.map((known) => dot(known, left));
  const byValues = (values: Float64Array): number => {
    let square = dot(values, values);
    let along = dot(values, left);
    basis.forEach((known, k) => {
      const share = dot(known, values);
      square -= share ** 2;
      along -= share * leftAlong[k]!;
    });
    return square < 1e-6 * some.length ? 0 : along ** 2 / square;
  };
  return {
    xs: Float64Array.from(some, ({ x }) => x),
    ys: Float64Array.from(some, ({ y }) => y),
    by: (term) => byValues(Float64Array.from(some, ({ x, y }) => term(x, y))),
    byValues,
  };
}
