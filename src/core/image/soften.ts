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

/** Running means along each column, all columns of a row at a time: a column's own values lie far from each other. */
function meansDown({ data, width, height }: GrayImage, radius: number): GrayImage {
  const out = new Uint8Array(data.length);
  const sums = new Int32Array(width);
  const nothing = new Uint8Array(width);
  const unused = new Uint8Array(width);
  const rowAt = (y: number): Uint8Array => (y >= 0 && y < height ? data.subarray(y * width, (y + 1) * width) : nothing);
  for (let y = 0; y < radius; y++) slide(sums, rowAt(y), nothing, unused, 1);
  for (let y = 0; y < height; y++) {
    const rows = Math.min(height, y + radius + 1) - Math.max(0, y - radius);
    slide(sums, rowAt(y + radius), rowAt(y - radius - 1), out.subarray(y * width, (y + 1) * width), rows);
  }
  return { data: out, width, height };
}

/** Takes a row into the sums of columns and one out of them, and writes their means over so many rows. */
function slide(sums: Int32Array, into: Uint8Array, outOf: Uint8Array, means: Uint8Array, rows: number): void {
  const share = 1 / rows;
  for (let x = 0; x < sums.length; x++) {
    const sum = sums[x]! + into[x]! - outOf[x]!;
    sums[x] = sum;
    means[x] = (sum * share + 0.5) | 0;
  }
}

/** The part of an image inside a rectangle of whole pixels, cut to the image. */
export function cropped(image: GrayImage, left: number, top: number, width: number, height: number): GrayImage {
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    data.set(image.data.subarray((top + y) * image.width + left, (top + y) * image.width + left + width), y * width);
  return { width, height, data };
}
