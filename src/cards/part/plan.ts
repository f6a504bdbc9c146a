import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import type { WantedFit } from '../../core/fit/fit-bounds';
import type { School } from '../../core/joint/clearance';
import type { Drawing } from '../../core/part/drawing';
import { sortedDrawing, type SortedDrawing } from '../../core/part/outlines';

export const PART_VERSION = 1;

/** A drawing cut so that it comes out as it is wanted, and beside it a slot for its largest part. */
export interface PartPlan extends BasePlan {
  readonly drawing: Drawing;
  /** How many times as large as it is drawn. */
  readonly scale: number;
  /** Full width, along each axis, and its standard uncertainty; null where nobody knows. */
  readonly kerf: { readonly xMm: number; readonly yMm: number; readonly sigmaMm: number | null };
  readonly school: School;
  readonly clearanceMm: number;
  /** Whether a slot is cut beside it, which its largest part is pushed into on edge. */
  readonly withSlot: boolean;
  readonly thicknessMm: number;
  readonly fit: WantedFit;
  /** How much wider than the sheet a slot is drawn for each fit: the kerf is in it. */
  readonly slotFor: Readonly<Record<WantedFit, number>>;
  readonly gapMm: number;
  readonly leadMm: number;
  readonly tabs: number;
  readonly tabMm: number;
  /** Whether lines that end are cut as they are drawn. */
  readonly cutsOpen: boolean;
  readonly cut: BurnSettings;
}

export function upgradePartPlan(stored: object): PartPlan {
  const { version } = stored as { version?: number };
  if (version === PART_VERSION) return stored as PartPlan;
  throw new RangeError(`unknown part plan version: ${version}`);
}

const sorted = new WeakMap<Drawing, { readonly scale: number; readonly of: SortedDrawing }>();

/** A plan's drawing sorted by nesting: once for each drawing and size, since a planner asks at every key. */
export function sortedOf({ drawing, scale }: Pick<PartPlan, 'drawing' | 'scale'>): SortedDrawing {
  const known = sorted.get(drawing);
  if (known?.scale === scale) return known.of;
  const of = sortedDrawing(drawing, scale);
  sorted.set(drawing, { scale, of });
  return of;
}
