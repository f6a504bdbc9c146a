import { sweepLimits, type Machine } from '../machine/machine';
import { fillLineTimeS } from '../motion/move';
import type { BurnSettings } from './settings';

/** Seconds that a square of `sideMm` takes at these settings, by the motion model. */
export function squareFillTimeS(settings: BurnSettings, machine: Machine, sideMm: number): number {
  const { intervalMm, passes, speedMmPerS, direction, bothWays } = settings;
  const { accelerationMmPerS2, topSpeedMmPerS } = sweepLimits(machine, direction);
  const line = fillLineTimeS(sideMm, speedMmPerS, accelerationMmPerS2);
  const back = bothWays ? 0 : fillLineTimeS(sideMm, topSpeedMmPerS, accelerationMmPerS2);
  return (sideMm / intervalMm) * passes * (line + back);
}
