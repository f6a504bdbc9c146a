import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import type { KnobShape } from '../../core/joint/knob';
import { mateLadders, type MateLadders } from '../../core/joint/mates';

export const KNOBS_VERSION = 1;

/** Holes, and parts, at the most. */
export const MOST_MATES = 6;

/** Whether this sheet has the whole joint, or one half of an inlay of two stocks. */
export const CUT_HERE = ['both', 'holes', 'parts'] as const;
export type CutHere = (typeof CUT_HERE)[number];

/** Holes and parts of one shape, each drawn tighter by a step of its own, to be put together in every way. */
export interface KnobsPlan extends BasePlan {
  readonly shape: KnobShape;
  /** Across the head of a knob, or across a disc or square. */
  readonly headMm: number;
  readonly holes: number;
  readonly parts: number;
  /** How much tighter the loosest pair is drawn on every side, and by how much more each next one. */
  readonly fromMm: number;
  readonly stepMm: number;
  readonly cutHere: CutHere;
  /** What the other half is cut of, and what a cut takes of it, full width; of no use where all is cut here. */
  readonly otherStock: string;
  readonly otherKerfMm: number;
  /** What a cut takes of this sheet, full width. */
  readonly kerfMm: number;
  readonly gapMm: number;
  readonly cut: BurnSettings;
}

export function upgradeKnobsPlan(stored: object): KnobsPlan {
  const { version } = stored as { version?: number };
  if (version === KNOBS_VERSION) return stored as KnobsPlan;
  throw new RangeError(`unknown knobs plan version: ${version}`);
}

export const laddersOf = ({ fromMm, stepMm, holes, parts }: KnobsPlan): MateLadders =>
  mateLadders(fromMm, stepMm, holes, parts);

/** The largest that any outline is moved outward or inward. */
export function mostMovedMm(plan: KnobsPlan): number {
  const { holesMm, partsMm } = laddersOf(plan);
  return Math.max(...[...holesMm, ...partsMm].map(Math.abs));
}
