import type { LaserTruth } from './truth';

/** A straight stretch of a program, as the head is told it. */
export interface Leg {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly length: number;
  /** As the axes along it allow. */
  readonly speed: number;
  /** As it was asked for; infinite for travel. */
  readonly feed: number;
  readonly rapid: boolean;
  readonly command: number;
}

/** A leg as the head runs it: its acceleration there, and how fast it goes into it and out of it. */
export interface Run {
  readonly leg: Leg;
  readonly a: number;
  readonly from: number;
  readonly to: number;
}

/** The legs as the head runs them without a stop, from rest to rest: as fast as speed, corners, acceleration and the rest at the end allow. */
export function runsOf(joined: readonly Leg[], truth: LaserTruth): Run[] {
  const first = joined[0];
  if (!first) return [];
  const legs = withRunUp(joined, first, truth);
  const accelerations = legs.map((leg) => accelerationOf(leg, truth));
  const through = [0, ...legs.slice(1).map((leg, k) => cornerSpeed(legs[k]!, leg, truth)), 0];
  // No faster into a leg than it can be slowed down on, and no faster out of it than it can be sped up on.
  for (let k = legs.length - 1; k >= 0; k--)
    through[k] = Math.min(through[k]!, Math.sqrt(through[k + 1]! ** 2 + 2 * accelerations[k]! * legs[k]!.length));
  for (let k = 0; k < legs.length; k++)
    through[k + 1] = Math.min(through[k + 1]!, Math.sqrt(through[k]! ** 2 + 2 * accelerations[k]! * legs[k]!.length));
  return legs.map((leg, k) => ({ leg, a: accelerations[k]!, from: through[k]!, to: through[k + 1]! }));
}

/** A controller that runs up by itself does so before and after a line along an axis. */
function withRunUp(joined: readonly Leg[], first: Leg, truth: LaserTruth): readonly Leg[] {
  const straight = (first.x0 === first.x1 || first.y0 === first.y1) && joined.every((leg) => goesOn(first, leg));
  if (!truth.addsRunUp || truth.mirrors || !straight || !joined.some((leg) => leg.command > 0)) return joined;
  const length = (first.speed * first.speed) / (2 * accelerationOf(first, truth));
  const [x, y] = [first.x1 - first.x0, first.y1 - first.y0].map((way) => (way / first.length) * length);
  const dark = { ...first, x0: 0, y0: 0, x1: x!, y1: y!, length, command: 0 };
  return [dark, ...joined, dark];
}

/**
 * How fast the head goes round a corner: as on an arc that cuts it by so little, at its acceleration. It comes to rest where it turns
 * back, and does not slow down where it goes straight on.
 */
function cornerSpeed(a: Leg, b: Leg, truth: LaserTruth): number {
  const along = alongOf(a, b);
  const half = Math.sqrt(Math.max(0, (1 + along) / 2));
  const arc = half >= 1 - 1e-9 ? Infinity : (truth.cornerMm * half) / (1 - half);
  return Math.min(a.speed, b.speed, Math.sqrt(Math.min(accelerationOf(a, truth), accelerationOf(b, truth)) * arc));
}

function accelerationOf(leg: Leg, truth: LaserTruth): number {
  const dx = Math.abs(leg.x1 - leg.x0) / leg.length;
  const dy = Math.abs(leg.y1 - leg.y0) / leg.length;
  return Math.min(
    dx === 0 ? Infinity : truth.accelerationXMmPerS2 / dx,
    dy === 0 ? Infinity : truth.accelerationYMmPerS2 / dy,
  );
}

/** Slower than that the head never goes: at rest it would burn a hole without end. */
const SLOWEST_MM_PER_S = 0.5;

/** How fast the head goes so far into a leg. */
export function speedIn({ leg, a, from, to }: Run, mm: number): number {
  const speedingUp = from === leg.speed ? Infinity : Math.sqrt(from * from + 2 * a * mm);
  const slowingDown = to === leg.speed ? Infinity : Math.sqrt(to * to + 2 * a * (leg.length - mm));
  return Math.max(SLOWEST_MM_PER_S, Math.min(leg.speed, speedingUp, slowingDown));
}

/** Time of a leg: by constant acceleration up to the leg's speed, or to what there is room for, and down again. */
export function timeOf({ leg, a, from, to }: Run): number {
  const peak = Math.min(leg.speed, Math.sqrt((from * from + to * to) / 2 + a * leg.length));
  const ramps = (2 * peak * peak - from * from - to * to) / (2 * a);
  return (2 * peak - from - to) / a + (leg.length - ramps) / peak;
}

/** Cosine of the angle by which the head turns from one leg to the next. */
const alongOf = (a: Leg, b: Leg): number =>
  ((a.x1 - a.x0) * (b.x1 - b.x0) + (a.y1 - a.y0) * (b.y1 - b.y0)) / (a.length * b.length);

/** Whether a leg goes straight on from another. */
export const goesOn = (a: Leg, b: Leg): boolean => alongOf(a, b) > 1 - 1e-9;
