import { moveTimeS } from './move';

/** A straight leg of a way: how far along each axis, with its sign. */
export type Leg = readonly [dxMm: number, dyMm: number];

/** By how much controllers let a head cut a corner, as they are usually left (common practice, from memory). */
export const CORNER_MM = 0.01;

/** Turns less than this go straight on. */
const STRAIGHT = 1 - 1e-9;

/**
 * How fast a head can go round the corner between two legs: as on the arc that touches both and passes the corner at `cornerMm`, at an
 * acceleration. With s = sin(θ/2) of the angle θ between the legs that arc has the radius cornerMm s / (1 - s), and v² = a r on it.
 * Infinite where the legs go straight on, 0 where they turn back. Legs of no length are refused with RangeError.
 *
 * A right angle at 3000 mm/s² and 0.01 mm: 8.51 mm/s; ten degrees of turn: 88.7 mm/s
 */
export function cornerSpeedMmPerS(from: Leg, to: Leg, accelerationMmPerS2: number, cornerMm = CORNER_MM): number {
  const lengths = Math.hypot(...from) * Math.hypot(...to);
  if (!(lengths > 0)) throw new RangeError('invalid leg: 0 mm long');
  const along = (from[0] * to[0] + from[1] * to[1]) / lengths;
  if (along > STRAIGHT) return Infinity;
  const half = Math.sqrt(Math.max(0, (1 + along) / 2));
  return Math.sqrt((accelerationMmPerS2 * cornerMm * half) / (1 - half));
}

/** A leg as far as its time goes: how long it is, how fast the head may go on it, and how quickly it gets there. */
export interface LegMotion {
  readonly lengthMm: number;
  readonly speedMmPerS: number;
  readonly accelerationMmPerS2: number;
}

/**
 * Time in s of legs that are run through without a stop, from rest to rest, with no more than `cornersMmPerS[k]` between legs k and k + 1: as fast
 * as speeds, corners and the rest at the end let the head go. Two legs with a corner of 0 take as long as each by itself.
 */
export function chainedTimeS(legs: readonly LegMotion[], cornersMmPerS: readonly number[]): number {
  const [only] = legs;
  if (legs.length === 1) return moveTimeS(only!.lengthMm, only!.speedMmPerS, only!.accelerationMmPerS2);
  const gained = ({ lengthMm, accelerationMmPerS2 }: LegMotion): number => 2 * accelerationMmPerS2 * lengthMm;
  // Squares of the speeds between legs: what a ramp adds is the same wherever it begins.
  const squares = [
    0,
    ...legs.slice(1).map((leg, k) => Math.min(cornersMmPerS[k]!, leg.speedMmPerS, legs[k]!.speedMmPerS) ** 2),
    0,
  ];
  for (let k = legs.length - 1; k >= 0; k--) squares[k] = Math.min(squares[k]!, squares[k + 1]! + gained(legs[k]!));
  for (let k = 0; k < legs.length; k++) squares[k + 1] = Math.min(squares[k + 1]!, squares[k]! + gained(legs[k]!));
  return legs.reduce((sum, leg, k) => sum + legTimeS(leg, squares[k]!, squares[k + 1]!), 0);
}

/** Time of a leg between two speeds, whose squares are given. */
function legTimeS(leg: LegMotion, fromSquare: number, toSquare: number): number {
  const { lengthMm, speedMmPerS, accelerationMmPerS2: a } = leg;
  const peak = Math.min(speedMmPerS, Math.sqrt((fromSquare + toSquare) / 2 + a * lengthMm));
  const rampsMm = (2 * peak * peak - fromSquare - toSquare) / (2 * a);
  return (2 * peak - Math.sqrt(fromSquare) - Math.sqrt(toSquare)) / a + (lengthMm - rampsMm) / peak;
}
