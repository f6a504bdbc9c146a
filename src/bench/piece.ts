import { deposit, depositOn, linePitchMm, type Window } from './deposit';
import { showBand } from './face';
import type { AirFlow, Trace } from './laser';
import { NoiseTable, randomFrom, type Random } from './random';
import { pierce, type LetsThrough } from './light-through';
import { hazeOf, valuesAt, type Plane } from './smoke';
import type { Specimen } from './specimens';
import { groundFrom, groundOf, type Ground } from './texture';

/** A burned piece of stock as it lies there: what its face looks like and how deep it was burned, row by row. */
export interface Piece {
  readonly width: number;
  readonly height: number;
  readonly pxPerMm: number;
  /** Stock around the card that the piece shows, in mm. */
  readonly marginMm: number;
  /** Linear sRGB reflectance of the face before and after, three values a pixel. */
  readonly before: Float32Array;
  readonly after: Float32Array;
  /** How deep it was burned, in mm; more than it is thick where the beam had energy left when it was through. */
  readonly depthMm: Float32Array;
  readonly thicknessMm: number;
  /** Share of light that comes through it from behind. */
  readonly through: Float32Array;
  /** Linear sRGB of what is seen around it. */
  readonly around: readonly [number, number, number];
}

/** Shade of the workshop table around a piece. */
export const WORKSHOP_TABLE: Piece['around'] = [0.12, 0.125, 0.13];

export interface BurnRequest {
  readonly specimen: Specimen;
  readonly lets: LetsThrough;
  /** Traces in card millimetres: x right, y down from the card's upper left corner. */
  readonly traces: readonly Trace[];
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: number;
  readonly thicknessMm: number;
  readonly spot: { readonly xMm: number; readonly yMm: number; readonly rayleighMm: number };
  readonly band: keyof Specimen['takes'];
  readonly grainAlongX: boolean;
  readonly seed: string;
  /** Whether soot was wiped off before anybody looked. */
  readonly wiped: boolean;
  /** The sheet that it is a part of, where that is larger: its upper left corner from the sheet's, the sheet's size, and what tells it from others. */
  readonly partOf?: {
    readonly x: number;
    readonly y: number;
    readonly widthMm: number;
    readonly heightMm: number;
    readonly seed: string;
    /** Whether the sheet's grain goes on through it. */
    readonly goesOn: boolean;
  };
}

/** Pixels for each spot and each line's pitch that the burn is worked out with. */
const PX_PER_FEATURE = 4;
/** Fewest pixels per millimetre of what is kept, and how many of them altogether more are kept for: a camera comes nearer to a small card. */
const LEAST_PX_PER_MM = 25;
const KEPT_PX = 8_000_000;
/** Pixels that are worked out at a time. */
const BAND_PX = 4_000_000;
/** Side of the blocks that haze is worked out on. */
const BLOCK_MM = 0.32;

/** A place that is burned deeper: from where, and how much deeper it would be in sound stock. */
interface Deepening {
  readonly fromMm: number;
  readonly soundMm: number;
  readonly thicknessMm: number;
}

/**
 * How deep a place is after one crossing. It can go deep: what resists it changes on the way down. The face itself has nothing that does. What is left
 * when it is through is counted as in sound stock.
 */
export function deepened(
  { fromMm, soundMm, thicknessMm }: Deepening,
  resistanceAt: (depthMm: number) => number,
): number {
  let left = soundMm;
  let at = fromMm;
  while (left > 0 && at < thicknessMm) {
    const hard = at < FACE_MM ? 1 : resistanceAt(at);
    const most = at < FACE_MM ? FACE_MM : thicknessMm / 6;
    // What is left is spent here, to nothing: taken off by the product of its quotient it can stay above nothing for ever.
    if (left <= most * hard) return at + left / hard;
    at += most;
    left -= most * hard;
  }
  return at + left;
}

/** Down to here a burn is on the face, above what may be glued or grown into the sheet. */
const FACE_MM = 0.05;

