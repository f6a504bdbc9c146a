import type { BasePlan } from '../../core/card/contract';
import { upgradeSettings, type BurnSettings } from '../../core/card/settings';
import { upgradeBase } from '../../core/card/stored';

export const KERF_VERSION = 2;

/** Height of the number on a square. */
export const NUMBER_MM = 3;

/** Squares that are cut out and measured: what they lack to their drawn size is the kerf. */
export interface KerfPlan extends BasePlan {
  readonly sizeMm: number;
  readonly count: number;
  readonly gapMm: number;
  readonly cut: BurnSettings;
}

export function upgradeKerfPlan(stored: object): KerfPlan {
  const { version } = stored as { version?: number };
  if (version === KERF_VERSION) return stored as KerfPlan;
  if (version !== 1) throw new RangeError(`unknown kerf plan version: ${version}`);
  const first = stored as KerfPlan;
  return { ...upgradeBase(first), version: KERF_VERSION, cut: upgradeSettings(first.cut) };
}
