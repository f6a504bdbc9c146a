import type { GrayImage } from './raster';

/**
 * Marks pixels that are darker than the mean of the (2 radius + 1)² window around them by more than `offset`: 1, others 0.
 * Windows are cut off at the image's edges. Uses a summed-area table.
 * Source: F. C. Crow, "Summed-area tables for texture mapping", SIGGRAPH 1984.
 */
export function darkerThanAround({ data, width, height }: GrayImage, radius: number, offset: number): Uint8Array {
  const stride = width + 1;
  // Sums of whole images may be larger than these hold: their differences are right all the same, since a window's own sum is not.
  const sums = new Int32Array(stride * (height + 1));
  const rowOf = (y: number): Int32Array => sums.subarray(y * stride, (y + 1) * stride);
  for (let y = 0; y < height; y++) addRow(rowOf(y + 1), rowOf(y), data.subarray(y * width, (y + 1) * width));
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const [top, bottom] = [Math.max(0, y - radius), Math.min(height, y + radius + 1)];
    const row = data.subarray(y * width, (y + 1) * width);
    markRow(out.subarray(y * width, (y + 1) * width), row, rowOf(top), rowOf(bottom), bottom - top, radius, offset);
  }
  return out;
}

/** The sums up to a row, by those up to the one above it. */
function addRow(sums: Int32Array, above: Int32Array, row: Uint8Array): void {
  let sum = 0;
  for (let x = 0; x < row.length; x++) {
    sum += row[x]!;
    sums[x + 1] = (above[x + 1]! + sum) | 0;
  }
}

function markRow(
  out: Uint8Array,
  row: Uint8Array,
  top: Int32Array,
  bottom: Int32Array,
  rows: number,
  radius: number,
  offset: number,
): void {
  const width = row.length;
  // What lies between the two rows up to a window's left and right side: each side moves on by a pixel at a time.
  let upToLeft = 0;
  for (let x = 0; x < width; x++) {
    const left = x > radius ? x - radius : 0;
    const right = x + radius + 1 < width ? x + radius + 1 : width;
    if (left > 0) upToLeft = (bottom[left]! - top[left]!) | 0;
    const sum = (bottom[right]! - top[right]! - upToLeft) | 0;
    if ((row[x]! + offset) * rows * (right - left) < sum) out[x] = 1;
  }
}
