/**
 * Line energy E_l = P n / v in J/mm: delivered power P [W], passes n, speed v [mm/s].
 * No check beyond arithmetic: v = 0 gives Infinity. Common practice, no published source.
 *
 * lineEnergyJPerMm(8, 100, 1) === 0.08
 */
export function lineEnergyJPerMm(deliveredW: number, speedMmPerS: number, passes: number): number {
  return (deliveredW * passes) / speedMmPerS;
}

/**
 * Areal energy E_a = P n / (v i) in J/mm²: as line energy, divided by the line interval i [mm].
 * Common practice, no published source.
 *
 * arealEnergyJPerMm2(8, 100, 0.1, 1) === 0.8
 */
export function arealEnergyJPerMm2(
  deliveredW: number,
  speedMmPerS: number,
  intervalMm: number,
  passes: number,
): number {
  return (deliveredW * passes) / (speedMmPerS * intervalMm);
}
