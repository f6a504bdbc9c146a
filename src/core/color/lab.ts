const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

const f = (t: number): number => (t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116);

/**
 * CIE 1976 lightness L* of a luminance relative to white. Negative values are taken as 0; above 1 gives more than 100.
 * Source: CIE 15:2018, with the exact rational constants.
 *
 * lightnessOfLuminance(0.184187) ≈ 50
 */
export function lightnessOfLuminance(relativeLuminance: number): number {
  return 116 * f(Math.max(0, relativeLuminance)) - 16;
}

/** Inverse of `lightnessOfLuminance`. */
export function luminanceOfLightness(lightness: number): number {
  const root = (lightness + 16) / 116;
  return lightness > KAPPA * EPSILON ? root ** 3 : lightness / KAPPA;
}
