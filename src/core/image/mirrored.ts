import { checkRaster, type RgbImage } from './raster';

/** The image as a mirror shows it: left and right exchanged. Throws RangeError for data that do not fit their size. */
export function mirrored(image: RgbImage): RgbImage {
  checkRaster(image, 3);
  const { data, width, height } = image;
  const out = new Uint8Array(data.length);
  for (let y = 0; y < height; y++) {
    let to = 3 * y * width;
    for (let from = 3 * ((y + 1) * width - 1); from >= 3 * y * width; from -= 3) {
      out[to++] = data[from]!;
      out[to++] = data[from + 1]!;
      out[to++] = data[from + 2]!;
    }
  }
  return { data: out, width, height };
}
