import { sweepLimits, type Machine } from '../machine/machine';
import { fastestFillSpeedMmPerS } from '../motion/move';

/** Length of line that usual work has, in mm: what a speed must pay on. */
export const USUAL_LINE_MM = 40;

/**
 * Fastest sweep in mm/s that still pays on lines of usual length: past sqrt(L a / 2) run-up costs more than speed gains, so that a fill
 * gets slower again. The axis' top speed where that is less.
 *
 * a 3000 mm/s²: sqrt(40 * 3000 / 2) = 244.9 mm/s
 */
export function fastestUsefulMmPerS(machine: Machine, direction: 'horizontal' | 'vertical'): number {
  const { topSpeedMmPerS, accelerationMmPerS2 } = sweepLimits(machine, direction);
  // Mirrors have no ramps that a faster line would pay for.
  if (machine.head === 'galvo') return topSpeedMmPerS;
  return Math.min(topSpeedMmPerS, fastestFillSpeedMmPerS(USUAL_LINE_MM, accelerationMmPerS2));
}
