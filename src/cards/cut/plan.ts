import { axisValues, type Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const CUT_VERSION = 1;

/** Columns, and rows, at the most. */
export const MOST_STEPS = 10;

/** What the rows of a card differ in: squares of one row were cut with one power, or in as many passes. */
export interface RowAxis extends Axis {
  readonly channel: 'power' | 'passes';
}

/** Squares that are cut out at speeds from left to right, and powers or passes from row to row; then the sheet is tapped. */
export interface CutPlan extends BasePlan {
  readonly speed: Axis;
  readonly rows: RowAxis;
  readonly sizeMm: number;
  readonly gapMm: number;
  /** What is the same for every square; its speed, and what the rows differ in, are theirs. */
  readonly cut: BurnSettings;
}

export function upgradeCutPlan(stored: object): CutPlan {
  const { version } = stored as { version?: number };
  if (version === CUT_VERSION) return stored as CutPlan;
  throw new RangeError(`unknown cut plan version: ${version}`);
}

/** Settings that a square of a row and a column is cut with. */
export const squareSettings = ({ cut, rows }: CutPlan, speedMmPerS: number, level: number): BurnSettings =>
  rows.channel === 'power'
    ? { ...cut, speedMmPerS, powerFraction: level }
    : { ...cut, speedMmPerS, passes: Math.round(level) };

/** The levels of the rows, from the top: the high end first, as the planner has its left edge. */
export const rowLevels = ({ rows }: CutPlan): number[] =>
  axisValues(rows)
    .map((level) => (rows.channel === 'passes' ? Math.round(level) : level))
    .reverse();

/** Length of a square's outline. */
export const outlineOf = ({ sizeMm }: Pick<CutPlan, 'sizeMm'>): number => 4 * sizeMm;
