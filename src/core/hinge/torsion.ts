/** Further terms of the series change nothing at any ratio: they fall by their number squared, and by a hyperbolic cosine. */
const TERMS = 40;

/**
 * k1 in τ_max = k1 G θ' b of a rectangular bar that is twisted by θ' for each unit of length, b its shorter side: 1 - 8/π² Σ 1/(n² cosh(n π a / 2 b)) over
 * odd n, a the longer side. Throws RangeError for sides of nothing.
 *
 * Sides of a ratio of 1: 0.675; 2: 0.930; 3: 0.985; an endless one: 1.
 * Source: S. P. Timoshenko and J. N. Goodier, Theory of Elasticity, torsion of rectangular bars (Saint-Venant’s solution).
 */
export function torsionCoefficient(aMm: number, bMm: number): number {
  if (!(aMm > 0 && bMm > 0)) throw new RangeError(`invalid bar: ${aMm} by ${bMm} mm`);
  const ratio = Math.max(aMm, bMm) / Math.min(aMm, bMm);
  let sum = 0;
  for (let n = 1; n < 2 * TERMS; n += 2) sum += 1 / (n * n * Math.cosh((n * Math.PI * ratio) / 2));
  return 1 - (8 / Math.PI ** 2) * sum;
}
