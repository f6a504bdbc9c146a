import { LatticeNoise, NoiseTable, randomFrom, type Random } from './random';
import type { Trace } from './laser';
import type { Specimen, Texture } from './specimens';

/** Pixels of the simulated face for each millimetre. */
export const PIECE_PX_PER_MM = 25;

/** A burned piece of stock: linear sRGB reflectance of its face before and after, row by row, `width` x `height` pixels. */
export interface Piece {
  readonly width: number;
  readonly height: number;
  /** Stock around the card that the piece shows, in mm. */
  readonly marginMm: number;
  readonly before: Float32Array;
  readonly after: Float32Array;
}

export interface BurnRequest {
  readonly specimen: Specimen;
  /** Traces in card millimetres: x right, y down from the card's upper left corner. */
  readonly traces: readonly Trace[];
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: number;
  readonly spot: { readonly xMm: number; readonly yMm: number; readonly rayleighMm: number };
  readonly band: keyof Specimen['takes'];
  readonly grainAlongX: boolean;
  readonly seed: string;
}

/** Below this many watts a mark needs a little more energy, above it a little less: heat has less time to leak away. */
const LEAK_WATTS = 10;
const LEAK_EXPONENT = 0.07;

/** Burns traces into a fresh piece of stock. The same request gives the same piece. */
export function burnPiece(request: BurnRequest): Piece {
  const { specimen, marginMm } = request;
  const width = Math.round((request.widthMm + 2 * marginMm) * PIECE_PX_PER_MM);
  const height = Math.round((request.heightMm + 2 * marginMm) * PIECE_PX_PER_MM);
  const random = randomFrom(request.seed);
  const relief = drawTexture(width, height, specimen.texture, request.grainAlongX, random);
  const fluence = new Float32Array(width * height);
  for (const trace of request.traces) layTrace(fluence, width, height, trace, request);
  const smoke = drawSmoke(fluence, width, height, specimen);
  return char(request, { width, height, relief, fluence, smoke, noise: new NoiseTable(random) });
}

interface Fields {
  readonly width: number;
  readonly height: number;
  readonly relief: Float32Array;
  readonly fluence: Float32Array;
  readonly smoke: Float32Array;
  readonly noise: NoiseTable;
}

function char(
  { specimen, marginMm, band }: BurnRequest,
  { width, height, relief, fluence, smoke, noise }: Fields,
): Piece {
  const before = new Float32Array(width * height * 3);
  const after = new Float32Array(width * height * 3);
  const takes = specimen.takes[band];
  const { bare, burned, spoiled, threshold, scale, shape, spoil, texture } = specimen;
  for (let index = 0; index < width * height; index++) {
    // Dark late wood takes more light than pale early wood.
    const taken = fluence[index]! * takes * (1 - 0.6 * relief[index]!);
    let mark = 0;
    let ruin = 0;
    if (taken > threshold) {
      mark = 1 - Math.exp(-(((taken - threshold) / scale) ** shape));
      if (taken > spoil) ruin = Math.min(1, (taken - spoil) / spoil) * 0.8;
    }
    const rough = 1 + noise.next() * (texture.fine * 0.5 + 0.03 * mark);
    const shade = 1 + relief[index]!;
    for (let channel = 0; channel < 3; channel++) {
      const face = bare[channel]! * shade;
      let value = face * (1 - mark) + burned[channel]! * mark;
      value += (spoiled[channel]! - value) * ruin;
      value *= 1 - smoke[index]! * (channel === 2 ? 1.25 : 1);
      before[index * 3 + channel] = face;
      after[index * 3 + channel] = Math.max(0.001, value * rough);
    }
  }
  return { width, height, marginMm, before, after };
}

/** Adds the fluence of one trace in J/mm². The beam is an oval Gaussian that widens out of focus. */
function layTrace(fluence: Float32Array, width: number, height: number, trace: Trace, request: BurnRequest): void {
  const { spot, marginMm } = request;
  const widen = Math.hypot(1, trace.focusOffsetMm / spot.rayleighMm);
  // The 1/e² diameter is four standard deviations.
  const sigmaX = ((spot.xMm * widen) / 4) * PIECE_PX_PER_MM;
  const sigmaY = ((spot.yMm * widen) / 4) * PIECE_PX_PER_MM;
  const px = (mm: number): number => (mm + marginMm) * PIECE_PX_PER_MM;
  const leak = (trace.watts / LEAK_WATTS) ** LEAK_EXPONENT;
  const length = Math.hypot(trace.x1 - trace.x0, trace.y1 - trace.y0);
  const joules = trace.joulesPerMm * length * leak;
  // J/mm² of a pixel that a joule spread over a Gaussian of these sigmas leaves at its centre.
  const peak = (PIECE_PX_PER_MM * PIECE_PX_PER_MM) / (2 * Math.PI * sigmaX * sigmaY);
  const stepPx = Math.max(0.6, Math.min(sigmaX, sigmaY) * 0.8);
  const steps = Math.max(1, Math.ceil((length * PIECE_PX_PER_MM) / stepPx));
  const reachX = Math.ceil(3.2 * sigmaX);
  const reachY = Math.ceil(3.2 * sigmaY);
  const weight = (joules / steps) * peak;
  for (let step = 0; step < steps; step++) {
    const share = (step + 0.5) / steps;
    const cx = px(trace.x0 + (trace.x1 - trace.x0) * share) - 0.5;
    const cy = px(trace.y0 + (trace.y1 - trace.y0) * share) - 0.5;
    const left = Math.max(0, Math.round(cx) - reachX);
    const right = Math.min(width - 1, Math.round(cx) + reachX);
    const top = Math.max(0, Math.round(cy) - reachY);
    const bottom = Math.min(height - 1, Math.round(cy) + reachY);
    for (let y = top; y <= bottom; y++) {
      const across = weight * Math.exp(-0.5 * ((y - cy) / sigmaY) ** 2);
      const row = y * width;
      for (let x = left; x <= right; x++) {
        fluence[row + x]! += across * Math.exp(-0.5 * ((x - cx) / sigmaX) ** 2);
      }
    }
  }
}

