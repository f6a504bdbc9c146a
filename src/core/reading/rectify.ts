import { LINEAR_OF_BYTE } from '../color/srgb';
import type { Homography } from '../geometry/homography';
import { checkRaster, type LinearImage, type RgbImage } from '../image/raster';

export interface Rectified extends LinearImage {
  readonly pxPerMm: number;
  /** 1 where the photo's pixel was at either end of the camera's range or outside the photo, by rectified pixel. */
  readonly clipped: Uint8Array;
}

const CLIPPED_HIGH = 253;
const CLIPPED_LOW = 1;

/**
 * The card as seen straight on, in linear light: `pxPerMm` pixels for each millimetre, pixel (0, 0) covering the card's upper
 * left corner. Each pixel is the mean of samples x samples bilinear looks into the photo, taken in linear light.
 * `toPhoto` maps card millimetres to photo pixels, pixel centres at whole coordinates; `linear` is the light of each stored byte, sRGB's unless
 * the camera is known to bend tones. Places outside the photo are black and clipped.
 * Throws RangeError for data that do not fit their size.
 */
export function rectify(
  photo: RgbImage,
  toPhoto: Homography,
  widthMm: number,
  heightMm: number,
  pxPerMm: number,
  samples: number,
  linear: Float32Array = LINEAR_OF_BYTE,
): Rectified {
  checkRaster(photo, 3);
  const width = Math.round(widthMm * pxPerMm);
  const height = Math.round(heightMm * pxPerMm);
  const data = new Float32Array(width * height * 3);
  const clipped = new Uint8Array(width * height);
  const sums = new Float64Array(width * 3);
  const ends = new Uint8Array(width);
  const step = 1 / (samples * pxPerMm);
  const share = 1 / (samples * samples);
  for (let row = 0; row < height; row++) {
    sums.fill(0);
    ends.fill(0);
    for (let v = 0; v < samples; v++)
      lookAlong(photo, toPhoto, linear, row / pxPerMm + (v + 0.5) * step, step, samples, sums, ends);
    const at = row * width;
    for (let index = 0; index < sums.length; index++) data[3 * at + index] = sums[index]! * share;
    for (let column = 0; column < width; column++) if (ends[column]! * 2 > samples * samples) clipped[at + column] = 1;
  }
  return { data, width, height, pxPerMm, clipped };
}

/**
 * Looks into the photo along a line of the card at y, `step` mm apart from half a step on: adds what they see to the sums of their pixels, so many looks
 * to each, and to `ends` where they see an end of the camera's range or nothing. Millions of looks are taken: nothing is made for any of them.
 */
function lookAlong(
  { data: bytes, width, height }: RgbImage,
  [h0, h1, h2, h3, h4, h5, h6, h7, h8]: Homography,
  linear: Float32Array,
  y: number,
  step: number,
  samples: number,
  sums: Float64Array,
  ends: Uint8Array,
): void {
  const lastX = width - 1;
  const lastY = height - 1;
  const below = width * 3;
  const xOfRow = h1 * y + h2;
  const yOfRow = h4 * y + h5;
  const wOfRow = h7 * y + h8;
  let look = 0;
  for (let column = 0; column < ends.length; column++) {
    let red = 0;
    let green = 0;
    let blue = 0;
    for (let u = 0; u < samples; u++) {
      const x = (look++ + 0.5) * step;
      const scale = 1 / (h6 * x + wOfRow);
      const px = (h0 * x + xOfRow) * scale;
      const py = (h3 * x + yOfRow) * scale;
      if (!(px >= 0 && py >= 0 && px < lastX && py < lastY)) {
        ends[column]!++;
        continue;
      }
      const x0 = px | 0;
      const y0 = py | 0;
      const fx = px - x0;
      const fy = py - y0;
      const p = (y0 * width + x0) * 3;
      const q = p + below;
      const d = fx * fy;
      const b = fx - d;
      const c = fy - d;
      const a = 1 - fx - c;
      const byteRed = bytes[p]!;
      const byteGreen = bytes[p + 1]!;
      const byteBlue = bytes[p + 2]!;
      red += linear[byteRed]! * a + linear[bytes[p + 3]!]! * b + linear[bytes[q]!]! * c + linear[bytes[q + 3]!]! * d;
      green +=
        linear[byteGreen]! * a + linear[bytes[p + 4]!]! * b + linear[bytes[q + 1]!]! * c + linear[bytes[q + 4]!]! * d;
      blue +=
        linear[byteBlue]! * a + linear[bytes[p + 5]!]! * b + linear[bytes[q + 2]!]! * c + linear[bytes[q + 5]!]! * d;
      const brightest = Math.max(byteRed, byteGreen, byteBlue);
      if (brightest >= CLIPPED_HIGH || brightest <= CLIPPED_LOW) ends[column]!++;
    }
    sums[3 * column]! += red;
    sums[3 * column + 1]! += green;
    sums[3 * column + 2]! += blue;
  }
}
