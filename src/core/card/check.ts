import type { Lens, Machine } from '../machine/machine';
import type { Estimate } from './estimate';

/** Where a card lies on the bed: its upper left corner from the bed's left and rear edges. */
export interface BedPlace {
  readonly leftMm: number;
  readonly rearMm: number;
}

export interface BedCheck {
  readonly inside: boolean;
  /** How far head and run-up go beyond the bed on each side; 0 where they stay inside. */
  readonly beyondMm: { readonly left: number; readonly right: number; readonly rear: number; readonly front: number };
}

/**
 * Whether the head stays over the bed for all that it reaches of a card, run-up included. Through a galvo lens the bed ends where the
 * lens's field does, which lies square in its middle.
 */
export function checkBed(
  reach: Estimate['reach'],
  { machine, lens }: { readonly machine: Machine; readonly lens: Lens },
  place: BedPlace,
): BedCheck {
  const { bedWidthMm, bedDepthMm } = machine;
  const field = machine.head === 'galvo' ? lens.fieldMm : null;
  const marginX = field === null ? 0 : Math.max(0, (bedWidthMm - field) / 2);
  const marginY = field === null ? 0 : Math.max(0, (bedDepthMm - field) / 2);
  const over = (value: number): number => Math.max(0, Math.round(value * 1000) / 1000);
  const beyondMm = {
    left: over(marginX - (place.leftMm + reach.left)),
    right: over(place.leftMm + reach.right - (bedWidthMm - marginX)),
    rear: over(marginY - (place.rearMm + reach.top)),
    front: over(place.rearMm + reach.bottom - (bedDepthMm - marginY)),
  };
  return { inside: Object.values(beyondMm).every((mm) => mm === 0), beyondMm };
}
