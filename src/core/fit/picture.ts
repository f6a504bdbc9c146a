import { Matrix, solve } from 'ml-matrix';
import { lightnessOfLuminance, luminanceOfLightness } from '../color/lab';
import { unpackGreys, type Greys } from '../picture/greys';
import { averaged } from '../picture/sample';
import { distanceOfSide } from '../picture/viewing';

/** A picture as it came out, in blocks. */
export interface SeenPicture {
  readonly columns: number;
  readonly rows: number;
  /** L* of each block less bare stock's; null where nothing is seen. */
  readonly deltas: readonly (number | null)[];
}

export interface PictureFit {
  /** L* from bare stock that makes wanted and seen alike as a whole, for what is wanted of the strongest. */
  readonly strongest: number;
  /** L* from bare stock of what was to be as strong as can be, as it is seen; null where the picture has next to none of that. */
  readonly black: number | null;
  /** How far the picture lies to the right of, and below, where it was drawn. */
  readonly shiftMm: { readonly x: number; readonly y: number };
  /** L* by which blocks that are compared are off, root of the mean square. */
  readonly rmsL: number;
  /** Mean by which light, middle and dark parts came out stronger than wanted, in L*; null where the picture has next to none of them. */
  readonly offByTone: readonly [light: number | null, middle: number | null, dark: number | null];
  /** From how far away an eye blurs as much as a block does. */
  readonly viewingMm: number;
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
/** Blocks of which at least so much is wanted are black, where there are so many of them as a share. */
const BLACK = 0.95;
const LEAST_BLACK = 0.005;
/** Tones are told in thirds, where a picture has at least so much of each. */
const LEAST_OF_TONE = 0.03;

/**
 * How a picture came out against what was wanted of it, block by block: as an eye sees it that blurs as a block does. What was wanted is averaged as light, as
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
  const seen = Float32Array.from(deltas, (delta) => (delta === null ? NaN : way * delta));
  const bytes = unpackGreys(wanted);

  let [strongest, x, y] = [firstGuess(bytes, deltas, way), 0, 0];
  if (!(strongest > 0)) return null;
  let model: Float32Array = seen;
  for (let turn = 0; turn < TURNS; turn++) {
    model = strengthOf(
      wanted,
      bytes,
      { strongest, x: x / widthMm, y: y / heightMm },
      columns,
      rows,
      bareLightness,
      way,
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
  const black = places.filter((at) => model[at]! >= BLACK * strongest);
  return {
    strongest,
    black:
      black.length < LEAST_BLACK * places.length ? null : black.reduce((sum, at) => sum + seen[at]!, 0) / black.length,
    shiftMm: { x, y },
    rmsL,
    offByTone: [offIn(-Infinity, 1 / 3), offIn(1 / 3, 2 / 3), offIn(2 / 3, Infinity)],
    viewingMm: distanceOfSide(blockMm),
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
