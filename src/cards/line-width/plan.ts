import { axisValues, type Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const LINE_WIDTH_VERSION = 1;

/** Single lines at one speed and rising power, several of each, with bare stock on both sides. */
export interface LineWidthPlan extends BasePlan {
  /** Fractions of rated power, the weakest first. */
  readonly power: Axis;
  readonly repeats: number;
  readonly lineMm: number;
  /** From the middle of one line to the next across them. */
  readonly pitchMm: number;
  /** One line is one sweep of a fill, as fast and with as much run-up; how it would be filled says nothing here. */
  readonly constants: Omit<BurnSettings, 'powerFraction' | 'lineAngleDeg' | 'crossHatch'>;
}

/** The powers of the lines, from the weakest. */
export const linePowers = ({ power }: LineWidthPlan): number[] =>
  axisValues(power).map((fraction) => Math.round(fraction * 1e4) / 1e4);

export function upgradeLineWidthPlan(stored: object): LineWidthPlan {
  const { version } = stored as { version?: number };
  if (version !== LINE_WIDTH_VERSION) throw new RangeError(`unknown line width plan version: ${version}`);
  return stored as LineWidthPlan;
}
