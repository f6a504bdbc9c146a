import type { BasePlan } from '../../core/card/contract';
import { upgradeSettings, type BurnSettings } from '../../core/card/settings';
import { upgradeBase } from '../../core/card/stored';

export const KERF_VERSION = 3;

/** Height of the number on a square. */
export const NUMBER_MM = 3;

/** Squares that are cut out and measured: what they lack to their drawn size is the kerf. */
export interface KerfPlan extends BasePlan {
  readonly sizeMm: number;
  /** Of the smaller squares that stand beside them, as many: two sizes tell the kerf from an axis that goes too far; null for none. */
  readonly smallMm: number | null;
  /** Of each size. */
  readonly count: number;
  readonly gapMm: number;
  readonly cut: BurnSettings;
}

export function upgradeKerfPlan(stored: object): KerfPlan {
  const { version } = stored as { version?: number };
  if (version === KERF_VERSION) return stored as KerfPlan;
  if (version === 2) return { ...(stored as KerfPlan), version: KERF_VERSION, smallMm: null };
  if (version !== 1) throw new RangeError(`unknown kerf plan version: ${version}`);
  const first = stored as KerfPlan;
  return { ...upgradeBase(first), version: KERF_VERSION, smallMm: null, cut: upgradeSettings(first.cut) };
}

/** Sizes of all squares, the large ones first. */
export const sizesOf = ({ sizeMm, smallMm, count }: Pick<KerfPlan, 'sizeMm' | 'smallMm' | 'count'>): number[] =>
  [sizeMm, ...(smallMm === null ? [] : [smallMm])].flatMap((size) => Array.from({ length: count }, () => size));
