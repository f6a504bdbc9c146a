import type { Cell } from '../card/layout';
import type { PictureShape } from '../card/shape';
import type { Rect } from '../geometry/point';
import { unpackGreys } from '../picture/greys';
import { BARE, isLineArt } from '../picture/line-art';
import { SHARPEST_PX, type Blur } from './lines/blur';
import type { FineLight } from './lines/fine-light';
import type { FinePhoto } from './lines/lines-of-cell';

/** How far a drawing of burned and bare places stands out of what lies between, as a photo shows it. */
export interface DrawingSeen {
  /** Light that drawn places take, less what those between them do, as a share of bare stock's; negative where a burn brightens. Without what the camera blurs. */
  readonly taken: number;
  readonly takenSigma: number;
  /** The same of what lies between: near zero where it stayed bare. */
  readonly between: number;
}

/** Photo pixels to a millimetre below which no fine drawing is told. */
export const LEAST_PX_PER_MM_FOR_DRAWING = 15;
/** Nothing lies further from where it was drawn: markers would not have been found. */
const MOST_SHIFT_MM = 0.4;
const SHIFT_TURNS = 6;
/** Grid that the drawing is blurred on: so many steps to a place, and no finer than this. */
const STEPS_A_PLACE = 3;
const LEAST_STEP_MM = 0.015;
const MOST_GRID = 600_000;
/** A drawing that is next to all burned has nothing between, and tells nothing. */
const LEAST_BARE = 0.02;
/** Nor does one of which less is seen. */
const LEAST_PIXELS = 60;
const MOST_PIXELS = 30_000;
const LEAST_VARIANCE = 1e-4;

/** A drawing's coverage on a fine grid, blurred by a normal law. */
interface Blurred {
  readonly columns: number;
  readonly rows: number;
  readonly stepMm: number;
  readonly data: Float32Array;
}

function blurred({ wanted, box }: PictureShape, sigmaMm: number): Blurred {
  const bytes = unpackGreys(wanted);
  const placeMm = box.width / wanted.columns;
  const stepMm = Math.max(placeMm / STEPS_A_PLACE, LEAST_STEP_MM, Math.sqrt((box.width * box.height) / MOST_GRID));
  const columns = Math.max(1, Math.round(box.width / stepMm));
  const rows = Math.max(1, Math.round(box.height / stepMm));
  const plain = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const from = Math.min(wanted.rows - 1, Math.floor(((row + 0.5) / rows) * wanted.rows)) * wanted.columns;
    for (let column = 0; column < columns; column++)
      plain[row * columns + column] =
        bytes[from + Math.min(wanted.columns - 1, Math.floor(((column + 0.5) / columns) * wanted.columns))]! / 255;
  }
  const across = alongLines(plain, columns, rows, 1, columns, sigmaMm / stepMm);
  return { columns, rows, stepMm, data: alongLines(across, rows, columns, columns, 1, sigmaMm / stepMm) };
}

/** A normal law's blur along lines of `length` values, `step` apart; beyond the drawing's edge all is bare. */
function alongLines(
  data: Float32Array,
  length: number,
  lines: number,
  step: number,
  stride: number,
  sigma: number,
): Float32Array {
  const reach = Math.max(1, Math.ceil(3 * sigma));
  const weights = Float64Array.from({ length: 2 * reach + 1 }, (_, k) => Math.exp(-0.5 * ((k - reach) / sigma) ** 2));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const out = new Float32Array(data.length);
  for (let line = 0; line < lines; line++)
    for (let at = 0; at < length; at++) {
      let sum = 0;
      for (let k = Math.max(0, reach - at); k < Math.min(weights.length, length + reach - at); k++)
        sum += weights[k]! * data[line * stride + (at + k - reach) * step]!;
      out[line * stride + at * step] = sum / total;
    }
  return out;
}

/** Coverage at a place in mm from the drawing's upper left corner; bare outside. */
function coverageAt({ columns, rows, stepMm, data }: Blurred, x: number, y: number): number {
  const [u, v] = [x / stepMm - 0.5, y / stepMm - 0.5];
  const [u0, v0] = [Math.floor(u), Math.floor(v)];
  if (u0 < 0 || v0 < 0 || u0 + 1 >= columns || v0 + 1 >= rows) return coverageAtEdge({ columns, rows, data }, u, v);
  const [fu, fv] = [u - u0, v - v0];
  const at = v0 * columns + u0;
  const top = data[at]! * (1 - fu) + data[at + 1]! * fu;
  const bottom = data[at + columns]! * (1 - fu) + data[at + columns + 1]! * fu;
  return top * (1 - fv) + bottom * fv;
}

function coverageAtEdge({ columns, rows, data }: Omit<Blurred, 'stepMm'>, u: number, v: number): number {
  const [u0, v0] = [Math.floor(u), Math.floor(v)];
  const value = (column: number, row: number): number =>
    column < 0 || row < 0 || column >= columns || row >= rows ? 0 : data[row * columns + column]!;
  const [fu, fv] = [u - u0, v - v0];
  const top = value(u0, v0) * (1 - fu) + value(u0 + 1, v0) * fu;
  const bottom = value(u0, v0 + 1) * (1 - fu) + value(u0 + 1, v0 + 1) * fu;
  return top * (1 - fv) + bottom * fv;
}

