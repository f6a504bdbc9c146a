import type { GrayImage } from './raster';

/**
 * The gray of an image at a place between its pixels, whose centres lie at whole coordinates: bilinear between the four around it. NaN beyond the
 * centres of the outermost pixels. Expects an image of at least two by two.
 *
 * grayBetween({ data: Uint8Array.of(0, 40, 80, 120), width: 2, height: 2 }, 0.5, 0.25) -> 40
 */
export function grayBetween({ data, width, height }: GrayImage, x: number, y: number): number {
  if (!(x >= 0 && y >= 0 && x <= width - 1 && y <= height - 1)) return NaN;
  const column = Math.min(Math.floor(x), width - 2);
  const row = Math.min(Math.floor(y), height - 2);
  const fx = x - column;
  const fy = y - row;
  const at = row * width + column;
  const top = data[at]! * (1 - fx) + data[at + 1]! * fx;
  const low = data[at + width]! * (1 - fx) + data[at + width + 1]! * fx;
  return top * (1 - fy) + low * fy;
}
