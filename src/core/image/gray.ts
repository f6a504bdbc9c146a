import { checkRaster, type GrayImage, type RgbImage } from './raster';

/** Weights of red, green and blue in a luma byte, of 256. */
const luma = (red: number, green: number, blue: number): number => (77 * red + 150 * green + 29 * blue + 128) >> 8;

/** Luma bytes of an sRGB image (weights 77, 150, 29 of 256): for finding edges and markers, not for measuring light. */
export function grayOfRgb(image: RgbImage): GrayImage {
  checkRaster(image, 3);
  const { data, width, height } = image;
  const out = new Uint8Array(width * height);
  for (let index = lumaByWords(data, out), at = 3 * index; index < out.length; index++, at += 3)
    out[index] = luma(data[at]!, data[at + 1]!, data[at + 2]!);
  return { data: out, width, height };
}

const LOW_BYTE_FIRST = new Uint8Array(Uint32Array.of(1).buffer)[0] === 1;

/**
 * Four pixels of three bytes each are three words: read so, a photo takes half the time that its bytes do one by one. Tells how many pixels were
 * done: none where bytes lie otherwise in words, or do not begin at one.
 */
function lumaByWords(data: Uint8Array, out: Uint8Array): number {
  if (!LOW_BYTE_FIRST || data.byteOffset % 4 !== 0) return 0;
  const fours = out.length >> 2;
  // As signed words: what is larger than those would be stored away as an object, word by word.
  const words = new Int32Array(data.buffer, data.byteOffset, 3 * fours);
  for (let four = 0, word = 0, at = 0; four < fours; four++, word += 3, at += 4) {
    const a = words[word]!;
    const b = words[word + 1]!;
    const c = words[word + 2]!;
    out[at] = luma(a & 255, (a >>> 8) & 255, (a >>> 16) & 255);
    out[at + 1] = luma(a >>> 24, b & 255, (b >>> 8) & 255);
    out[at + 2] = luma((b >>> 16) & 255, b >>> 24, c & 255);
    out[at + 3] = luma((c >>> 8) & 255, (c >>> 16) & 255, c >>> 24);
  }
  return 4 * fours;
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
