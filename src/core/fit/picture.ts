import { Matrix, solve } from 'ml-matrix';
import { lightnessOfLuminance, luminanceOfLightness } from '../color/lab';
import { unpackGreys, type Greys } from '../picture/greys';
import { averaged } from '../picture/sample';

/** A picture as it came out, in blocks. */
export interface SeenPicture {
  readonly columns: number;
  readonly rows: number;
  /** L* of each block less bare stock's; null where nothing is seen. */
  readonly deltas: readonly (number | null)[];
}

export interface PictureFit {
  /** How far the picture's strongest is from bare stock, in L*: what makes wanted and seen alike. */
  readonly strongest: number;
  /** How far the picture lies to the right of, and below, where it was drawn. */
  readonly shiftMm: { readonly x: number; readonly y: number };
  /** L* by which blocks that are compared are off, root of the mean square. */
  readonly rmsL: number;
  /** Mean by which light, middle and dark parts came out stronger than wanted, in L*; null where the picture has next to none of them. */
  readonly offByTone: readonly [light: number | null, middle: number | null, dark: number | null];
  readonly columns: number;
  readonly rows: number;
  /** Strength that was wanted of each block, that was seen, and the difference; NaN where it is not compared. */
  readonly wanted: Float32Array;
  readonly seen: Float32Array;
  readonly off: Float32Array;
}

/** Blocks at the rim are not compared: the camera softens the picture's edge into bare stock. */
const RIM = 2;
/** A picture of fewer blocks, or of which less is seen, tells nothing. */
const LEAST_BLOCKS = 100;
const LEAST_SEEN = 0.8;
const TURNS = 6;
/** Nothing lies further from where it was drawn: markers would not have been found. */
const MOST_SHIFT_MM = 0.6;
/** Tones are told in thirds, where a picture has at least so much of each. */
const LEAST_OF_TONE = 0.03;

/** An eye tells places apart that are so many radians from each other: a minute of arc. */
const EYE = Math.PI / 180 / 60;
/** Usual distance to look from, in mm. */
export const VIEWING_MM = 300;

/** Blocks as an eye at the viewing distance has them: each with its neighbours, by a Gaussian; what is not seen stays so. */
function asSeen(blocks: Float32Array, columns: number, rows: number, blockMm: number): Float32Array {
  // A block is itself an average, of the variance of an even spread over its width.
  const sigma = Math.sqrt(Math.max(0, (EYE * VIEWING_MM) ** 2 - blockMm ** 2 / 12)) / blockMm;
  if (sigma < 0.05) return blocks;
  const reach = Math.ceil(3 * sigma);
  const kernel = Array.from({ length: 2 * reach + 1 }, (_, k) => Math.exp(-0.5 * ((k - reach) / sigma) ** 2));
  const along = (from: Float32Array, step: number, length: number, starts: number, stride: number): Float32Array => {
    const out = new Float32Array(from.length);
    for (let start = 0; start < starts; start++)
      for (let place = 0; place < length; place++) {
        const at = start * stride + place * step;
        let [sum, weight] = [0, 0];
        for (let k = -reach; k <= reach; k++) {
          const value = from[at + k * step];
          if (place + k < 0 || place + k >= length || Number.isNaN(value)) continue;
          sum += value! * kernel[k + reach]!;
          weight += kernel[k + reach]!;
        }
        out[at] = Number.isNaN(from[at]) ? NaN : sum / weight;
      }
    return out;
  };
  return along(along(blocks, 1, columns, rows, columns), columns, rows, columns, 1);
}

/**
 * How a picture came out against what was wanted of it, block by block, after the blur of an eye 300 mm away. What was wanted is averaged as light, as
 * camera and eye do. How strong its strongest is, and where it lies, are taken from the photo itself, by least squares: tones are compared, not depth or
 * place, which are told beside. Null where too little is seen, or where nothing of what was wanted is.
 *
 * Strengths are L* from bare stock, the way the burn turns: `way` is -1 for stock that darkens. Source of the linear step: B. D. Lucas, T. Kanade,
 * Proc. 7th IJCAI (1981) 674.
 */