interface Pixels {
  readonly count: number;
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  /** Light that is taken, as a share of bare stock's. */
  readonly taken: Float64Array;
}

/** The pixels of a box, or every so many of them: a large drawing has more than it takes. */
function pixelsOf(fine: FineLight, box: Rect): Pixels {
  const every = Math.max(1, Math.ceil((box.width * box.height * fine.pxPerMm ** 2) / MOST_PIXELS));
  const { count, xMm, yMm, share } = fine.pixelsOf(box, every);
  return {
    count,
    xs: xMm.map((x) => x - box.x),
    ys: yMm.map((y) => y - box.y),
    taken: share.map((light) => 1 - light),
  };
}

interface Slope {
  readonly slope: number;
  readonly between: number;
  readonly sigma: number;
  readonly residual: number;
}

/** Light that is taken by coverage, as a straight line, with the drawing moved by so much. */
function slopeOf(art: Blurred, { count, xs, ys, taken }: Pixels, dx: number, dy: number): Slope | null {
  let [sm, st, smm, smt, stt] = [0, 0, 0, 0, 0];
  for (let k = 0; k < count; k++) {
    const m = coverageAt(art, xs[k]! - dx, ys[k]! - dy);
    const t = taken[k]!;
    sm += m;
    st += t;
    smm += m * m;
    smt += m * t;
    stt += t * t;
  }
  const [mean, light] = [sm / count, st / count];
  const variance = smm / count - mean ** 2;
  if (!(variance >= LEAST_VARIANCE)) return null;
  const slope = (smt / count - mean * light) / variance;
  const residual = Math.max(0, stt / count - light ** 2 - slope ** 2 * variance);
  return { slope, between: light - slope * mean, sigma: Math.sqrt(residual / variance / count), residual };
}

/** Where the drawing lies: by halving steps about the best place so far. */
function shiftOf(art: Blurred, pixels: Pixels): { x: number; y: number } {
  const offAt = (x: number, y: number): number => slopeOf(art, pixels, x, y)?.residual ?? Infinity;
  let best = { x: 0, y: 0, off: offAt(0, 0) };
  for (let step = MOST_SHIFT_MM / 4, turn = 0; turn < SHIFT_TURNS; turn++, step /= turn > 2 ? 2 : 1) {
    const around = [-1, 0, 1].flatMap((u) => [-1, 0, 1].map((v) => ({ x: best.x + u * step, y: best.y + v * step })));
    for (const { x, y } of around) {
      if (Math.abs(x) > MOST_SHIFT_MM || Math.abs(y) > MOST_SHIFT_MM) continue;
      const off = offAt(x, y);
      if (off < best.off) best = { x, y, off };
    }
  }
  return best;
}

/**
 * How far the drawn places of a cell stand out of what lies between them, by the photo's own pixels: light falls in a straight line with how much of a
 * pixel is drawn, as a camera of that blur would show a perfect burn of it. Its slope is what is left of a perfect one: less where strokes are faint, and
 * less where gaps are filled. Null for a cell that is no drawing of burned and bare places, below 15 pixels to a millimetre, and where the blur is not known.
 */
export function drawingOfCell({ fine, blur }: FinePhoto, { burns }: Pick<Cell, 'burns'>): DrawingSeen | null {
  const [burn, ...others] = burns;
  if (!burn || others.length > 0 || burn.shape.do !== 'picture' || burn.shape.table || !isLineArt(burn.shape.wanted))
    return null;
  const bytes = unpackGreys(burn.shape.wanted);
  const bare = bytes.reduce((sum, byte) => sum + (byte === BARE ? 1 : 0), 0) / bytes.length;
  if (bare < LEAST_BARE || bare === 1) return null;
  if (fine.pxPerMm < LEAST_PX_PER_MM_FOR_DRAWING) return null;
  // A drawing has edges all ways. Across a coarse hatch none is clear; by the other ways the camera blurs as much.
  const told = (['horizontal', 'vertical'] as const).flatMap((run) => blur(run) ?? []);
  if (told.length === 0) return null;
  return drawingIn(
    fine,
    burn.shape,
    told.reduce((one, other) => (other.mostMm < one.mostMm ? other : one)),
  );
}

function drawingIn(fine: FineLight, shape: PictureShape, blur: Blur): DrawingSeen | null {
  const { box } = shape;
  const pixels = pixelsOf(fine, box);
  if (pixels.count < LEAST_PIXELS) return null;
  // What softens the burn's own edges is part of how small things come out, and a head out of focus softens them by more than its spot tells: of the
  // edges' softness anything from next to nothing to all may be the camera's.
  const sigmas = [Math.min(blur.leastMm, SHARPEST_PX / fine.pxPerMm), blur.mostMm] as const;
  const { x, y } = shiftOf(blurred(shape, (sigmas[0] + sigmas[1]) / 2), pixels);
  const slopes = sigmas.map((sigma) => slopeOf(blurred(shape, sigma), pixels, x, y));
  const [sharp, soft] = slopes;
  if (!sharp || !soft) return null;
  return {
    taken: (sharp.slope + soft.slope) / 2,
    takenSigma: Math.hypot(Math.abs(soft.slope - sharp.slope) / Math.sqrt(12), (sharp.sigma + soft.sigma) / 2),
    between: (sharp.between + soft.between) / 2,
  };
}