/** A place that the head left by so much of its way has cooled when it comes back. */
const COOLED_AFTER_MM = 1.5;
/** Cosine of the turn from which on a way is gone back, and no longer on. */
const TURNED_BACK = -0.1;

/** What hot gas takes of the walls of a cut: it is wider than the light by this. */
const WALLS = 1.5;

/** Below this many watts a mark needs a little more energy, above it a little less: heat has less time to leak away. */
const LEAK_WATTS = 10;
const LEAK_EXPONENT = 0.07;

/**
 * Hot gas from a cut browns the stock beside it: a small share of the energy, spread this widely, more of it the longer the beam dwells
 * and the deeper the cut is. It is in the stock and does not wipe off.
 */
const SCORCH = { share: 0.012, sigmaMm: 0.25, usualMmPerS: 20, fullDepthMm: 2 };

interface AirEffect {
  /** Soot that settles; what cooling takes of the energy that marks; energy that a depth takes, over that with full air. */
  readonly soot: number;
  readonly cooling: number;
  readonly cutting: number;
  readonly flare: number;
  /** How much of a cut's heat browns the stock beside it, over that with full air. */
  readonly scorch: number;
}

const AIR: Readonly<Record<AirFlow, AirEffect>> = {
  off: { soot: 1.25, cooling: 1, cutting: 1.3, flare: 3, scorch: 1.8 },
  low: { soot: 0.8, cooling: 1.02, cutting: 1.12, flare: 1, scorch: 1.3 },
  on: { soot: 0.45, cooling: 1.05, cutting: 1, flare: 0.3, scorch: 1 },
};

/** Kept and worked-out pixels per millimetre: a whole number of the latter to each of the former. */
function resolutionOf({ spot, traces, widthMm, heightMm, marginMm }: BurnRequest): { kept: number; factor: number } {
  const feature = Math.min(spot.xMm, spot.yMm, linePitchMm(traces));
  const wanted = Number.isFinite(feature) ? PX_PER_FEATURE / feature : LEAST_PX_PER_MM;
  const areaMm2 = (widthMm + 2 * marginMm) * (heightMm + 2 * marginMm);
  const most = Math.max(LEAST_PX_PER_MM, Math.sqrt(KEPT_PX / areaMm2));
  const factor = Math.ceil(wanted / most);
  return { kept: Math.max(LEAST_PX_PER_MM, Math.ceil(wanted / factor)), factor };
}

/** A flame that stood where the burn dwelt too long in something resinous. */
interface Flare {
  readonly x: number;
  readonly y: number;
  readonly radiusMm: number;
  readonly strength: number;
}

/** Chance of a flare for each joule laid down at a dwell of 1 s/mm, before resin and air. */
const FLARES_A_JOULE = 0.02;

function flaresOf({ specimen, traces }: BurnRequest, random: Random): Flare[] {
  const flares: Flare[] = [];
  for (const { x0, y0, x1, y1, joulesPerMm, speedMmPerS, air } of traces) {
    const length = Math.hypot(x1 - x0, y1 - y0);
    const dwell = Math.min(2, 1 / Math.max(0.5, speedMmPerS));
    const chance = specimen.solid.resin * FLARES_A_JOULE * joulesPerMm * length * dwell * AIR[air].flare;
    if (random() >= chance) continue;
    flares.push({ x: (x0 + x1) / 2, y: (y0 + y1) / 2, radiusMm: 0.6 + 1.6 * random(), strength: 0.4 + 0.5 * random() });
  }
  return flares;
}

