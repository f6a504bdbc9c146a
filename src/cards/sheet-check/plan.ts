import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const SHEET_CHECK_VERSION = 1;

/** Six patches around a setting: twice as it stands, and with a step or two more and less of its power. */
export interface SheetCheckPlan extends BasePlan {
  /** Share that power changes by from patch to patch. */
  readonly stepFraction: number;
  readonly patchMm: number;
  readonly gapMm: number;
  /** The setting itself. */
  readonly constants: BurnSettings;
}

/**
 * Steps of the patches from left to right, so that places and steps go together in nothing: light that falls off evenly from one side looks like neither
 * more nor less power.
 */
export const PATCH_STEPS = [0, 2, -2, -1, 0, 1] as const;

/** Powers of the patches from left to right, as fractions of rated power; the cap takes off what is above it. */
export const patchPowers = ({ stepFraction, constants }: SheetCheckPlan, cap: number): number[] =>
  PATCH_STEPS.map((steps) =>
    Math.min(cap, Math.round(constants.powerFraction * (1 + stepFraction) ** steps * 1e4) / 1e4),
  );

export function upgradeSheetCheckPlan(stored: object): SheetCheckPlan {
  const { version } = stored as { version?: number };
  if (version !== SHEET_CHECK_VERSION) throw new RangeError(`unknown sheet check plan version: ${version}`);
  return stored as SheetCheckPlan;
}
