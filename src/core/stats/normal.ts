import { errorFunction } from 'simple-statistics';

/** Chance that a normal deviate of standard deviation `sigma` lies within ± `limit`, to 1.2e-7. 1 for sigma 0. */
export function chanceWithin(limit: number, sigma: number): number {
  return sigma === 0 ? 1 : errorFunction(limit / (sigma * Math.SQRT2));
}

/** Chance that a standard normal deviate is at most z, to 1.2e-7. Example: 0 gives 0.5. */
export function normalSum(z: number): number {
  return (1 + errorFunction(z / Math.SQRT2)) / 2;
}
