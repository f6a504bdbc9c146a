import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';

export const SLOTS_VERSION = 1;

/** Slots in a row, at the most. */
export const MOST_SLOTS = 16;

/** A comb of slots around the thickness of the sheet: an offcut of it is pushed into each. */
export interface SlotsPlan extends BasePlan {
  /** The sheet as measured: what is pushed in on edge. */
  readonly thicknessMm: number;
  /** Paint, varnish or masking on both faces together; 0 for none. */
  readonly coatMm: number;
  /** How much wider than that slots are drawn; they come out wider still by the kerf. */
  readonly clearance: Axis;
  readonly lengthMm: number;
  readonly gapMm: number;
  readonly cut: BurnSettings;
}

export function upgradeSlotsPlan(stored: object): SlotsPlan {
  const { version } = stored as { version?: number };
  if (version === SLOTS_VERSION) return stored as SlotsPlan;
  throw new RangeError(`unknown slots plan version: ${version}`);
}

/** How wide a slot is drawn for a clearance. */
export const drawnWidthMm = (
  { thicknessMm, coatMm }: Pick<SlotsPlan, 'thicknessMm' | 'coatMm'>,
  clearanceMm: number,
): number => Math.round((thicknessMm + coatMm + clearanceMm) * 1e4) / 1e4;
