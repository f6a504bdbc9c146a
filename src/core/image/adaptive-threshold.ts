import type { GrayImage } from './raster';

/**
 * Marks pixels that are darker than the mean of the (2 radius + 1)² window around them by more than `offset`: 1, others 0.
 * Windows are cut off at the image's edges. Uses a summed-area table.
 * Source: F. C. Crow, "Summed-area tables for texture mapping", SIGGRAPH 1984.
 */
export function darkerThanAround(image: GrayImage, radius: number, offset: number): Uint8Array {
  const { data, width, height } = image;
  const stride = width + 1;
  // Sums of whole images may be larger than these hold: their differences are right all the same, since a window's own sum is not.
  const sums = new Int32Array(stride * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    const above = y * stride;
    const here = above + stride;
    for (let x = 0; x < width; x++) {
      row += data[y * width + x]!;
      sums[here + x + 1] = (sums[above + x + 1]! + row) | 0;
    }
  }
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const top = Math.max(0, y - radius) * stride;
    const bottom = Math.min(height, y + radius + 1) * stride;
    const rows = (bottom - top) / stride;
    for (let x = 0; x < width; x++) {
      const left = x > radius ? x - radius : 0;
      const right = x + radius + 1 < width ? x + radius + 1 : width;
      const sum = (sums[bottom + right]! - sums[bottom + left]! - sums[top + right]! + sums[top + left]!) | 0;
      if ((data[y * width + x]! + offset) * rows * (right - left) < sum) out[y * width + x] = 1;
    }
  }
  return out;
}
