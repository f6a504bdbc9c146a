import { MARKER_CODES_36H12 } from '../card/marker-codes';
import { MARKER_BITS, MARKER_MODULES } from '../card/markers';
import { fitHomography, project } from '../geometry/homography';
import type { GrayImage } from '../image/raster';
import type { Quad } from './quad';

/** Wrong bits that are forgiven. Codes differ in 12, so three keep false markers away and one smudge in. */
const FORGIVEN_BITS = 3;

/** Grays between the dark and the light modules. Hatched markers in a corner that light does not reach have little more. */
const LEAST_CONTRAST = 8;

const HALF = 18;
const CODES = MARKER_CODES_36H12.map((code) => {
  const bits = BigInt(`0x${code}`)
    .toString(2)
    .padStart(2 * HALF, '0');
  return [parseInt(bits.slice(0, HALF), 2), parseInt(bits.slice(HALF), 2)] as const;
});

function bitsSet(value: number): number {
  let v = value - ((value >>> 1) & 0x55555555);
  v = (v & 0x33333333) + ((v >>> 2) & 0x33333333);
  return (((v + (v >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

const UNIT_SQUARE = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
] as const;

export interface DecodedMarker {
  readonly id: number;
  readonly wrongBits: number;
  /** The quad's corners turned so that the first is the marker's own upper left. */
  readonly corners: Quad;
}

/** Mean gray of each module, from a 4 x 4 lattice of points inside it. */
function moduleMeans(image: GrayImage, quad: Quad): Float64Array | null {
  const { homography } = fitHomography([...UNIT_SQUARE], [...quad]);
  const means = new Float64Array(MARKER_MODULES * MARKER_MODULES);
  for (let row = 0; row < MARKER_MODULES; row++) {
    for (let column = 0; column < MARKER_MODULES; column++) {
      let sum = 0;
      for (let sample = 0; sample < 16; sample++) {
        const u = (column + 0.26 + 0.16 * (sample % 4)) / MARKER_MODULES;
        const v = (row + 0.26 + 0.16 * (sample >> 2)) / MARKER_MODULES;
        const place = project(homography, u, v);
        const x = Math.round(place.x);
        const y = Math.round(place.y);
        if (!(x >= 0 && y >= 0 && x < image.width && y < image.height)) return null;
        sum += image.data[y * image.width + x]!;
      }
      means[row * MARKER_MODULES + column] = sum / 16;
    }
  }
  return means;
}

/**
 * The level that best parts values into two groups (largest variance between them).
 * Source: N. Otsu, "A threshold selection method from gray-level histograms", IEEE Trans. SMC 9 (1979) 62.
 */
function partingLevel(values: Float64Array): number {
  const sorted = Float64Array.from(values).sort();
  const total = sorted.reduce((sum, value) => sum + value, 0);
  let best = -1;
  let level = sorted[0]!;
  let below = 0;
  for (let count = 1; count < sorted.length; count++) {
    below += sorted[count - 1]!;
    const low = below / count;
    const high = (total - below) / (sorted.length - count);
    const between = count * (sorted.length - count) * (high - low) ** 2;
    if (between > best) {
      best = between;
      level = (sorted[count - 1]! + sorted[count]!) / 2;
    }
  }
  return level;
}

/**
 * Reads a square marker of the 36h12 dictionary (dark border, light bits 1) inside a quad, in any of its four turns; null when
 * the border is not dark, the contrast is below 8 grays or no code is near enough.
 */
export function decodeMarker(image: GrayImage, quad: Quad): DecodedMarker | null {
  const means = moduleMeans(image, quad);
  if (!means) return null;
  const level = partingLevel(means);
  let darkBorder = 0;
  let darkSum = 0;
  let darkCount = 0;
  let lightSum = 0;
  const bits: number[] = [];
  for (let row = 0; row < MARKER_MODULES; row++) {
    for (let column = 0; column < MARKER_MODULES; column++) {
      const mean = means[row * MARKER_MODULES + column]!;
      const light = mean > level;
      if (light) lightSum += mean;
      else {
        darkSum += mean;
        darkCount++;
      }
      const inBorder = row === 0 || column === 0 || row === MARKER_MODULES - 1 || column === MARKER_MODULES - 1;
      if (!inBorder) bits.push(light ? 1 : 0);
      else if (!light) darkBorder++;
    }
  }
  const contrast = lightSum / (means.length - darkCount) - darkSum / darkCount;
  if (darkBorder < 4 * (MARKER_MODULES - 1) - 2 || !(contrast >= LEAST_CONTRAST)) return null;
  return matchCode(bits, quad);
}

function matchCode(bits: readonly number[], quad: Quad): DecodedMarker | null {
  let turnedBits = bits;
  let best: DecodedMarker | null = null;
  for (let turn = 0; turn < 4; turn++) {
    let high = 0;
    let low = 0;
    for (let index = 0; index < HALF; index++) {
      high = (high << 1) | turnedBits[index]!;
      low = (low << 1) | turnedBits[HALF + index]!;
    }
    for (let id = 0; id < CODES.length; id++) {
      const wrongBits = bitsSet(CODES[id]![0] ^ high) + bitsSet(CODES[id]![1] ^ low);
      if (wrongBits <= FORGIVEN_BITS && wrongBits < (best?.wrongBits ?? Infinity)) {
        const corners = [0, 1, 2, 3].map((corner) => quad[(corner + turn) % 4]!) as unknown as Quad;
        best = { id, wrongBits, corners };
      }
    }
    // A quarter turn to the left brings what was the right column to the top: corner 1 becomes the first.
    turnedBits = Array.from(
      { length: bits.length },
      (_, index) =>
        turnedBits[(index % MARKER_BITS) * MARKER_BITS + (MARKER_BITS - 1 - Math.floor(index / MARKER_BITS))]!,
    );
  }
  return best;
}
