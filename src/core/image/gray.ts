import type { Rect } from '../geometry/point';
import { checkRaster, type GrayImage, type RgbImage } from './raster';

/** Weights of red, green and blue in a luma byte, of 256. */
const luma = (red: number, green: number, blue: number): number => (77 * red + 150 * green + 29 * blue + 128) >> 8;

/** The luma of one pixel of an sRGB image, by its number row by row. */
export const lumaAt = ({ data }: RgbImage, pixel: number): number =>
  luma(data[3 * pixel]!, data[3 * pixel + 1]!, data[3 * pixel + 2]!);

/** Luma bytes of an sRGB image (weights 77, 150, 29 of 256): for finding edges and markers, not for measuring light. */
export function grayOfRgb(image: RgbImage): GrayImage {
  checkRaster(image, 3);
  const { data, width, height } = image;
  const gray = new Uint8Array(width * height);
  lumaOf(data, gray);
  return { data: gray, width, height };
}

/** The luma of a part alone of an image, cut to the image: as {@link grayOfRgb} has it there. */
export function grayOfPart(image: RgbImage, { x, y, width, height }: Rect): GrayImage {
  checkRaster(image, 3);
  const [left, top] = [Math.max(0, x), Math.max(0, y)];
  const [right, bottom] = [Math.min(image.width, x + width), Math.min(image.height, y + height)];
  const part = { data: new Uint8Array((right - left) * (bottom - top)), width: right - left, height: bottom - top };
  for (let row = top; row < bottom; row++) {
    const start = row * image.width;
    const gray = part.data.subarray((row - top) * part.width, (row - top + 1) * part.width);
    lumaOf(image.data.subarray(3 * (start + left), 3 * (start + right)), gray);
  }
  return part;
}

/** Rows of an image that are made gray at once, in units of a factor: what they take stays near the processor, and they begin at whole words. */
const ROWS_AT_ONCE = 4;

/** The luma of an image made smaller: as {@link shrink} makes it of {@link grayOfRgb}, without the whole of that between them. */
export function grayShrunk(image: RgbImage, factor: number): GrayImage {
  checkRaster(image, 3);
  const { width, height } = image;
  if (factor === 1) return grayOfRgb(image);
  const small = emptyShrunk(image, factor);
  const strip = new Uint8Array(ROWS_AT_ONCE * factor * width);
  for (let top = 0; top < height; top += ROWS_AT_ONCE * factor) {
    const rows = Math.min(ROWS_AT_ONCE * factor, height - top);
    const gray = strip.subarray(0, rows * width);
    lumaOf(image.data.subarray(3 * top * width, 3 * (top + rows) * width), gray);
    shrinkInto(small, top / factor, { data: gray, width, height: rows }, factor);
  }
  return small;
}

/** Luma bytes of pixels of three bytes each. */
function lumaOf(data: Uint8Array, out: Uint8Array): void {
  for (let index = lumaByWords(data, out), at = 3 * index; index < out.length; index++, at += 3)
    out[index] = luma(data[at]!, data[at + 1]!, data[at + 2]!);
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
  if (factor === 1) return image;
  const small = emptyShrunk(image, factor);
  shrinkInto(small, 0, image, factor);
  return small;
}

function emptyShrunk(image: Omit<GrayImage, 'data'>, factor: number): GrayImage {
  if (!Number.isInteger(factor) || !(factor >= 1)) throw new RangeError(`invalid factor: ${factor}`);
  const [width, height] = [Math.floor(image.width / factor), Math.floor(image.height / factor)];
  return { data: new Uint8Array(width * height), width, height };
}

/** Fills rows of an image made smaller, from the first on, by an image as wide as the one that it is made of. */
function shrinkInto({ data: out, width }: GrayImage, first: number, image: GrayImage, factor: number): void {
  const { data, width: stride } = image;
  const area = factor * factor;
  const row = new Uint32Array(width);
  const rows = Math.floor(image.height / factor);
  for (let y = 0; y < rows; y++) {
    row.fill(0);
    for (let v = 0; v < factor; v++) {
      let at = (y * factor + v) * stride;
      for (let x = 0; x < width; x++) {
        let sum = 0;
        for (let u = 0; u < factor; u++) sum += data[at++]!;
        row[x]! += sum;
      }
    }
    for (let x = 0; x < width; x++) out[(first + y) * width + x] = row[x]! / area;
  }
}

/** Every byte turned around: 255 - value. */
export function inverted(image: GrayImage): GrayImage {
  const data = new Uint8Array(image.data.length);
  for (let at = 0; at < data.length; at++) data[at] = 255 - image.data[at]!;
  return { ...image, data };
}