export function comparePicture(
  wanted: Greys,
  { columns, rows, deltas }: SeenPicture,
  {
    widthMm,
    heightMm,
    bareLightness,
    way,
  }: { readonly widthMm: number; readonly heightMm: number; readonly bareLightness: number; readonly way: 1 | -1 },
): PictureFit | null {
  const blockMm = widthMm / columns;
  const inside = (at: number): boolean => {
    const [column, row] = [at % columns, Math.floor(at / columns)];
    return column >= RIM && row >= RIM && column < columns - RIM && row < rows - RIM;
  };
  const places = deltas.flatMap((delta, at) => (inside(at) && delta !== null ? [at] : []));
  const all = (columns - 2 * RIM) * (rows - 2 * RIM);
  if (places.length < LEAST_BLOCKS || places.length < LEAST_SEEN * all) return null;
  const seen = asSeen(
    Float32Array.from(deltas, (delta) => (delta === null ? NaN : way * delta)),
    columns,
    rows,
    blockMm,
  );
  const bytes = unpackGreys(wanted);

  let [strongest, x, y] = [firstGuess(bytes, deltas, way), 0, 0];
  if (!(strongest > 0)) return null;
  let model = seen;
  for (let turn = 0; turn < TURNS; turn++) {
    model = asSeen(
      strengthOf(wanted, bytes, { strongest, x: x / widthMm, y: y / heightMm }, columns, rows, bareLightness, way),
      columns,
      rows,
      blockMm,
    );
    if (turn === TURNS - 1) break;
    const design = places.map((at) => [
      model[at]!,
      (model[at - 1]! - model[at + 1]!) / (2 * blockMm),
      ((model[at - columns]! - model[at + columns]!) * rows) / (2 * heightMm),
    ]);
    const rowsOf = new Matrix(design);
    const [scale, dx, dy] = solve(
      rowsOf.transpose().mmul(rowsOf),
      rowsOf.transpose().mmul(Matrix.columnVector(places.map((at) => seen[at]!))),
    ).to1DArray() as [number, number, number];
    if (!Number.isFinite(scale + dx + dy) || scale <= 0) return null;
    strongest *= scale;
    x = Math.max(-MOST_SHIFT_MM, Math.min(MOST_SHIFT_MM, x + dx / scale));
    y = Math.max(-MOST_SHIFT_MM, Math.min(MOST_SHIFT_MM, y + dy / scale));
  }
  const off = new Float32Array(deltas.length).fill(NaN);
  for (const at of places) off[at] = seen[at]! - model[at]!;
  const rmsL = Math.sqrt(places.reduce((sum, at) => sum + off[at]! ** 2, 0) / places.length);
  const offIn = (low: number, high: number): number | null => {
    const own = places.filter((at) => model[at]! >= low * strongest && model[at]! < high * strongest);
    return own.length < LEAST_OF_TONE * places.length ? null : own.reduce((sum, at) => sum + off[at]!, 0) / own.length;
  };
  return {
    strongest,
    shiftMm: { x, y },
    rmsL,
    offByTone: [offIn(-Infinity, 1 / 3), offIn(1 / 3, 2 / 3), offIn(2 / 3, Infinity)],
    columns,
    rows,
    wanted: model,
    seen,
    off,
  };
}

/** The strongest that makes the means alike. */
function firstGuess(bytes: Uint8Array, deltas: readonly (number | null)[], way: number): number {
  let wanted = 0;
  for (const byte of bytes) wanted += byte / 255 / bytes.length;
  const told = deltas.filter((delta): delta is number => delta !== null);
  return (way * told.reduce((sum, delta) => sum + delta, 0)) / told.length / wanted;
}

/** What is wanted of each block in L* from bare stock, averaged as light, lying so far to the right and down as a share of the picture. */
function strengthOf(
  { columns, rows }: Greys,
  bytes: Uint8Array,
  { strongest, x, y }: { readonly strongest: number; readonly x: number; readonly y: number },
  toColumns: number,
  toRows: number,
  bareLightness: number,
  way: number,
): Float32Array {
  const lightOf = Float32Array.from({ length: 256 }, (_, byte) =>
    luminanceOfLightness(Math.max(0, bareLightness + (way * strongest * byte) / 255)),
  );
  const data = Float32Array.from(bytes, (byte) => lightOf[byte]!);
  const light = averaged({ columns, rows, data }, { left: -x, top: -y, width: 1, height: 1 }, toColumns, toRows);
  return light.map((one) => way * (lightnessOfLuminance(one) - bareLightness));
}
