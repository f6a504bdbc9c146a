import { isLoose, rimFrom, type Box } from './gauges';
import type { Piece } from './piece';
import { randomFrom } from './random';

/** How an offcut of the same sheet goes into a slot on edge, as a hand tells it; or why it cannot be tried. */
export type TriedSlot = { readonly goes: 'no' | 'press' | 'snug' | 'slip' | 'loose' } | { readonly cannot: string };

/** How much an edge gives before it breaks or will not go, by what the stock is: soft fibres give, plastics hardly. */
const GIVES_MM: Readonly<Record<string, number>> = {
  'acrylic-cast': 0.02,
  'acrylic-extruded': 0.02,
  mdf: 0.1,
  cork: 0.25,
  rubber: 0.3,
};
const GIVES_USUALLY_MM = 0.07;
/** From which clearance on a sheet is held but not pressed, slides, and rattles. */
const SNUG_FROM_MM = -0.012;
const SLIP_FROM_MM = 0.055;
const LOOSE_FROM_MM = 0.15;
/** A sheet is not as thick everywhere, and no hand presses twice alike. */
const UNSTEADY_MM = 0.012;
const PLACES = 9;

/** Tries an offcut of the sheet in the slot that a box was cut as; the slot's short side is its width. */
export function trySlot(piece: Piece, box: Box, sheet: { readonly family: string; readonly seed: string }): TriedSlot {
  if (!isLoose(piece, box)) return { cannot: 'The slot is not open: what was cut out of it still hangs.' };
  const isUpright = box.width < box.height;
  const ux = isUpright ? 1 : 0;
  const uy = 1 - ux;
  const reach = Math.min(box.width, box.height) / 2 + 1;
  const widths = Array.from({ length: PLACES }, (_, place) => {
    const along = (place + 1) / (PLACES + 1);
    const x = box.x + box.width * (isUpright ? 0.5 : along);
    const y = box.y + box.height * (isUpright ? along : 0.5);
    return rimFrom(piece, x, y, ux, uy, reach) + rimFrom(piece, x, y, -ux, -uy, reach);
  }).filter(Number.isFinite);
  if (widths.length === 0) return { cannot: 'The slot has no walls to be tried against.' };
  const random = randomFrom(`tried ${sheet.seed} ${box.x} ${box.y}`);
  const unsteady = UNSTEADY_MM * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  // It goes in where the slot is narrowest.
  const clearance = Math.min(...widths) - piece.thicknessMm + unsteady;
  const gives = GIVES_MM[sheet.family] ?? GIVES_USUALLY_MM;
  if (clearance < SNUG_FROM_MM - gives) return { goes: 'no' };
  if (clearance < SNUG_FROM_MM) return { goes: 'press' };
  if (clearance < SLIP_FROM_MM) return { goes: 'snug' };
  return { goes: clearance < LOOSE_FROM_MM ? 'slip' : 'loose' };
}
