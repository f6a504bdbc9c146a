import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import { upgradeSettings, type BurnSettings } from '../../core/card/settings';
import { upgradeBase } from '../../core/card/stored';

export const THRESHOLD_VERSION = 3;

/** Small patches at one speed and rising power: a strip burned at once, or a search that burns one patch at a time. */
export interface ThresholdPlan extends BasePlan {
  /** All patches at once; one at a time; or all at once, so slowly that what stays bare was not fired at. */
  readonly way: 'strip' | 'search' | 'firing';
  /** Fractions of rated power: the patches of the strip, or the range of the search. */
  readonly power: Axis;
  /** How many times the strip is burned, in rows under one another; a search asks again by itself. */
  readonly repeats: number;
  readonly patchMm: number;
  readonly gapMm: number;
  readonly constants: Omit<BurnSettings, 'powerFraction'>;
}

export function upgradeThresholdPlan(stored: object): ThresholdPlan {
  const { version } = stored as { version?: number };
  if (version === THRESHOLD_VERSION) return stored as ThresholdPlan;
  if (version === 2) return { ...(stored as ThresholdPlan), version: THRESHOLD_VERSION, repeats: 1 };
  if (version !== 1) throw new RangeError(`unknown threshold plan version: ${version}`);
  const first = stored as ThresholdPlan;
  return { ...upgradeBase(first), version: THRESHOLD_VERSION, repeats: 1, constants: upgradeSettings(first.constants) };
}