/** Burns traces into a fresh piece of stock. The same request gives the same piece. */
export function burnPiece(request: BurnRequest): Piece {
  const { marginMm, specimen, thicknessMm } = request;
  const { kept, factor } = resolutionOf(request);
  const width = Math.round((request.widthMm + 2 * marginMm) * kept);
  const height = Math.round((request.heightMm + 2 * marginMm) * kept);
  const random = randomFrom(request.seed);
  const { partOf } = request;
  const whole = partOf?.goesOn
    ? { widthMm: partOf.widthMm + 2 * marginMm, heightMm: partOf.heightMm + 2 * marginMm }
    : { widthMm: width / kept, heightMm: height / kept };
  const drawn = groundOf({ ...whole, thicknessMm }, specimen.texture, request.grainAlongX, random);
  const ground = partOf?.goesOn ? groundFrom(drawn, partOf) : drawn;
  const ownBow = 2 * random() - 1;
  const bow = (partOf && !partOf.goesOn ? 2 * randomFrom(`bow ${partOf.seed}`)() - 1 : ownBow) * specimen.solid.bowMm;
  const noise = new NoiseTable(random);
  const flares = flaresOf(request, randomFrom(`flares ${request.seed}`));
  const piece: Piece = {
    width,
    height,
    pxPerMm: kept,
    marginMm,
    before: new Float32Array(width * height * 3),
    after: new Float32Array(width * height * 3),
    depthMm: new Float32Array(width * height),
    thicknessMm,
    through: new Float32Array(width * height),
    around: WORKSHOP_TABLE,
  };
  const blockPx = Math.max(1, Math.round(BLOCK_MM * kept));
  const columns = Math.ceil(width / blockPx);
  const rows = Math.ceil(height / blockPx);
  const load: Plane = { data: new Float32Array(columns * rows), width: columns, height: rows };
  const rowsAtATime = Math.max(1, Math.floor(BAND_PX / (width * factor * factor)));
  for (let top = 0; top < height; top += rowsAtATime) {
    const bottom = Math.min(height, top + rowsAtATime);
    burnBand(request, piece, { top, bottom, factor }, { ground, bow, noise }, { load, blockPx });
  }
  darken(request, piece, flares, load, blockPx);
  pierce(piece, request.lets, request.seed);
  return piece;
}

/** Rows of the kept picture that are worked out together, and how many fine pixels each side of a kept one has. */
interface Band {
  readonly top: number;
  readonly bottom: number;
  readonly factor: number;
}

interface Nature {
  readonly ground: Ground;
  /** The sheet's middle stands this much higher than its edges. */
  readonly bow: number;
  readonly noise: NoiseTable;
}

