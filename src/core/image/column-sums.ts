import type { GrayImage } from './raster';

/**
 * Sums of each column over a window of `radius` rows above and below, cut off at the image's edges, for one row after another: `visit` is given the row,
 * the sums, which are the same array each time, and how many rows they are over. No table as large as the picture is made.
 */
export function eachColumnSums(
  { data, width, height }: GrayImage,
  radius: number,
  visit: (y: number, sums: Int32Array, rows: number) => void,
): void {
  const sums = new Int32Array(width);
  const nothing = new Uint8Array(width);
  const rowAt = (y: number): Uint8Array => (y >= 0 && y < height ? data.subarray(y * width, (y + 1) * width) : nothing);
  for (let y = 0; y < radius; y++) exchange(sums, rowAt(y), nothing);
  for (let y = 0; y < height; y++) {
    exchange(sums, rowAt(y + radius), rowAt(y - radius - 1));
    visit(y, sums, Math.min(height, y + radius + 1) - Math.max(0, y - radius));
  }
}

/** Takes a row into the sums of columns, and one out of them. */
function exchange(sums: Int32Array, into: Uint8Array, outOf: Uint8Array): void {
  for (let x = 0; x < sums.length; x++) sums[x] = sums[x]! + into[x]! - outOf[x]!;
}
