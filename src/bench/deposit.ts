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

/**
 * Share of a beam that moves along one axis which falls into each pixel of it. Its room is used anew for each stretch, of which a burn has
 * hundreds of thousands, and kept where the next one spans the same: lines of a fill do along, dots of a line across.
 */
class Shares {
  first = 0;
  count = 0;
  shares = new Float64Array(256);
  private low = NaN;
  private high = NaN;
  private sigma = NaN;
  private window: Window | null = null;

  /** Of a beam of width sigma that moves from a to b over `length` pixels of a window's axis from `origin` on; false where none are reached. */
  fill(a: number, b: number, sigma: number, window: Window, axis: 'x' | 'y'): boolean {
    const [origin, length] = axis === 'x' ? [window.left, window.width] : [window.top, window.height];
    const low = Math.min(a, b) - origin;
    const high = Math.max(a, b) - origin;
    if (low === this.low && high === this.high && sigma === this.sigma && window === this.window) return this.count > 0;
    this.low = low;
    this.high = high;
    this.sigma = sigma;
    this.window = window;
    this.first = Math.max(0, Math.floor(low - REACH * sigma + 0.5));
    const last = Math.min(length - 1, Math.ceil(high + REACH * sigma - 0.5));
    this.count = Math.max(0, last - this.first + 1);
    if (this.count > this.shares.length) this.shares = new Float64Array(2 * this.count);
    let before = this.upTo(this.first - 0.5);
    for (let index = 0; index < this.count; index++) {
      const after = this.upTo(this.first + index + 0.5);
      this.shares[index] = after - before;
      before = after;
    }
    return this.count > 0;
  }

  private upTo(edge: number): number {
    const { low, high, sigma } = this;
    const length = high - low;
    return length < 1e-9
      ? normalUpTo((edge - low) / sigma)
      : (sigma / length) * (rampUpTo((edge - low) / sigma) - rampUpTo((edge - high) / sigma));
  }
}

const ROWS = new Shares();
// Lines of a fill go forth and back, and a head's lag parts them.
const COLUMNS = { forth: new Shares(), back: new Shares() };

/** Energy of a part of a stretch as it falls on a window: shares of the rows, times joules, and of the columns. */
type Part = (xs: Shares, ys: Shares, joules: number) => void;

/** The parts of a stretch whose two integrals part: all of it along an axis, short steps of others. */
function inParts(stretch: Stretch, joules: number, spot: Spot, window: Window, each: Part): void {
  const { sigmaX, sigmaY } = spot;
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
      inParts(part, joules / steps, spot, window, each);
    }
    return;
  }
  // Rows first: most stretches lie along them, and in another window.
  if (!ROWS.fill(stretch.y0, stretch.y1, sigmaY, window, 'y')) return;
  const columns = dx < 0 ? COLUMNS.back : COLUMNS.forth;
  if (columns.fill(stretch.x0, stretch.x1, sigmaX, window, 'x')) each(columns, ROWS, joules);
}

/**
 * Spreads one straight stretch over the pixels of a window: each pixel gets the integral of the beam over its own square, so that the
 * sum over all pixels is the stretch's energy however small the spot is. `joules` is the whole stretch's energy; pixels outside the
 * window get theirs elsewhere. Stretches along an axis are integrated as a whole, others in short steps.
 */
export function deposit(stretch: Stretch, joules: number, spot: Spot, window: Window, receive: Receive): void {
  inParts(stretch, joules, spot, window, (xs, ys, energy) => {
    const { shares, count } = xs;
    for (let row = 0; row < ys.count; row++) {
      const share = ys.shares[row]! * energy;
      if (share === 0) continue;
      const start = (ys.first + row) * window.width + xs.first;
      for (let column = 0; column < count; column++) receive(start + column, share * shares[column]!);
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
    const { shares, count } = xs;
    for (let row = 0; row < ys.count; row++) {
      const share = ys.shares[row]! * energy;
      if (share === 0) continue;
      const start = (ys.first + row) * window.width + xs.first;
      for (let column = 0; column < count; column++) plane[start + column]! += share * shares[column]!;
    }
  });
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