function burnBand(
  request: BurnRequest,
  piece: Piece,
  band: Band,
  nature: Nature,
  haze: { readonly load: Plane; readonly blockPx: number },
): void {
  const { specimen, spot, marginMm, band: light, thicknessMm } = request;
  const { factor } = band;
  const px = piece.pxPerMm * factor;
  const window: Window = {
    left: 0,
    top: band.top * factor,
    width: piece.width * factor,
    height: (band.bottom - band.top) * factor,
  };
  const fluence = new Float32Array(window.width * window.height);
  const depth = new Float32Array(fluence.length);
  const within = specimen.below?.[light] ?? specimen.takes[light];
  const { perMm3, onset, char } = specimen.solid;
  const sheet = request.partOf ?? { x: 0, y: 0, widthMm: request.widthMm, heightMm: request.heightMm };
  const bowAt = (x: number, y: number): number =>
    nature.bow *
    (1 - ((2 * (x + sheet.x)) / sheet.widthMm - 1) ** 2) *
    (1 - ((2 * (y + sheet.y)) / sheet.heightMm - 1) ** 2);
  // One crossing is a way gone in one go, round corners too, however many stretches it is told in: what begins to remove stock is its sum.
  // A place that the way comes back to has cooled meanwhile: that is another crossing.
  const crossing = new Float32Array(perMm3 === null ? 0 : fluence.length);
  const lastAtMm = new Float32Array(crossing.length);
  const touched: number[] = [];
  const warmth = new Float32Array(crossing.length);
  const removeAt = (index: number, air: AirEffect): void => {
    const taken = crossing[index]! * within;
    crossing[index] = 0;
    const now = depth[index]!;
    // Char that earlier crossings left takes the first part of the next one's light.
    const over = taken - onset * (now > 0.1 ? 1 + char : 1);
    if (over <= 0 || perMm3 === null) return;
    const x = (index % window.width) / px;
    const y = (Math.floor(index / window.width) + window.top) / px;
    depth[index] = deepened({ fromMm: now, soundMm: over / (perMm3 * air.cutting), thicknessMm }, (at) =>
      nature.ground.resistance(x, y, at),
    );
  };
  const remove = (air: AirEffect): void => {
    for (const index of touched) removeAt(index, air);
    touched.length = 0;
  };
  let goneMm = 0;
  let before: Trace | null = null;
  for (const trace of request.traces) {
    if (before && !goesOn(before, trace)) remove(AIR[before.air]);
    before = trace;
    const middleX = (trace.x0 + trace.x1) / 2;
    const middleY = (trace.y0 + trace.y1) / 2;
    const at = (mm: number): number => (mm + marginMm) * px - 0.5;
    // How deep it is already where the beam comes in: what is below is further from its sharp point.
    const row = Math.round(at(middleY)) - window.top;
    const column = Math.round(at(middleX));
    const inside = row >= 0 && row < window.height && column >= 0 && column < window.width;
    const already = inside ? Math.min(thicknessMm, depth[row * window.width + column]!) : 0;
    const face = trace.focusOffsetMm - bowAt(middleX, middleY);
    const onFace = Math.hypot(1, face / spot.rayleighMm);
    const beam = { sigmaX: ((spot.xMm * onFace) / 4) * px, sigmaY: ((spot.yMm * onFace) / 4) * px };
    const inCut = widthInCut(face, already, thicknessMm, spot.rayleighMm);
    const leak = (trace.watts / LEAK_WATTS) ** LEAK_EXPONENT;
    const length = lengthOf(trace);
    const fromMm = goneMm;
    goneMm += length;
    const joules = trace.joulesPerMm * length * leak;
    const { cooling } = AIR[trace.air];
    const stretch = { x0: at(trace.x0), y0: at(trace.y0), x1: at(trace.x1), y1: at(trace.y1) };
    // A line that could not begin to remove anything even at its middle leaves the depth alone: most of engraving.
    const peak = (2 * trace.joulesPerMm * leak) / (WALLS * inCut * Math.min(spot.xMm, spot.yMm));
    const deepens = perMm3 !== null && peak * within > onset;
    const perMm2 = px * px;
    depositOn(fluence, perMm2 / cooling, stretch, joules, beam, window);
    if (!deepens) continue;
    const wide = ((WALLS * inCut) / 4) * px;
    const hot = { sigmaX: spot.xMm * wide, sigmaY: spot.yMm * wide };
    deposit(stretch, joules, hot, window, (index, share) => {
      if (crossing[index]! > 0 && fromMm - lastAtMm[index]! > COOLED_AFTER_MM) removeAt(index, AIR[trace.air]);
      if (crossing[index] === 0) touched.push(index);
      crossing[index]! += share * perMm2;
      lastAtMm[index] = goneMm;
    });
    const dwell = Math.min(3, Math.max(0.3, Math.sqrt(SCORCH.usualMmPerS / trace.speedMmPerS)));
    const deep = Math.min(1, (peak * within - onset) / perMm3 / SCORCH.fullDepthMm) ** 2;
    const warm = joules * SCORCH.share * AIR[trace.air].scorch * dwell * deep;
    const around = SCORCH.sigmaMm * px;
    depositOn(warmth, perMm2, stretch, warm, { sigmaX: around, sigmaY: around }, window);
  }
  if (before) remove(AIR[before.air]);
  showBand(request, piece, nature, { ...band, width: window.width, fluence, depth, warmth }, haze);
}

/** The walls of a cut lead the light on, so that it widens less there than in the open. */
const LED = 0.45;

/**
 * How many times its sharp width a beam has, on the average, over what is still to be cut: with its sharp point in the middle of that
 * it is narrowest.
 */
