import { framedSize } from '../../core/card/frame';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const BED_VERSION = 1;

/** At the depth of focus lines have faded by a fifth; half as far again by two fifths, as about a Rayleigh range does to lines a spot and a half apart. */
export const RANGE_OVER_DEPTH = 1.5;

/** Three patches, below, at and above the set focus, at places all over the bed. */
export interface BedPlan extends BasePlan {
  readonly columns: number;
  readonly rows: number;
  /** From the left edge of the first place's patches to the right edge of the last one's, and from rear to front. */
  readonly acrossMm: number;
  readonly downMm: number;
  /** By how much the head is lowered and raised. */
  readonly offsetMm: number;
  readonly patchMm: number;
  readonly gapMm: number;
  readonly constants: Omit<BurnSettings, 'focusOffsetMm'>;
}

type Size = Pick<BedPlan, 'patchMm' | 'gapMm'>;

/** Focus offsets of the patches of a place, from the left. */
export const offsetsOf = ({ offsetMm }: Pick<BedPlan, 'offsetMm'>): readonly [number, number, number] => [
  -offsetMm,
  0,
  offsetMm,
];

/** What the patches of one place take. */
export const patchesSize = ({ patchMm, gapMm }: Size): { width: number; height: number } => ({
  width: 3 * patchMm + 2 * gapMm,
  height: patchMm,
});

/** Bare stock between the frames of two places. */
const BETWEEN_MM = 1;

/** The least that some places in a row take along an axis, from patches to patches: their frames must not touch. */
export function leastSpanMm(count: number, size: Size, axis: 'across' | 'down'): number {
  const patches = patchesSize(size);
  const framed = framedSize(patches);
  const [own, step] = axis === 'across' ? [patches.width, framed.width] : [patches.height, framed.height];
  return own + (count - 1) * (step + BETWEEN_MM);
}

/** The name of a place: its row by letter from the rear, its column by number from the left. */
export const placeName = (row: number, column: number): string => `${String.fromCharCode(65 + row)}${column + 1}`;

export function upgradeBedPlan(stored: object): BedPlan {
  const { version } = stored as { version?: number };
  if (version !== BED_VERSION) throw new RangeError(`unknown bed plan version: ${version}`);
  return stored as BedPlan;
}