/** Relative deviation of the bare face's reflectance: grain, mottling, knots. */
function drawTexture(width: number, height: number, texture: Texture, alongX: boolean, random: Random): Float32Array {
  const streaks = new LatticeNoise(random);
  const mottle = new LatticeNoise(random);
  const fine = new LatticeNoise(random);
  const count = Math.floor(texture.knots + random());
  const knots = Array.from({ length: count }, () => ({
    x: random() * width,
    y: random() * height,
    radius: (0.6 + 1.8 * random()) * PIECE_PX_PER_MM,
    depth: 0.15 + 0.25 * random(),
  }));
  const relief = new Float32Array(width * height);
  const streakPx = texture.streakMm * PIECE_PX_PER_MM;
  const mottlePx = texture.mottleMm * PIECE_PX_PER_MM;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const along = alongX ? x : y;
      const across = alongX ? y : x;
      const bend = mottle.at(along / (mottlePx * 2), 40) * streakPx * 2;
      let value =
        texture.streaks * streaks.at((across + bend) / streakPx, along / (streakPx * 30)) +
        texture.streaks * 0.5 * streaks.at((across + bend) / (streakPx * 3.1) + 90, along / (streakPx * 60)) +
        texture.mottle * mottle.at(x / mottlePx, y / mottlePx) +
        texture.fine * 0.5 * fine.at(x / 3, y / 3);
      for (const knot of knots) {
        const distance = Math.hypot(x - knot.x, (y - knot.y) * 1.4) / knot.radius;
        if (distance < 3) value -= knot.depth * Math.exp(-distance * distance) * (1 + 0.25 * Math.sin(distance * 9));
      }
      relief[y * width + x] = Math.max(-0.7, value);
    }
  }
  return relief;
}

/** A haze around strong burns, about a millimetre wide: the share of light it takes. */
function drawSmoke(fluence: Float32Array, width: number, height: number, specimen: Specimen): Float32Array {
  const smoke = new Float32Array(width * height);
  if (specimen.smoke === 0) return smoke;
  const block = 8;
  const columns = Math.ceil(width / block);
  const rows = Math.ceil(height / block);
  let coarse = new Float32Array(columns * rows);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      coarse[Math.floor(y / block) * columns + Math.floor(x / block)]! +=
        Math.min(2, fluence[y * width + x]! / specimen.spoil) / (block * block);
    }
  }
  for (let turn = 0; turn < 3; turn++) coarse = boxBlur(coarse, columns, rows, 1);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const u = Math.min(columns - 1.001, Math.max(0, x / block - 0.5));
      const v = Math.min(rows - 1.001, Math.max(0, y / block - 0.5));
      const at = Math.floor(v) * columns + Math.floor(u);
      const fu = u % 1;
      const fv = v % 1;
      const top = coarse[at]! * (1 - fu) + coarse[at + 1]! * fu;
      const bottom = coarse[at + columns]! * (1 - fu) + coarse[at + columns + 1]! * fu;
      smoke[y * width + x] = 0.12 * specimen.smoke * (top * (1 - fv) + bottom * fv);
    }
  }
  return smoke;
}

function boxBlur(source: Float32Array, width: number, height: number, radius: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(source.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0;
      let count = 0;
      for (let v = Math.max(0, y - radius); v <= Math.min(height - 1, y + radius); v++) {
        for (let u = Math.max(0, x - radius); u <= Math.min(width - 1, x + radius); u++) {
          sum += source[v * width + u]!;
          count++;
        }
      }
      out[y * width + x] = sum / count;
    }
  }
  return out;
}

/**
 * The truth of an area: its mean luminance after the burn over its mean luminance before it, over the inner 60 % of the
 * rectangle (card millimetres). For tests and accuracy reports only.
 */
export function trueLuminanceRatio(
  piece: Piece,
  area: { x: number; y: number; width: number; height: number },
): number {
  const px = (mm: number): number => Math.round((mm + piece.marginMm) * PIECE_PX_PER_MM);
  let before = 0;
  let after = 0;
  for (let y = px(area.y + area.height * 0.2); y < px(area.y + area.height * 0.8); y++) {
    for (let x = px(area.x + area.width * 0.2); x < px(area.x + area.width * 0.8); x++) {
      const at = (y * piece.width + x) * 3;
      before += 0.2126 * piece.before[at]! + 0.7152 * piece.before[at + 1]! + 0.0722 * piece.before[at + 2]!;
      after += 0.2126 * piece.after[at]! + 0.7152 * piece.after[at + 1]! + 0.0722 * piece.after[at + 2]!;
    }
  }
  return after / before;
}
