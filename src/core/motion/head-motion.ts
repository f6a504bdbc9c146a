import type { Machine } from '../machine/machine';
import { moveTimeS } from './move';

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
 * Time in s of a straight way of `dxMm`, `dyMm` from rest to rest at `speedMmPerS`, or as fast as the head goes when it only travels
 * (null). On a gantry each axis keeps its own top speed and acceleration and the slower one decides. A galvo head has neither: marks
 * take their length over their speed and the mark delays, jumps their length over the jump speed and a rest.
 * Throws RangeError for a speed that is not above zero. A way of no length takes no time.
 *
 * 10 mm along x at 100 mm/s with 1000 mm/s² on a gantry: 0.2 s; 30 mm of travel on a galvo with 3000 mm/s and 0.3 ms: 0.0103 s
 */
export function wayTimeS(
  dxMm: number,
  dyMm: number,
  speedMmPerS: number | null,
  head: HeadMotion,
  shares: MotionShares = AS_RECORDED,
): number {
  const length = Math.hypot(dxMm, dyMm);
  if (speedMmPerS !== null && !(speedMmPerS > 0)) throw new RangeError(`invalid speedMmPerS: ${speedMmPerS}`);
  if (length === 0) return 0;
  if (head.head === 'galvo' && head.galvo) {
    const { jumpSpeedMmPerS, jumpDelayS, markDelayS } = head.galvo;
    return speedMmPerS === null
      ? length / (jumpSpeedMmPerS * shares.travelSpeed) + jumpDelayS
      : length / speedMmPerS + markDelayS;
  }
  const alongX = Math.abs(dxMm) / length;
  const alongY = Math.abs(dyMm) / length;
  // An axis that stands still divides by zero and holds nothing up.
  const limit = (x: number, y: number): number => Math.min(x / alongX, y / alongY);
  const top = limit(head.topSpeedXMmPerS, head.topSpeedYMmPerS);
  const acceleration = limit(head.accelerationXMmPerS2, head.accelerationYMmPerS2) * shares.acceleration;
  return moveTimeS(length, speedMmPerS === null ? top * shares.travelSpeed : Math.min(speedMmPerS, top), acceleration);
}
