import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import { upgradeSettings, type BurnSettings } from '../../core/card/settings';
import { upgradeBase } from '../../core/card/stored';

export const FOCUS_VERSION = 2;

/** The same patch at several focus offsets, side by side. */
export interface FocusPlan extends BasePlan {
  /** mm from the focus that the operator set; see `BurnSettings` for its sense. */
  readonly focus: Axis;
  readonly patchMm: number;
  readonly gapMm: number;
  readonly constants: Omit<BurnSettings, 'focusOffsetMm'>;
}

export function upgradeFocusPlan(stored: object): FocusPlan {
  const { version } = stored as { version?: number };
  if (version === FOCUS_VERSION) return stored as FocusPlan;
  if (version !== 1) throw new RangeError(`unknown focus plan version: ${version}`);
  const first = stored as FocusPlan;
  return { ...upgradeBase(first), version: FOCUS_VERSION, constants: upgradeSettings(first.constants) };
}
