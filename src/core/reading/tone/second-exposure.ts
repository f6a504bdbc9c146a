import { linearToSrgb, luminance } from '../../color/srgb';
import type { RgbImage } from '../../image/raster';
import type { Rectified } from '../rectify';
import { toneCurve, type SeenTwice } from './tone-curve';
import { tonesOf, type UndoneTones } from './undone-tones';

/** One more photo of the same card in the same light, taken brighter or darker. */
export interface SecondExposure {
  readonly photo: RgbImage;
  /** Natural logarithm of how much more light the first photo was given than this one. */
  readonly logRatio: number;
  readonly logRatioSigma: number;
}

/** Side of the squares that are compared, in mm. */
const SQUARE_MM = 0.5;
/** A square whose quarters differ by more than this share, or this much of white, holds an edge: where it lies to a tenth of a millimetre would count. */
const MOST_UNEVEN = 0.15;
const UNEVEN_BY_NOISE = 0.003;
/** Straightened pixels that go together: they were looked up between the same pixels of a photo. */
const PIXELS_TOGETHER = 3;
/** Squares by how bright they are, and how many are taken of each: else bare stock alone would be heard. */
const TONES = 24;
const EACH_TONE = 60;

interface Square {
  readonly rgb: readonly [number, number, number];
  /** Standard deviation of the logarithm of its mean. */
  readonly noise: number;
}

/** The mean of a square, or null where it is uneven or at an end of the camera's range. */
function squareAt({ data, clipped, width }: Rectified, left: number, top: number, side: number): Square | null {
  let [red, green, blue, squares] = [0, 0, 0, 0];
  const quarters = [0, 0, 0, 0];
  const half = side / 2;
  for (let y = top; y < top + side; y++)
    for (let x = left; x < left + side; x++) {
      const index = y * width + x;
      if (clipped[index] === 1) return null;
      const [r, g, b] = [data[index * 3]!, data[index * 3 + 1]!, data[index * 3 + 2]!];
      red += r;
      green += g;
      blue += b;
      const bright = luminance(r, g, b);
      squares += bright ** 2;
      quarters[(y - top < half ? 0 : 2) + (x - left < half ? 0 : 1)]! += bright;
    }
  const count = side * side;
  const mean = luminance(red, green, blue) / count;
  if (!(Math.min(red, green, blue) > 0)) return null;
  const range = ((Math.max(...quarters) - Math.min(...quarters)) * 4) / count;
  if (range > MOST_UNEVEN * mean + UNEVEN_BY_NOISE) return null;
  const spread = Math.sqrt(Math.max(0, squares / count - mean ** 2));
  return { rgb: [red / count, green / count, blue / count], noise: spread / mean / Math.sqrt(count / PIXELS_TOGETHER) };
}

/**
 * Even squares of a card as two straightened photos of it show them, channel by channel, from dark to bright alike. Pictures that are not of
 * the same size have none in common.
 */
export function seenTwice(first: Rectified, second: Rectified): SeenTwice[] {
  if (first.width !== second.width || first.height !== second.height) return [];
  const side = Math.max(1, Math.round(SQUARE_MM * first.pxPerMm));
  const byTone = Array.from({ length: TONES }, (): { a: Square; b: Square; x: number; y: number }[] => []);
  for (let top = 0; top + side <= first.height; top += side)
    for (let left = 0; left + side <= first.width; left += side) {
      const [a, b] = [squareAt(first, left, top, side), squareAt(second, left, top, side)];
      if (!a || !b) continue;
      const tone = Math.min(TONES - 1, Math.floor(linearToSrgb(luminance(...a.rgb)) * TONES));
      byTone[tone]!.push({ a, b, x: left, y: top });
    }
  return byTone.flatMap((squares) => {
    const stride = Math.max(1, squares.length / EACH_TONE);
    const taken = Array.from(
      { length: Math.min(squares.length, EACH_TONE) },
      (_, k) => squares[Math.floor(k * stride)]!,
    );
    return taken.flatMap(({ a, b, x, y }) =>
      a.rgb.map((value, channel) => ({
        first: linearToSrgb(value),
        second: linearToSrgb(b.rgb[channel]!),
        noise: Math.hypot(a.noise, b.noise),
        x,
        y,
      })),
    );
  });
}

/** The tones of the first of two straightened photos undone; null where the two do not tell how. */
export function undoneTones(
  first: Rectified,
  second: Rectified,
  { logRatio, logRatioSigma }: Pick<SecondExposure, 'logRatio' | 'logRatioSigma'>,
): UndoneTones | null {
  const curve = toneCurve(seenTwice(first, second), logRatio, logRatioSigma);
  return curve && tonesOf(curve);
}
