import { axisValues, type Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const CEILING_VERSION = 1;

/** Step wedges under one another, each from just above the floor up to a top power of its own. */
export interface CeilingPlan extends BasePlan {
  /** Top powers of the wedges, fractions of rated power, the lowest first. */
  readonly top: Axis;
  /** Where wedges begin: the first step lies one step above it. */
  readonly floorFraction: number;
  readonly steps: number;
  readonly patchMm: number;
  readonly gapMm: number;
  readonly constants: Omit<BurnSettings, 'powerFraction'>;
}

const round = (fraction: number): number => Math.round(fraction * 1e4) / 1e4;

/** Top powers, from the lowest. */
export const wedgeTops = ({ top }: CeilingPlan): number[] => axisValues(top).map(round);

/** Powers of a wedge's steps, the weakest first. */
export const stepPowers = ({ floorFraction, steps }: CeilingPlan, top: number): number[] =>
  Array.from({ length: steps }, (_, step) => round(floorFraction + ((top - floorFraction) * (step + 1)) / steps));

export function upgradeCeilingPlan(stored: object): CeilingPlan {
  const { version } = stored as { version?: number };
  if (version !== CEILING_VERSION) throw new RangeError(`unknown ceiling plan version: ${version}`);
  return stored as CeilingPlan;
}
