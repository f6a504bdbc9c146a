import { axisValues, type Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import { upgradeSettings, type BurnSettings } from '../../core/card/settings';
import { upgradeBase } from '../../core/card/stored';

export const INTERVAL_VERSION = 2;

/** Strips under one another, each filled at its own line interval, in three steps of power from weak to full. */
export interface IntervalPlan extends BasePlan {
  /** mm, the coarsest strip at the top. */
  readonly interval: Axis;
  readonly stripWidthMm: number;
  readonly stripHeightMm: number;
  readonly gapMm: number;
  readonly constants: Omit<BurnSettings, 'intervalMm'>;
}

/** Shares of the power that the three steps of a strip take: lines show in the weak one, mud in the strong one. */
export const RAMP = [0.45, 0.7, 1] as const;

/** Line intervals of the strips, from the finest. */
export const stripIntervals = ({ interval }: IntervalPlan): number[] =>
  axisValues(interval).map((mm) => Math.round(mm * 1e4) / 1e4);

export function upgradeIntervalPlan(stored: object): IntervalPlan {
  const { version } = stored as { version?: number };
  if (version === INTERVAL_VERSION) return stored as IntervalPlan;
  if (version !== 1) throw new RangeError(`unknown interval plan version: ${version}`);
  const first = stored as IntervalPlan;
  return { ...upgradeBase(first), version: INTERVAL_VERSION, constants: upgradeSettings(first.constants) };
}
