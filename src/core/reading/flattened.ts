import { byteOfLinear } from '../color/srgb';
import type { RgbImage } from '../image/raster';
import type { Rectified } from './rectify';

/**
 * The straightened card as it would look under even light: each pixel's ratio to the light there (on bare stock, or of the open light table), times the
 * colour that this light is shown with. The light is looked up once for each 8 x 8 pixels: it has no finer detail.
 */
export function flattened(
  rectified: Rectified,
  light: { at(xMm: number, yMm: number): readonly [number, number, number] },
  shownAs: readonly [number, number, number],
): RgbImage {
  const { width, height, data, pxPerMm } = rectified;
  const out = new Uint8Array(width * height * 3);
  const block = 8;
  for (let top = 0; top < height; top += block) {
    for (let left = 0; left < width; left += block) {
      const bare = light.at((left + block / 2) / pxPerMm, (top + block / 2) / pxPerMm);
      const red = shownAs[0] / bare[0];
      const green = shownAs[1] / bare[1];
      const blue = shownAs[2] / bare[2];
      for (let y = top; y < Math.min(height, top + block); y++) {
        for (let x = left; x < Math.min(width, left + block); x++) {
          const at = (y * width + x) * 3;
          out[at] = byteOfLinear(data[at]! * red);
          out[at + 1] = byteOfLinear(data[at + 1]! * green);
          out[at + 2] = byteOfLinear(data[at + 2]! * blue);
        }
      }
    }
  }
  return { data: out, width, height };
}
