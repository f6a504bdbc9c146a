import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import { commandFor, leastCommand } from '../../core/machine/command';
import { deliveredPowerW, type Machine } from '../../core/machine/machine';

export const SCORE_VERSION = 2;
export const MOST_STEPS = 6;

/** Flaps that hang by a line each: perforated by dashes and skips, or scored with less than a cut’s energy. */
export interface ScorePlan extends BasePlan {
  /** Lengths of dashes, from row to row; of what stands between them, from column to column. */
  readonly dash: Axis;
  readonly skip: Axis;
  /** A last row is scored: shares of a cut’s energy, as many as there are columns. */
  readonly scoreFrom: number;
  readonly scoreTo: number;
  /** Below them dashes that are scored with the least of these shares and cut nothing, to look like stitching: their lengths, from column to column. */
  readonly stitchFromMm: number;
  readonly stitchToMm: number;
  /** Along the line, and beside it. */
  readonly flapWidthMm: number;
  readonly flapHeightMm: number;
  readonly gapMm: number;
  readonly kerfMm: number;
  readonly cut: BurnSettings;
}

/** Stitches by hand are as long (common practice). */
export const USUAL_STITCHES = { stitchFromMm: 2, stitchToMm: 4 } as const;
/** Of a stitch so much shows no thread between it and the next one (from memory, without a source). */
const BETWEEN_SHARE = 0.4;

export function upgradeScorePlan(stored: object): ScorePlan {
  const { version } = stored as { version?: number };
  if (version === SCORE_VERSION) return stored as ScorePlan;
  // Before dashes were scored for their looks.
  if (version === 1) return { ...(stored as ScorePlan), version: SCORE_VERSION, ...USUAL_STITCHES };
  throw new RangeError(`unknown score plan version: ${version}`);
}

/** Shares of a cut’s energy that lines are scored with. */
export const scoreShares = ({ scoreFrom, scoreTo, skip }: ScorePlan): number[] =>
  Array.from(
    { length: skip.count },
    (_, k) => Math.round((scoreFrom + ((scoreTo - scoreFrom) * k) / Math.max(1, skip.count - 1)) * 1000) / 1000,
  );

/** What stands between two stitches of a length. */
export const betweenStitchesMm = (stitchMm: number): number => Math.round(BETWEEN_SHARE * stitchMm * 100) / 100;

/** Dashes that are to look like stitches, from the shortest on the left. */
export const stitchesOf = ({ stitchFromMm, stitchToMm, skip }: ScorePlan): { dashMm: number; skipMm: number }[] =>
  Array.from({ length: skip.count }, (_, k) => {
    const dashMm =
      Math.round((stitchFromMm + ((stitchToMm - stitchFromMm) * k) / Math.max(1, skip.count - 1)) * 100) / 100;
    return { dashMm, skipMm: betweenStitchesMm(dashMm) };
  });

/** Less than a cut: one pass, faster. */
export const scoreSettings = ({ cut }: Pick<ScorePlan, 'cut'>, share: number): BurnSettings => ({
  ...cut,
  passes: 1,
  speedMmPerS: Math.round((cut.speedMmPerS / (share * cut.passes)) * 100) / 100,
});

/**
 * The shallowest score by less power at a cut's speed: dashes are too short for a head that is driven faster, and would be burned deeper at their ends.
 * Faster, where so little power would not fire.
 */
export function stitchSettings(plan: ScorePlan, machine: Machine): BurnSettings {
  const share = Math.min(...scoreShares(plan));
  const { cut } = plan;
  const watts = share * cut.passes * deliveredPowerW(machine, cut.powerFraction);
  const least = Math.min(cut.powerFraction, leastCommand(machine));
  const wanted = Math.min(cut.powerFraction, commandFor(machine, watts));
  const powerFraction = Math.round(Math.max(least, wanted) * 1000) / 1000;
  const speedMmPerS = (cut.speedMmPerS * deliveredPowerW(machine, powerFraction)) / watts;
  return { ...cut, passes: 1, powerFraction, speedMmPerS: Math.round(speedMmPerS * 100) / 100 };
}
