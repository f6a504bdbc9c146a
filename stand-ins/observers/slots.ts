import { caliperWidthOfSlot } from './slot-width';
import { trySlot } from '../../src/bench/try-slot';
import type { SlotsFinding } from '../../src/cards/slots/find';
import type { Answer } from '../../src/core/card/asks';
import { FIT } from '../../src/core/card/usual-asks';
import type { Burned, Observer } from './observer';

/** Clearances at which the bench's hand calls a sheet snug, and slipping, once a slot is cut: see the bench's own numbers. */
const SNUG_FROM_MM = -0.012;
const SLIP_FROM_MM = 0.055;

/** How much wider than drawn a card's slots are, on the average. */
function widened({ piece, layout }: Burned): number {
  const off = layout.cells.map(({ box }) => caliperWidthOfSlot(piece, box) - box.width);
  return off.reduce((sum, mm) => sum + mm, 0) / off.length;
}

export const slotsObserver: Observer<SlotsFinding> = {
  on: ['marl', 'acrylic'],
  look: ({ piece, layout, pairing }, seed) => ({
    readings: [],
    answers: layout.order.flatMap((cellIndex): Answer[] => {
      const tried = trySlot(piece, layout.cells[cellIndex]!.box, { family: pairing.stock.family, seed });
      return 'goes' in tried ? [{ field: FIT.field, cellIndex, repeat: 0, value: tried.goes }] : [];
    }),
  }),
  // Drawn clearances are less than true ones by what the cut widened the slots, and by what the sheet is thicker than it was measured.
  truth: (burned, { sheetMm }) => {
    const off = widened(burned) - (burned.piece.thicknessMm - sheetMm);
    return [SNUG_FROM_MM - off, SLIP_FROM_MM - off];
  },
  claims: ({ bounds }) =>
    (['snug', 'slip'] as const).map((fit) => {
      const { atMm, sigmaMm } = bounds!.from[fit];
      return [atMm - 2 * sigmaMm, atMm + 2 * sigmaMm];
    }),
  widestClaim: 0.16,
};
