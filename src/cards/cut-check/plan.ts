import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const CUT_CHECK_VERSION = 1;

/** Three discs: with the kept cut, and with less, down to little more than just came through. */
export interface CutCheckPlan extends BasePlan {
  /** Energy of each disc over that of the kept cut, ascending; the last is 1. */
  readonly shares: readonly [number, number, number];
  readonly sizeMm: number;
  readonly gapMm: number;
  readonly cut: BurnSettings;
}

export function upgradeCutCheckPlan(stored: object): CutCheckPlan {
  const { version } = stored as { version?: number };
  if (version === CUT_CHECK_VERSION) return stored as CutCheckPlan;
  throw new RangeError(`unknown cut check plan version: ${version}`);
}

/** Less energy by going faster. */
export const settingsAt = ({ cut }: Pick<CutCheckPlan, 'cut'>, share: number): BurnSettings => ({
  ...cut,
  speedMmPerS: Math.round((cut.speedMmPerS / share) * 100) / 100,
});
