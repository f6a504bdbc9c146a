import { eachColumnSums } from './column-sums';
import type { GrayImage } from './raster';

/**
 * Mean over a square window of `windowPx` pixels around each pixel (odd; the next odd number is taken), cut off at the image's edges: a
 * hatch of that pitch comes out as an even gray. The image itself for a window of one pixel.
 */
export function softened(image: GrayImage, windowPx: number): GrayImage {
  const radius = Math.max(0, Math.round((windowPx - 1) / 2));
  if (radius === 0) return image;
  return meansDown(meansAcross(image, radius), radius);
}

/** Running means along each row. */
function meansAcross({ data, width, height }: GrayImage, radius: number): GrayImage {
  const out = new Uint8Array(data.length);
  for (let y = 0; y < height; y++) {
    const start = y * width;
    let sum = 0;
    let count = 0;
    for (let x = 0; x < Math.min(radius, width); x++, count++) sum += data[start + x]!;
    for (let x = 0; x < width; x++) {
      if (x + radius < width) {
        sum += data[start + x + radius]!;
        count++;
      }
      if (x - radius - 1 >= 0) {
        sum -= data[start + x - radius - 1]!;
        count--;
      }
      // Not the rounding function: for sums that are not negative this is the same, and a quarter of the work.
      out[start + x] = (sum / count + 0.5) | 0;
    }
  }
  return { data: out, width, height };
}

/** Running means along each column. */
function meansDown(image: GrayImage, radius: number): GrayImage {
  const { width, height } = image;
  const out = new Uint8Array(width * height);
  eachColumnSums(image, radius, (y, sums, rows) => meansOf(sums, rows, out.subarray(y * width, (y + 1) * width)));
  return { data: out, width, height };
}

function meansOf(sums: Int32Array, rows: number, means: Uint8Array): void {
  const share = 1 / rows;
  for (let x = 0; x < sums.length; x++) means[x] = (sums[x]! * share + 0.5) | 0;
}
