import { chromaOfLinear, type Chroma } from '../color/lab';
import { luminance } from '../color/srgb';
import { meanAndSpread } from '../stats/robust';
import type { Ratio } from './photo-context';

/**
 * How the colour of a burn differs from its stock's, beyond being darker or lighter: CIELAB a* and b* less those of the stock's own colour at the
 * burn's luminance, with the standard uncertainty of each.
 */
export interface HueShift extends Chroma {
  readonly sigma: number;
}

/** No photo tells colour better: stored photos hold it at half the resolution and in coarse steps, the coarser the darker. */
const LEAST_SIGMA = 0.4;
const DARK_SIGMA = 0.25;

/** Of the doubt about light or tones, taken as alike in all channels for lightness, so much may differ between them. */
const BETWEEN_CHANNELS = 0.5;

function shiftOf({ red, green, blue }: Ratio, [r, g, b]: readonly [number, number, number]): Chroma {
  const seen = [red * r, green * g, blue * b] as const;
  const share = luminance(...seen) / luminance(r, g, b);
  const plain = chromaOfLinear(share * r, share * g, share * b);
  const shown = chromaOfLinear(...seen);
  return { a: shown.a - plain.a, b: shown.b - plain.b };
}

/**
 * The hue of a cell from parts of it, each as its ratio to bare stock, channel by channel: the mean of the parts, and how much they scatter. A
 * burn that takes all channels alike has none, however dark it is. `lightSigma` is how sure the cell's light is by camera and lamp, as a
 * logarithm. Throws RangeError for fewer than two parts.
 */
export function hueShift(
  parts: readonly Ratio[],
  stockLinear: readonly [number, number, number],
  lightSigma: number,
): HueShift {
  if (parts.length < 2) throw new RangeError('a hue needs two parts of a cell at least');
  const shifts = parts.map((part) => shiftOf(part, stockLinear));
  const [a, b] = [meanAndSpread(shifts.map((one) => one.a)), meanAndSpread(shifts.map((one) => one.b))];
  const bare = Math.cbrt(luminance(...stockLinear));
  const bright = Math.cbrt(Math.max(0.005, meanAndSpread(parts.map(({ green }) => green)).mean * stockLinear[1]));
  const scatter = Math.max(a.spread, b.spread) / Math.sqrt(parts.length);
  // The stock beside it is stored as coarsely: a share of its light, which counts by the cell's.
  // db* = (200 / 3) Z^(1/3) d ln Z, and less for a*.
  const byLight = (200 / 3) * bright * BETWEEN_CHANNELS * lightSigma;
  return {
    a: a.mean,
    b: b.mean,
    sigma: Math.hypot(LEAST_SIGMA, DARK_SIGMA / bright, (DARK_SIGMA * bright) / bare ** 2, scatter, byLight),
  };
}
