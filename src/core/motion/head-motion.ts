import type { Machine } from '../machine/machine';
import { chainedTimeS, cornerSpeedMmPerS, type Leg, type LegMotion } from './corners';

/** What a head's time depends on, of a machine's record. */
export type HeadMotion = Pick<
  Machine,
  'head' | 'galvo' | 'topSpeedXMmPerS' | 'topSpeedYMmPerS' | 'accelerationXMmPerS2' | 'accelerationYMmPerS2'
>;

/** How a machine really moves, as far as its logged burns told: shares of what its record says. */
export interface MotionShares {
  readonly acceleration: number;
  readonly travelSpeed: number;
  /** The controller's own time for each line of a program that moves the head. */
  readonly lineOverheadS: number;
}

export const AS_RECORDED: MotionShares = { acceleration: 1, travelSpeed: 1, lineOverheadS: 0 };

/**
 * Time in s of a way of straight legs from rest to rest at `speedMmPerS`, round their corners as fast as these allow, or of travel as
 * fast as the head goes (null). On a gantry each axis keeps its own top speed and acceleration and the slower one decides. A galvo head
 * has neither: each leg of a mark takes its length over its speed and the mark delay, jumps their length over the jump speed and a rest.
 * Throws RangeError for a speed that is not above zero. Legs of no length take no time.
 *
 * 10 mm along x at 100 mm/s with 1000 mm/s² on a gantry: 0.2 s; 30 mm of travel on a galvo with 3000 mm/s and 0.3 ms: 0.0103 s
 */
export function wayTimeS(
  legs: readonly Leg[],
  speedMmPerS: number | null,
  head: HeadMotion,
  shares: MotionShares = AS_RECORDED,
): number {
  if (speedMmPerS !== null && !(speedMmPerS > 0)) throw new RangeError(`invalid speedMmPerS: ${speedMmPerS}`);
  const moving = legs.filter((leg) => Math.hypot(...leg) > 0);
  if (moving.length === 0) return 0;
  if (head.head === 'galvo' && head.galvo) {
    const { jumpSpeedMmPerS, jumpDelayS, markDelayS } = head.galvo;
    const delayS = speedMmPerS === null ? jumpDelayS : markDelayS;
    const speed = speedMmPerS ?? jumpSpeedMmPerS * shares.travelSpeed;
    return moving.reduce((sum, leg) => sum + Math.hypot(...leg) / speed + delayS, 0);
  }
  const motions = moving.map((leg) => legMotion(leg, speedMmPerS, head, shares));
  const corners = motions.slice(1).map(({ accelerationMmPerS2 }, k) => {
    const slower = Math.min(accelerationMmPerS2, motions[k]!.accelerationMmPerS2);
    return cornerSpeedMmPerS(moving[k]!, moving[k + 1]!, slower);
  });
  return chainedTimeS(motions, corners);
}

/** The same of one straight leg. */
export const straightTimeS = (
  dxMm: number,
  dyMm: number,
  speedMmPerS: number | null,
  head: HeadMotion,
  shares: MotionShares = AS_RECORDED,
): number => wayTimeS([[dxMm, dyMm]], speedMmPerS, head, shares);

function legMotion(leg: Leg, speedMmPerS: number | null, head: HeadMotion, shares: MotionShares): LegMotion {
  const lengthMm = Math.hypot(...leg);
  const [alongX, alongY] = [Math.abs(leg[0]) / lengthMm, Math.abs(leg[1]) / lengthMm];
  // An axis that stands still divides by zero and holds nothing up.
  const limit = (x: number, y: number): number => Math.min(x / alongX, y / alongY);
  const top = limit(head.topSpeedXMmPerS, head.topSpeedYMmPerS);
  return {
    lengthMm,
    speedMmPerS: speedMmPerS === null ? top * shares.travelSpeed : Math.min(speedMmPerS, top),
    accelerationMmPerS2: limit(head.accelerationXMmPerS2, head.accelerationYMmPerS2) * shares.acceleration,
  };
}
