import { lightnessOfLuminance, luminanceOfLightness } from '../color/lab';
import { LINEAR_OF_BYTE, luminance } from '../color/srgb';
import { packGreys, unpackGreys, type Greys } from './greys';

/** A part of a picture, as shares of its width and height. */
export interface Crop {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export const WHOLE: Crop = { left: 0, top: 0, width: 1, height: 1 };

/** Lights of a picture, row by row. */
export interface Lights {
  readonly columns: number;
  readonly rows: number;
  readonly data: Float32Array;
}

/** How much each place of a line of `from` places counts for one of `to` that lie on a part of it. */
function weightsAlong(from: number, start: number, length: number, to: number): { first: number; weights: number[] }[] {
  const step = (length * from) / to;
  return Array.from({ length: to }, (_, place) => {
    const middle = start * from + (place + 0.5) * step;
    // Over as much as it covers; where that is less than a place, between the two that are nearest.
    const reach = Math.max(step, 1) / 2;
    const [low, high] = [middle - reach, middle + reach];
    const first = Math.max(0, Math.min(from - 1, Math.floor(low)));
    const last = Math.max(first, Math.min(from - 1, Math.ceil(high) - 1));
    const weights = Array.from({ length: last - first + 1 }, (_, k) =>
      Math.max(0, Math.min(high, first + k + 1) - Math.max(low, first + k)),
    );
    const sum = weights.reduce((total, weight) => total + weight, 0);
    return {
      first,
      weights: sum > 0 ? weights.map((weight) => weight / sum) : weights.map((_, k) => (k === 0 ? 1 : 0)),
    };
  });
}

/** Means of light over a part of a picture, as if it had so many columns and rows; what falls beyond an edge goes on as it is there. */
export function averaged({ columns, rows, data }: Lights, crop: Crop, toColumns: number, toRows: number): Float32Array {
  const across = weightsAlong(columns, crop.left, crop.width, toColumns);
  const down = weightsAlong(rows, crop.top, crop.height, toRows);
  const narrow = new Float32Array(rows * toColumns);
  for (let row = 0; row < rows; row++)
    across.forEach(({ first, weights }, column) => {
      let sum = 0;
      for (let k = 0; k < weights.length; k++) sum += data[row * columns + first + k]! * weights[k]!;
      narrow[row * toColumns + column] = sum;
    });
  const out = new Float32Array(toRows * toColumns);
  down.forEach(({ first, weights }, row) => {
    for (let k = 0; k < weights.length; k++)
      for (let column = 0; column < toColumns; column++)
        out[row * toColumns + column]! += narrow[(first + k) * toColumns + column]! * weights[k]!;
  });
  return out;
}

/** 0 for white and 255 for black, in even steps of CIELAB L*. */
const darknessOf = (light: number): number => Math.round(255 * (1 - lightnessOfLuminance(Math.min(1, light)) / 100));
const LIGHT_OF_DARKNESS = Float32Array.from({ length: 256 }, (_, byte) => luminanceOfLightness(100 * (1 - byte / 255)));

function checkSize(columns: number, rows: number): void {
  if (!(Number.isInteger(columns) && Number.isInteger(rows) && columns > 0 && rows > 0))
    throw new RangeError(`invalid size: ${columns} by ${rows} places`);
}

/**
 * How dark a picture is (0 for white, 255 for black, in even steps of CIELAB L*) from sRGB bytes with alpha, four a pixel, averaged as light to
 * so many columns and rows. What can be seen through lies on white. Throws RangeError for bytes that do not fit the size, or for no place.
 *
 * A white and a black pixel as one: half of the light, which is an L* of 76: `[61]`
 */
export function darknessOfPixels(
  { width, height, data }: { readonly width: number; readonly height: number; readonly data: ArrayLike<number> },
  columns: number,
  rows: number,
): Greys {
  checkSize(columns, rows);
  if (!(width > 0 && height > 0) || data.length !== 4 * width * height)
    throw new RangeError(`invalid picture: ${data.length} bytes for ${width} by ${height} pixels`);
  const light = new Float32Array(width * height);
  for (let at = 0; at < light.length; at++) {
    const [red, green, blue, alpha] = [data[4 * at]!, data[4 * at + 1]!, data[4 * at + 2]!, data[4 * at + 3]! / 255];
    const own = luminance(LINEAR_OF_BYTE[red]!, LINEAR_OF_BYTE[green]!, LINEAR_OF_BYTE[blue]!);
    light[at] = own * alpha + 1 - alpha;
  }
  const means = averaged({ columns: width, rows: height, data: light }, WHOLE, columns, rows);
  return packGreys(columns, rows, Uint8Array.from(means, darknessOf));
}

/** A part of a picture as `darknessOfPixels` has it, averaged as light to so many columns and rows. Throws RangeError as that does. */
export function resampled(greys: Greys, crop: Crop, columns: number, rows: number): Greys {
  checkSize(columns, rows);
  const light = Float32Array.from(unpackGreys(greys), (byte) => LIGHT_OF_DARKNESS[byte]!);
  const means = averaged({ columns: greys.columns, rows: greys.rows, data: light }, crop, columns, rows);
  return packGreys(columns, rows, Uint8Array.from(means, darknessOf));
}
