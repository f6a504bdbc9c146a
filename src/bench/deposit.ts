import type { Trace } from './laser';

/** Standard deviations beyond which the normal law has less left than the formula below is good to. */
const FAR_OUT = 6;

/** Integral of the standard normal law up to x, good to 7e-8. Source: M. Abramowitz, I. Stegun, Handbook (1964), 26.2.17. */
function normalUpTo(x: number): number {
  if (x > FAR_OUT) return 1;
  if (x < -FAR_OUT) return 0;
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    0.3989422804014327 *
    Math.exp((-x * x) / 2) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x > 0 ? 1 - tail : tail;
}

/** Integral of `normalUpTo`: what a beam that ends sharply along its way has laid down so far. */
function rampUpTo(x: number): number {
  if (x > FAR_OUT) return x;
  if (x < -FAR_OUT) return 0;
  return x * normalUpTo(x) + 0.3989422804014327 * Math.exp((-x * x) / 2);
}

/** A window of pixels; place 0 is the middle of the first one, in its own pixels. */
export interface Window {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export interface Spot {
  /** Standard deviations of the beam along x and y, in pixels. */
  readonly sigmaX: number;
  readonly sigmaY: number;
}

const REACH = 3.5;

/** What one pixel is told of a trace: its index in the window and how much energy, in J per pixel area, falls on it. */
export type Receive = (index: number, share: number) => void;

interface Stretch {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** Energy of a part of a stretch as it falls on a window: shares of the rows, times joules, and of the columns. */
type Part = (xs: Shares, ys: Shares, joules: number) => void;

/** The parts of a stretch whose two integrals part: all of it along an axis, short steps of others. */
function inParts(stretch: Stretch, joules: number, { sigmaX, sigmaY }: Spot, window: Window, each: Part): void {
  const dx = stretch.x1 - stretch.x0;
  const dy = stretch.y1 - stretch.y0;
  if (Math.abs(dx) > 1e-9 && Math.abs(dy) > 1e-9) {
    // Two integrals do not part here: short steps, each a round spot that moved a little along x.
    const steps = Math.max(1, Math.ceil(Math.hypot(dx, dy) / (0.5 * Math.min(sigmaX, sigmaY, 1))));
    for (let step = 0; step < steps; step++) {
      const a = step / steps;
      const b = (step + 1) / steps;
      const y = stretch.y0 + dy * ((a + b) / 2);
      const part = { x0: stretch.x0 + dx * a, x1: stretch.x0 + dx * b, y0: y, y1: y };
      inParts(part, joules / steps, { sigmaX, sigmaY }, window, each);
    }
    return;
  }
  // Rows first: most stretches lie along them, and in another window.
  const ys = profile(stretch.y0, stretch.y1, sigmaY, window.top, window.height);
  const xs = ys && profile(stretch.x0, stretch.x1, sigmaX, window.left, window.width);
  if (xs) each(xs, ys, joules);
}

/**
 * Spreads one straight stretch over the pixels of a window: each pixel gets the integral of the beam over its own square, so that the
 * sum over all pixels is the stretch's energy however small the spot is. `joules` is the whole stretch's energy; pixels outside the
 * window get theirs elsewhere. Stretches along an axis are integrated as a whole, others in short steps.
 */
export function deposit(stretch: Stretch, joules: number, spot: Spot, window: Window, receive: Receive): void {
  inParts(stretch, joules, spot, window, (xs, ys, energy) => {
    for (let row = 0; row < ys.shares.length; row++) {
      const share = ys.shares[row]! * energy;
      if (share === 0) continue;
      const start = (ys.first + row) * window.width + xs.first;
      for (let column = 0; column < xs.shares.length; column++) receive(start + column, share * xs.shares[column]!);
    }
  });
}

/** The same, added to a plane of the window's size times a scale: most of a burn's work, and several times quicker than to tell each pixel. */
export function depositOn(
  plane: Float32Array,
  scale: number,
  stretch: Stretch,
  joules: number,
  spot: Spot,
  window: Window,
): void {
  inParts(stretch, joules * scale, spot, window, (xs, ys, energy) => {
    const { shares } = xs;
    for (let row = 0; row < ys.shares.length; row++) {
      const share = ys.shares[row]! * energy;
      if (share === 0) continue;
      const start = (ys.first + row) * window.width + xs.first;
      for (let column = 0; column < shares.length; column++) plane[start + column]! += share * shares[column]!;
    }
  });
}

interface Shares {
  readonly first: number;
  readonly shares: Float64Array;
}

/** Share of a beam that moves from a to b which falls into each pixel of one axis; null when none does. */
function profile(a: number, b: number, sigma: number, origin: number, count: number): Shares | null {
  const low = Math.min(a, b) - origin;
  const high = Math.max(a, b) - origin;
  const first = Math.max(0, Math.floor(low - REACH * sigma + 0.5));
  const last = Math.min(count - 1, Math.ceil(high + REACH * sigma - 0.5));
  if (last < first) return null;
  const shares = new Float64Array(last - first + 1);
  const length = high - low;
  const upTo = (edge: number): number =>
    length < 1e-9
      ? normalUpTo((edge - low) / sigma)
      : (sigma / length) * (rampUpTo((edge - low) / sigma) - rampUpTo((edge - high) / sigma));
  let before = upTo(first - 0.5);
  for (let pixel = first; pixel <= last; pixel++) {
    const after = upTo(pixel + 0.5);
    shares[pixel - first] = after - before;
    before = after;
  }
  return { first, shares };
}

/** Lines shorter than this say nothing of a fill's pitch. */
const LEAST_LINE_MM = 0.8;

/**
 * The closest that lines of a fill, drawn one after another beside each other, lie to each other, in mm; Infinity where nothing was
 * filled.
 */
export function linePitchMm(traces: readonly Trace[]): number {
  let least = Infinity;
  for (let index = 1; index < traces.length; index++) {
    const a = traces[index - 1]!;
    const b = traces[index]!;
    const horizontal = a.y0 === a.y1 && b.y0 === b.y1;
    if (!horizontal && (a.x0 !== a.x1 || b.x0 !== b.x1)) continue;
    const [a0, a1, b0, b1] = horizontal ? [a.x0, a.x1, b.x0, b.x1] : [a.y0, a.y1, b.y0, b.y1];
    const beside = Math.min(Math.max(a0, a1), Math.max(b0, b1)) - Math.max(Math.min(a0, a1), Math.min(b0, b1));
    if (beside < LEAST_LINE_MM) continue;
    const gap = horizontal ? Math.abs(b.y0 - a.y0) : Math.abs(b.x0 - a.x0);
    if (gap > 1e-3 && gap < least) least = gap;
  }
  return least;
}
