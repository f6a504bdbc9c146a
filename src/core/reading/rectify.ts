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
 * left corner. Each pixel is the mean, in linear light, of a square of the photo, `boxPx` of its pixels wide, about where the pixel's middle looks:
 * those at its sides count by what of them lies inside, so that a square of one is a look that is interpolated between four.
 * `toPhoto` maps card millimetres to photo pixels, pixel centres at whole coordinates; `linear` is the light of each stored byte, sRGB's unless
 * the camera is known to bend tones. Places outside the photo are black and clipped.
 * Throws RangeError for data that do not fit their size, and a square that is not of whole pixels.
 */
export function rectify(
  photo: RgbImage,
  toPhoto: Homography,
  widthMm: number,
  heightMm: number,
  pxPerMm: number,
  boxPx: number,
  linear: Float32Array = LINEAR_OF_BYTE,
): Rectified {
  checkRaster(photo, 3);
  if (!Number.isInteger(boxPx) || boxPx < 1) throw new RangeError(`invalid square: ${boxPx} pixels`);
  const width = Math.round(widthMm * pxPerMm);
  const height = Math.round(heightMm * pxPerMm);
  const data = new Float32Array(width * height * 3);
  const clipped = new Uint8Array(width * height);
  const share = linear.map((light) => light / boxPx ** 2);
  for (let row = 0; row < height; row++) {
    const at = row * width;
    lookAlong(
      photo,
      toPhoto,
      share,
      (row + 0.5) / pxPerMm,
      1 / pxPerMm,
      boxPx,
      data.subarray(3 * at, 3 * (at + width)),
      clipped.subarray(at, at + width),
    );
  }
  return { data, width, height, pxPerMm, clipped };
}

/**
 * Looks into the photo along a line of the card at y, `stepMm` apart from half a step on: the sums of what the squares see, and whether most of what they
 * see is an end of the camera's range. There are millions of looks: nothing is made for any of them.
 */
function lookAlong(
  { data: bytes, width, height }: RgbImage,
  [h0, h1, h2, h3, h4, h5, h6, h7, h8]: Homography,
  linear: Float32Array,
  y: number,
  stepMm: number,
  boxPx: number,
  sums: Float32Array,
  clipped: Uint8Array,
): void {
  const endX = width - boxPx;
  const endY = height - boxPx;
  const half = (boxPx - 1) / 2;
  const xOfRow = h1 * y + h2;
  const yOfRow = h4 * y + h5;
  const wOfRow = h7 * y + h8;
  const most = (boxPx * boxPx) / 2;
  for (let column = 0; column < clipped.length; column++) {
    const x = (column + 0.5) * stepMm;
    const scale = 1 / (h6 * x + wOfRow);
    const left = (h0 * x + xOfRow) * scale - half;
    const top = (h3 * x + yOfRow) * scale - half;
    if (!(left >= 0 && top >= 0 && left < endX && top < endY)) {
      clipped[column] = 1;
      continue;
    }
    const x0 = left | 0;
    const y0 = top | 0;
    const fx = left - x0;
    const fy = top - y0;
    let red = 0;
    let green = 0;
    let blue = 0;
    let ends = 0;
    for (let v = 0; v <= boxPx; v++) {
      const down = v === 0 ? 1 - fy : v === boxPx ? fy : 1;
      let p = ((y0 + v) * width + x0) * 3;
      let across = 1 - fx;
      for (let u = 0; u < boxPx; u++, p += 3) {
        const byteRed = bytes[p]!;
        const byteGreen = bytes[p + 1]!;
        const byteBlue = bytes[p + 2]!;
        const weight = down * across;
        red += weight * linear[byteRed]!;
        green += weight * linear[byteGreen]!;
        blue += weight * linear[byteBlue]!;
        const isBright = byteRed >= CLIPPED_HIGH || byteGreen >= CLIPPED_HIGH || byteBlue >= CLIPPED_HIGH;
        // Of numbers that are no more than one, and of no others, all bits together are no more than one.
        if (v < boxPx && (isBright || (byteRed | byteGreen | byteBlue) <= CLIPPED_LOW)) ends++;
        across = 1;
      }
      const weight = down * fx;
      red += weight * linear[bytes[p]!]!;
      green += weight * linear[bytes[p + 1]!]!;
      blue += weight * linear[bytes[p + 2]!]!;
    }
    sums[3 * column] = red;
    sums[3 * column + 1] = green;
    sums[3 * column + 2] = blue;
    if (ends > most) clipped[column] = 1;
  }
}
