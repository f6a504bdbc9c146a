import { isLoose, rimFrom, widthOfPart, type Box } from './gauges';
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

/** What is pushed in: an offcut of the sheet, narrow enough for any slot, or a part that was cut out of the same piece, on edge. */
export interface Pushed {
  readonly family: string;
  readonly seed: string;
  readonly part?: Box;
}

/** Where the walls of a slot stand apart least, at places along one of its sides. */
function narrowest(piece: Piece, box: Box, acrossX: boolean): number | null {
  const [ux, uy] = acrossX ? [1, 0] : [0, 1];
  const reach = (acrossX ? box.width : box.height) / 2 + 1;
  const widths = Array.from({ length: PLACES }, (_, place) => {
    const along = (place + 1) / (PLACES + 1);
    const x = box.x + box.width * (acrossX ? 0.5 : along);
    const y = box.y + box.height * (acrossX ? along : 0.5);
    return rimFrom(piece, x, y, ux, uy, reach) + rimFrom(piece, x, y, -ux, -uy, reach);
  }).filter(Number.isFinite);
  return widths.length === 0 ? null : Math.min(...widths);
}

/** Tries an offcut of the sheet, or a part, in the slot that a box was cut as; the slot's short side is its width. */
export function trySlot(piece: Piece, box: Box, { family, seed, part }: Pushed): TriedSlot {
  if (!isLoose(piece, box)) return { cannot: 'The slot is not open: what was cut out of it still hangs.' };
  const isUpright = box.width < box.height;
  const wide = narrowest(piece, box, isUpright);
  if (wide === null) return { cannot: 'The slot has no walls to be tried against.' };
  const partMm = part && widthOfPart(piece, part, 'x');
  if (partMm === null) return { cannot: 'The part that is to go into it has not come loose.' };
  const long = partMm === undefined ? null : narrowest(piece, box, !isUpright);
  const random = randomFrom(`tried ${seed} ${box.x} ${box.y}`);
  const unsteady = UNSTEADY_MM * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  // It goes in where the slot is narrowest, and no looser than its length lets it.
  const lengthwise = partMm === undefined || long === null ? Infinity : long - partMm;
  const clearance = Math.min(wide - piece.thicknessMm, lengthwise) + unsteady;
  return { goes: feelOf(clearance, givesOf(family)) };
}

/** How much the edge of a stock gives before it breaks or will not go. */
export const givesOf = (family: string): number => GIVES_MM[family] ?? GIVES_USUALLY_MM;

/** How something goes that has so much room from wall to wall, where edges give by so much. */
export function feelOf(clearanceMm: number, givesMm: number): Extract<TriedSlot, { goes: string }>['goes'] {
  if (clearanceMm < SNUG_FROM_MM - givesMm) return 'no';
  if (clearanceMm < SNUG_FROM_MM) return 'press';
  if (clearanceMm < SLIP_FROM_MM) return 'snug';
  return clearanceMm < LOOSE_FROM_MM ? 'slip' : 'loose';
}
