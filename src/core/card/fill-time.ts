import { sweepLimits, type Machine } from '../machine/machine';
import { straightTimeS } from '../motion/head-motion';
import { fillLineTimeS } from '../motion/move';
import { crossingsOf, type BurnSettings } from './settings';

/** Seconds that a square of `sideMm` takes at these settings, by the motion model. */
export function squareFillTimeS(settings: BurnSettings, machine: Machine, sideMm: number): number {
  const { intervalMm, speedMmPerS, direction, bothWays } = settings;
  const lines = (sideMm / intervalMm) * crossingsOf(settings);
  if (machine.head === 'galvo')
    return (
      lines *
      (straightTimeS(sideMm, 0, speedMmPerS, machine) + straightTimeS(bothWays ? intervalMm : sideMm, 0, null, machine))
    );
  const { accelerationMmPerS2, topSpeedMmPerS } = sweepLimits(machine, direction);
  const line = fillLineTimeS(sideMm, speedMmPerS, accelerationMmPerS2);
  const back = bothWays ? 0 : fillLineTimeS(sideMm, topSpeedMmPerS, accelerationMmPerS2);
  return lines * (line + back);
}
