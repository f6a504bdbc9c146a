import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const SCORE_VERSION = 1;
export const MOST_STEPS = 6;

/** Flaps that hang by a line each: perforated by dashes and skips, or scored with less than a cut’s energy. */
export interface ScorePlan extends BasePlan {
  /** Lengths of dashes, from row to row; of what stands between them, from column to column. */
  readonly dash: Axis;
  readonly skip: Axis;
  /** A last row is scored: shares of a cut’s energy, as many as there are columns. */
  readonly scoreFrom: number;
  readonly scoreTo: number;
  /** Along the line, and beside it. */
  readonly flapWidthMm: number;
  readonly flapHeightMm: number;
  readonly gapMm: number;
  readonly kerfMm: number;
  readonly cut: BurnSettings;
}

export function upgradeScorePlan(stored: object): ScorePlan {
  const { version } = stored as { version?: number };
  if (version === SCORE_VERSION) return stored as ScorePlan;
  throw new RangeError(`unknown score plan version: ${version}`);
}

/** Shares of a cut’s energy that lines are scored with. */
export const scoreShares = ({ scoreFrom, scoreTo, skip }: ScorePlan): number[] =>
  Array.from(
    { length: skip.count },
    (_, k) => Math.round((scoreFrom + ((scoreTo - scoreFrom) * k) / Math.max(1, skip.count - 1)) * 1000) / 1000,
  );

/** Less than a cut: one pass, faster. */
export const scoreSettings = ({ cut }: Pick<ScorePlan, 'cut'>, share: number): BurnSettings => ({
  ...cut,
  passes: 1,
  speedMmPerS: Math.round((cut.speedMmPerS / (share * cut.passes)) * 100) / 100,
});
