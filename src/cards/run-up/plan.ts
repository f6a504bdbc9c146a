import { axisValues, type Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const RUN_UP_VERSION = 1;

/** Long bars that differ by nothing but their run-up, as fast as the machine usually fills. */
export interface RunUpPlan extends BasePlan {
  /** mm on each side; the shortest may be none. */
  readonly runUp: Axis;
  readonly repeats: number;
  /** Along the lines, and across them. */
  readonly lengthMm: number;
  readonly barMm: number;
  readonly constants: Omit<BurnSettings, 'runUpMm' | 'lineAngleDeg' | 'crossHatch'>;
}

/** The run-ups of the bars, from the shortest. */
export const barRunUps = ({ runUp }: RunUpPlan): number[] =>
  axisValues(runUp).map((mm) => Math.round(mm * 1000) / 1000);

export function upgradeRunUpPlan(stored: object): RunUpPlan {
  const { version } = stored as { version?: number };
  if (version !== RUN_UP_VERSION) throw new RangeError(`unknown run-up plan version: ${version}`);
  return stored as RunUpPlan;
}
