import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const PASSES_VERSION = 1;

/** Columns of a card, and rows, at the most. */
export const MOST_PASSES_TRIED = 8;
export const MOST_REPEATS = 6;

/** Shapes with a sharp tip, cut with one energy in one pass, in two at twice the speed, and so on. */
export interface PassesPlan extends BasePlan {
  /** The most passes that are tried: from one on, each a column. */
  readonly most: number;
  readonly repeats: number;
  readonly sizeMm: number;
  /** Angle of the tip. */
  readonly tipDeg: number;
  readonly gapMm: number;
  /** What one pass is cut with. */
  readonly cut: BurnSettings;
}

export function upgradePassesPlan(stored: object): PassesPlan {
  const { version } = stored as { version?: number };
  if (version === PASSES_VERSION) return stored as PassesPlan;
  throw new RangeError(`unknown passes plan version: ${version}`);
}

/** The same energy in so many passes: each so many times as fast. */
export const settingsFor = ({ cut }: Pick<PassesPlan, 'cut'>, passes: number): BurnSettings => ({
  ...cut,
  passes,
  speedMmPerS: Math.round(cut.speedMmPerS * passes * 100) / 100,
});
