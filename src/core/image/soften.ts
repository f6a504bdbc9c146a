import type { GrayImage } from './raster';

/**
 * Mean over a square window of `windowPx` pixels around each pixel (odd; the next odd number is taken), cut off at the image's edges: a
 * hatch of that pitch comes out as an even gray. The image itself for a window of one pixel.
 */
export function softened(image: GrayImage, windowPx: number): GrayImage {
  const radius = Math.max(0, Math.round((windowPx - 1) / 2));
  if (radius === 0) return image;
  const { width, height } = image;
  const across = means(image.data, width, height, 1, width, radius);
  return { width, height, data: means(across, height, width, width, 1, radius) };
}

/** Running means along lines of `length` values, `step` apart; lines begin `stride` apart. */
function means(
  data: Uint8Array,
  length: number,
  lines: number,
  step: number,
  stride: number,
  radius: number,
): Uint8Array {
  const out = new Uint8Array(data.length);
  for (let line = 0; line < lines; line++) {
    const start = line * stride;
    let sum = 0;
    let count = 0;
    for (let at = 0; at < Math.min(radius, length); at++) {
      sum += data[start + at * step]!;
      count++;
    }
    for (let at = 0; at < length; at++) {
      if (at + radius < length) {
        sum += data[start + (at + radius) * step]!;
        count++;
      }
      if (at - radius - 1 >= 0) {
        sum -= data[start + (at - radius - 1) * step]!;
        count--;
      }
      out[start + at * step] = Math.round(sum / count);
    }
  }
  return out;
}

/** The part of an image inside a rectangle of whole pixels, cut to the image. */
export function cropped(image: GrayImage, left: number, top: number, width: number, height: number): GrayImage {
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    data.set(image.data.subarray((top + y) * image.width + left, (top + y) * image.width + left + width), y * width);
  return { width, height, data };
}
