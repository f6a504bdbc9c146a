import { srgbToLinear, type Rgb } from './srgb';

/** CIELAB colour, D65 white, 2 degree observer. */
export type Lab = readonly [lightness: number, a: number, b: number];

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;
const WHITE_D65: readonly [number, number, number] = [0.95047, 1, 1.08883];

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

/**
 * sRGB bytes to CIELAB. Sources: IEC 61966-2-1:1999 for sRGB, CIE 15:2018 for CIELAB.
 *
 * labOfSrgb([200, 160, 110]) ≈ [68.423, 8.305, 31.635]
 */
export function labOfSrgb([red, green, blue]: Rgb): Lab {
  const r = srgbToLinear(red / 255);
  const g = srgbToLinear(green / 255);
  const b = srgbToLinear(blue / 255);
  const x = f((0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / WHITE_D65[0]);
  const y = f((0.2126729 * r + 0.7151522 * g + 0.072175 * b) / WHITE_D65[1]);
  const z = f((0.0193339 * r + 0.119192 * g + 0.9503041 * b) / WHITE_D65[2]);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}
