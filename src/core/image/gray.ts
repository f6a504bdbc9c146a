import { checkRaster, type GrayImage, type RgbImage } from './raster';

/** Luma bytes of an sRGB image (weights 77, 150, 29 of 256): for finding edges and markers, not for measuring light. */
export function grayOfRgb(image: RgbImage): GrayImage {
  checkRaster(image, 3);
  const { data, width, height } = image;
  const out = new Uint8Array(width * height);
  for (let index = 0, at = 0; index < out.length; index++, at += 3) {
    out[index] = (77 * data[at]! + 150 * data[at + 1]! + 29 * data[at + 2]! + 128) >> 8;
  }
  return { data: out, width, height };
}

/** The image made smaller by a whole factor, each pixel the mean of factor x factor; rest rows and columns are dropped. */
export function shrink(image: GrayImage, factor: number): GrayImage {
  if (!Number.isInteger(factor) || !(factor >= 1)) throw new RangeError(`invalid factor: ${factor}`);
  if (factor === 1) return image;
  const width = Math.floor(image.width / factor);
  const height = Math.floor(image.height / factor);
  const out = new Uint8Array(width * height);
  const { data, width: stride } = image;
  const area = factor * factor;
  const row = new Uint32Array(width);
  for (let y = 0; y < height; y++) {
    row.fill(0);
    for (let v = 0; v < factor; v++) {
      let at = (y * factor + v) * stride;
      for (let x = 0; x < width; x++) {
        let sum = 0;
        for (let u = 0; u < factor; u++) sum += data[at++]!;
        row[x]! += sum;
      }
    }
    for (let x = 0; x < width; x++) out[y * width + x] = row[x]! / area;
  }
  return { data: out, width, height };
}

/** Every byte turned around: 255 - value. */
export function inverted(image: GrayImage): GrayImage {
  const data = new Uint8Array(image.data.length);
  for (let at = 0; at < data.length; at++) data[at] = 255 - image.data[at]!;
  return { ...image, data };
}