function widthInCut(faceMm: number, alreadyMm: number, thicknessMm: number, rayleighMm: number): number {
  const samples = 5;
  let sum = 0;
  for (let k = 0; k < samples; k++) {
    const depth = alreadyMm + ((thicknessMm - alreadyMm) * (k + 0.5)) / samples;
    sum += Math.hypot(1, (LED * (faceMm + depth)) / rayleighMm);
  }
  return sum / samples;
}

/** Whether a stretch goes on from another in one go, straight on or round a corner. */
function goesOn(a: Trace, b: Trace): boolean {
  if (Math.hypot(b.x0 - a.x1, b.y0 - a.y1) > 0.05 || a.air !== b.air) return false;
  // Turned back it burns what it has just burned.
  return (a.x1 - a.x0) * (b.x1 - b.x0) + (a.y1 - a.y0) * (b.y1 - b.y0) > TURNED_BACK * lengthOf(a) * lengthOf(b);
}

const lengthOf = ({ x0, y0, x1, y1 }: Trace): number => Math.hypot(x1 - x0, y1 - y0);

/** Soot and flares over the whole face; soot wipes off but for a trace, what a flame charred does not. */
function darken(request: BurnRequest, piece: Piece, flares: readonly Flare[], load: Plane, blockPx: number): void {
  const { specimen, traces, wiped, marginMm } = request;
  const soot = specimen.smoke === 0 || traces.length === 0 ? 0 : AIR[mostAir(traces)].soot;
  const haze = hazeOf(load, specimen.smoke * soot * (wiped ? 0.12 : 1));
  const { after, width } = piece;
  const xs = Float64Array.from({ length: width }, (_, x) => (x + 0.5) / blockPx);
  const dims = new Float64Array(width);
  for (let y = 0; y < piece.height; y++) {
    valuesAt(haze, xs, (y + 0.5) / blockPx, dims);
    for (let x = 0, at = y * width * 3; x < width; x++, at += 3) {
      const dim = dims[x]!;
      if (dim === 0) continue;
      after[at] = Math.max(0.001, after[at]! * (1 - dim));
      after[at + 1] = Math.max(0.001, after[at + 1]! * (1 - dim));
      after[at + 2] = Math.max(0.001, after[at + 2]! * (1 - dim * 1.25));
    }
  }
  for (const { x, y, radiusMm, strength } of flares) {
    const cx = (x + marginMm) * piece.pxPerMm;
    const cy = (y + marginMm) * piece.pxPerMm;
    const reach = Math.ceil(2 * radiusMm * piece.pxPerMm);
    for (let v = Math.max(0, Math.floor(cy - reach)); v < Math.min(piece.height, cy + reach); v++) {
      for (let u = Math.max(0, Math.floor(cx - reach)); u < Math.min(piece.width, cx + reach); u++) {
        const distance = Math.hypot(u - cx, v - cy) / (radiusMm * piece.pxPerMm);
        const charred = strength * Math.exp(-distance * distance);
        const at = (v * piece.width + u) * 3;
        for (let channel = 0; channel < 3; channel++) {
          const now = piece.after[at + channel]!;
          piece.after[at + channel] = now + (0.02 - now) * charred;
        }
      }
    }
  }
}

/** The air that most of the energy was laid down under. */
function mostAir(traces: readonly Trace[]): AirFlow {
  const joules: Record<AirFlow, number> = { off: 0, low: 0, on: 0 };
  for (const { air, joulesPerMm, x0, x1, y0, y1 } of traces) joules[air] += joulesPerMm * Math.hypot(x1 - x0, y1 - y0);
  return (Object.keys(joules) as AirFlow[]).reduce((best, air) => (joules[air] > joules[best] ? air : best), 'off');
}

/**
 * The truth of an area: its mean luminance after the burn over its mean luminance before it, over the inner 60 % of the
 * rectangle (card millimetres). For whoever knows the truth of the bench: its own hands, tests and reports.
 */
export function trueLuminanceRatio(
  piece: Piece,
  area: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
): number {
  const px = (mm: number): number => Math.round((mm + piece.marginMm) * piece.pxPerMm);
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
