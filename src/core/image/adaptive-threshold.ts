import { eachColumnSums } from './column-sums';
import type { GrayImage } from './raster';

/**
 * Marks pixels that are darker than the mean of the (2 radius + 1)² window around them by more than `offset`: 1, others 0.
 * Windows are cut off at the image's edges. Sums of columns go down with the window, and the window goes along them.
 */
export function darkerThanAround(image: GrayImage, radius: number, offset: number): Uint8Array {
  const { data, width, height } = image;
  const out = new Uint8Array(width * height);
  eachColumnSums(image, radius, (y, columns, rows) => {
    const [from, to] = [y * width, (y + 1) * width];
    markRow(out.subarray(from, to), data.subarray(from, to), columns, rows, radius, offset);
  });
  return out;
}

function markRow(
  out: Uint8Array,
  row: Uint8Array,
  columns: Int32Array,
  rows: number,
  radius: number,
  offset: number,
): void {
  const width = row.length;
  let sum = 0;
  for (let x = 0; x < Math.min(radius, width); x++) sum += columns[x]!;
  for (let x = 0; x < width; x++) {
    if (x + radius < width) sum += columns[x + radius]!;
    if (x > radius) sum -= columns[x - radius - 1]!;
    const left = x > radius ? x - radius : 0;
    const right = x + radius + 1 < width ? x + radius + 1 : width;
    if ((row[x]! + offset) * rows * (right - left) < sum) out[x] = 1;
  }
}
