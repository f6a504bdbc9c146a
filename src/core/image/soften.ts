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
      out[start + x] = Math.round(sum / count);
    }
  }
  return { data: out, width, height };
}

/** Running means along each column, all columns of a row at a time: a column's own values lie far from each other. */
function meansDown({ data, width, height }: GrayImage, radius: number): GrayImage {
  const out = new Uint8Array(data.length);
  const sums = new Int32Array(width);
  let count = 0;
  const add = (row: number, sign: 1 | -1): void => {
    if (row < 0 || row >= height) return;
    count += sign;
    for (let x = 0, at = row * width; x < width; x++, at++) sums[x]! += sign * data[at]!;
  };
  for (let y = 0; y < Math.min(radius, height); y++) add(y, 1);
  for (let y = 0; y < height; y++) {
    add(y + radius, 1);
    add(y - radius - 1, -1);
    for (let x = 0, at = y * width; x < width; x++, at++) out[at] = Math.round(sums[x]! / count);
  }
  return { data: out, width, height };
}

/** The part of an image inside a rectangle of whole pixels, cut to the image. */
export function cropped(image: GrayImage, left: number, top: number, width: number, height: number): GrayImage {
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    data.set(image.data.subarray((top + y) * image.width + left, (top + y) * image.width + left + width), y * width);
  return { width, height, data };
}
