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
  const { data: bytes, width: photoWidth } = photo;
  const lastX = photo.width - 1;
  const lastY = photo.height - 1;
  const [h0, h1, h2, h3, h4, h5, h6, h7, h8] = toPhoto;
  const share = 1 / (samples * samples);
  const step = 1 / (samples * pxPerMm);
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      let red = 0;
      let green = 0;
      let blue = 0;
      let ends = 0;
      for (let v = 0; v < samples; v++) {
        const y = row / pxPerMm + (v + 0.5) * step;
        for (let u = 0; u < samples; u++) {
          const x = column / pxPerMm + (u + 0.5) * step;
          const w = h6 * x + h7 * y + h8;
          const px = (h0 * x + h1 * y + h2) / w;
          const py = (h3 * x + h4 * y + h5) / w;
          if (!(px >= 0 && py >= 0 && px < lastX && py < lastY)) {
            ends++;
            continue;
          }
          const x0 = px | 0;
          const y0 = py | 0;
          const fx = px - x0;
          const fy = py - y0;
          const p = (y0 * photoWidth + x0) * 3;
          const q = p + photoWidth * 3;
          const a = (1 - fx) * (1 - fy);
          const b = fx - fx * fy;
          const c = fy - fx * fy;
          const d = fx * fy;
          red +=
            linear[bytes[p]!]! * a + linear[bytes[p + 3]!]! * b + linear[bytes[q]!]! * c + linear[bytes[q + 3]!]! * d;
          green +=
            linear[bytes[p + 1]!]! * a +
            linear[bytes[p + 4]!]! * b +
            linear[bytes[q + 1]!]! * c +
            linear[bytes[q + 4]!]! * d;
          blue +=
            linear[bytes[p + 2]!]! * a +
            linear[bytes[p + 5]!]! * b +
            linear[bytes[q + 2]!]! * c +
            linear[bytes[q + 5]!]! * d;
          const brightest = Math.max(bytes[p]!, bytes[p + 1]!, bytes[p + 2]!);
          if (brightest >= CLIPPED_HIGH || brightest <= CLIPPED_LOW) ends++;
        }
      }
      const at = (row * width + column) * 3;
      data[at] = red * share;
      data[at + 1] = green * share;
      data[at + 2] = blue * share;
      if (ends * 2 > samples * samples) clipped[row * width + column] = 1;
    }
  }
  return { data, width, height, pxPerMm, clipped };
}
