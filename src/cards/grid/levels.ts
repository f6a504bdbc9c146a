import { axisValues } from '../../core/card/axis';
import type { Pairing } from '../../core/card/contract';
import { fateOfFill } from '../../core/card/energy';
import type { Fate } from '../../core/card/layout';
import type { BurnSettings } from '../../core/card/settings';
import type { GridPlan } from './plan';

const round = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;

/** Powers of the columns and speeds of the rows, the fastest first, as they are burned. */
export function gridLevels(plan: GridPlan): { readonly powers: number[]; readonly speeds: number[] } {
  return {
    powers: axisValues(plan.power).map((power) => round(power, 4)),
    speeds: axisValues(plan.speed)
      .reverse()
      .map((speed) => round(speed, 2)),
  };
}

export const gridSettings = (plan: GridPlan, power: number, speed: number): BurnSettings => ({
  powerFraction: power,
  speedMmPerS: speed,
  ...plan.constants,
});

/** What is expected of a cell, and whether it is left out for that. */
export function gridFate(
  plan: GridPlan,
  settings: BurnSettings,
  on: Pairing,
): { readonly expected: Fate | null; readonly leftOut: boolean } {
  const expected = fateOfFill(settings, on);
  return { expected, leftOut: plan.leaveOutFailing && expected !== null };
}
