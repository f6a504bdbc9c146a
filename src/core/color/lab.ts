import { luminance } from './srgb';

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

/** sRGB's primaries as X and Z, each over white's, so that white is neutral to the last digit. Source: IEC 61966-2-1:1999. */
const X_OVER_WHITE = [0.4124 / 0.9505, 0.3576 / 0.9505, 0.1805 / 0.9505] as const;
const Z_OVER_WHITE = [0.0193 / 1.089, 0.1192 / 1.089, 0.9505 / 1.089] as const;

/** CIE 1976 a* (reddish over greenish) and b* (yellowish over bluish). */
export interface Chroma {
  readonly a: number;
  readonly b: number;
}

/**
 * CIE 1976 a* and b* of linear sRGB light, white being 1, 1, 1. Source: CIE 15:2018; IEC 61966-2-1:1999 for the primaries.
 *
 * chromaOfLinear(1, 0, 0) ≈ { a: 80.1, b: 67.2 }
 */
export function chromaOfLinear(red: number, green: number, blue: number): Chroma {
  const along = ([r, g, b]: readonly [number, number, number]): number =>
    f(Math.max(0, r * red + g * green + b * blue));
  const y = f(Math.max(0, luminance(red, green, blue)));
  return { a: 500 * (along(X_OVER_WHITE) - y), b: 200 * (y - along(Z_OVER_WHITE)) };
}
