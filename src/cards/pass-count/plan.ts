import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const PASS_COUNT_VERSION = 1;

/** A square that gets one pass after another, until it drops. */
export interface PassCountPlan extends BasePlan {
  readonly sizeMm: number;
  readonly mostPasses: number;
  /** One pass of them. */
  readonly cut: BurnSettings;
}

export function upgradePassCountPlan(stored: object): PassCountPlan {
  const { version } = stored as { version?: number };
  if (version === PASS_COUNT_VERSION) return stored as PassCountPlan;
  throw new RangeError(`unknown pass count plan version: ${version}`);
}
