/**
 * Error function, to 1.2e-7 absolute. Source: W. H. Press and others, Numerical Recipes in C, 2nd ed. (1992), section 6.2 (erfcc).
 *
 * erf(1) ≈ 0.8427008
 */
export function erf(x: number): number {
  const z = Math.abs(x);
  const t = 1 / (1 + 0.5 * z);
  const tail =
    t *
    Math.exp(
      -z * z -
        1.26551223 +
        t *
          (1.00002368 +
            t *
              (0.37409196 +
                t *
                  (0.09678418 +
                    t *
                      (-0.18628806 +
                        t *
                          (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277)))))))),
    );
  return x >= 0 ? 1 - tail : tail - 1;
}

/** Chance that a normal deviate of standard deviation `sigma` lies within ± `limit`. 1 for sigma 0. */
export function chanceWithin(limit: number, sigma: number): number {
  return sigma === 0 ? 1 : erf(limit / (sigma * Math.SQRT2));
}
