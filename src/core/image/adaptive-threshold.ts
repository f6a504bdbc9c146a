import type { GrayImage } from './raster';

/**
 * Marks pixels that are darker than the mean of the (2 radius + 1)² window around them by more than `offset`: 1, others 0.
 * Windows are cut off at the image's edges. Sums of columns go down with the window, and the window goes along them.
 */
export function darkerThanAround({ data, width, height }: GrayImage, radius: number, offset: number): Uint8Array {
  const out = new Uint8Array(width * height);
  const columns = new Int32Array(width);
  const nothing = new Uint8Array(width);
  const rowAt = (y: number): Uint8Array => (y >= 0 && y < height ? data.subarray(y * width, (y + 1) * width) : nothing);
  for (let y = 0; y < radius; y++) exchange(columns, rowAt(y), nothing);
  for (let y = 0; y < height; y++) {
    exchange(columns, rowAt(y + radius), rowAt(y - radius - 1));
    const rows = Math.min(height, y + radius + 1) - Math.max(0, y - radius);
    markRow(out.subarray(y * width, (y + 1) * width), rowAt(y), columns, rows, radius, offset);
  }
  return out;
}

/** Takes a row into the sums of columns, and one out of them. */
function exchange(columns: Int32Array, into: Uint8Array, outOf: Uint8Array): void {
  for (let x = 0; x < columns.length; x++) columns[x] = columns[x]! + into[x]! - outOf[x]!;
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
