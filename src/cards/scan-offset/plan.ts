import { axisValues, type Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const SCAN_OFFSET_VERSION = 1;

/** Pairs of bars, one burned by the lines there and one by the lines back of a single fill, at rising speed. */
export interface ScanOffsetPlan extends BasePlan {
  /** mm/s, the slowest first. */
  readonly speed: Axis;
  /** Pairs of each speed; every second one has its bars the other way round. */
  readonly repeats: number;
  /** Along the sweeps, and across them. */
  readonly barWidthMm: number;
  readonly barMm: number;
  /** From the middle of one bar to the middle of the other. */
  readonly pitchMm: number;
  /** Power is that of the fastest pair: slower ones get less, so that all get the same energy. The interval is from a line there to the next line back. */
  readonly constants: Omit<BurnSettings, 'speedMmPerS' | 'passes' | 'bothWays' | 'lineAngleDeg' | 'crossHatch'>;
}

/** The speeds of the pairs, from the slowest. */
export const pairSpeeds = ({ speed }: ScanOffsetPlan): number[] =>
  axisValues(speed).map((mmPerS) => Math.round(mmPerS * 100) / 100);

export function upgradeScanOffsetPlan(stored: object): ScanOffsetPlan {
  const { version } = stored as { version?: number };
  if (version !== SCAN_OFFSET_VERSION) throw new RangeError(`unknown scan offset plan version: ${version}`);
  return stored as ScanOffsetPlan;
}
