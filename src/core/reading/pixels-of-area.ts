import { luminance } from '../color/srgb';
import type { Rect } from '../geometry/point';
import type { Rectified } from './rectify';

/** Pixels from `left` to the one before `right`, and from `top` to the one before `bottom`. */
export interface PixelBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/**
 * The pixels of a straightened card that an area in mm holds: its edges go to the nearest edge of a pixel and are cut to the picture's, so that an area
 * beside the picture has none.
 *
 * 2 by 1 mm at (1, 3) with 10 pixels to a millimetre: 10 to 30 across, 30 to 40 down.
 */
export function pixelsOfArea(
  { width, height, pxPerMm }: Pick<Rectified, 'width' | 'height' | 'pxPerMm'>,
  area: Rect,
): PixelBox {
  const cut = (mm: number, most: number): number => Math.max(0, Math.min(most, Math.round(mm * pxPerMm)));
  return {
    left: cut(area.x, width),
    top: cut(area.y, height),
    right: cut(area.x + area.width, width),
    bottom: cut(area.y + area.height, height),
  };
}

/** Luminance of every pixel of an area, row by row. */
export function luminancesIn(image: Rectified, area: Rect): Float64Array {
  const { data, width } = image;
  const { left, top, right, bottom } = pixelsOfArea(image, area);
  const light = new Float64Array((right - left) * (bottom - top));
  let count = 0;
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++) {
      const at = 3 * (y * width + x);
      light[count++] = luminance(data[at]!, data[at + 1]!, data[at + 2]!);
    }
  return light;
}

/** Share of an area's pixels that are at either end of the camera's range; NaN for an area without any. */
export function clippedShareIn(image: Rectified, area: Rect): number {
  const { clipped, width } = image;
  const { left, top, right, bottom } = pixelsOfArea(image, area);
  let count = 0;
  for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) count += clipped[y * width + x]!;
  return count / ((right - left) * (bottom - top));
}
