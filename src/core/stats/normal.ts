import { errorFunction } from 'simple-statistics';

/** Chance that a normal deviate of standard deviation `sigma` lies within ± `limit`, to 1.2e-7. 1 for sigma 0. */
export function chanceWithin(limit: number, sigma: number): number {
  return sigma === 0 ? 1 : errorFunction(limit / (sigma * Math.SQRT2));
}
