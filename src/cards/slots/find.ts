import { wordOf, type Ask, type Seen } from '../../core/card/asks';
import { FIT } from '../../core/card/usual-asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import type { Layout } from '../../core/card/layout';
import {
  chancesAt,
  clearanceFor,
  fitBounds,
  FIT_WORDS,
  FITS,
  type FeltSlot,
  type Fit,
  type FitBounds,
  type WantedFit,
} from '../../core/fit/fit-bounds';
import { kerfToGoBy } from '../../core/card/propose-cut';
import { formatLength, plainNumber } from '../../core/quantities/format';
import { thicknessOf } from '../../core/stock/stock';

export const SLOTS_ASKS: readonly Ask[] = [FIT];

export interface SlotsWish {
  readonly fit: WantedFit;
  /** Of the sheet that the slot is for; null for the one of the card. */
  readonly thicknessMm: number | null;
}

export const USUAL_SLOTS_WISH: SlotsWish = { fit: 'snug', thicknessMm: null };

export interface TriedSlotOfCard extends FeltSlot {
  readonly cellIndex: number;
  readonly drawnMm: number;
}

export interface SlotsFinding extends BaseFinding {
  readonly slots: readonly TriedSlotOfCard[];
  /** By drawn width less the sheet's thickness: the kerf is in it, whatever it is. */
  readonly bounds: FitBounds | null;
  /** The sheet that the slots were tried with, coat and all. */
  readonly sheetMm: number;
  /** How wide a slot is drawn for the wished fit, and how likely that comes out. */
  readonly drawnMm: number | null;
  readonly chances: Readonly<Record<Fit, number>> | null;
  /** Slots that went in worse than a narrower one. */
  readonly odd: readonly number[];
}

/** Fewer slots than this on either side of a bound tell nothing that would be worth a sheet. */
const LEAST_SLOTS = 4;
/** A wider slot that feels tighter by two fits or more contradicts its neighbours. */
const ODD_BY = 2;

/** Where each fit begins, by what was pushed into the slots, and how wide a slot is drawn for the one that is wanted. */
export function findSlots(layout: Layout, seen: Seen, known: Known, wish: SlotsWish): SlotsFinding {
  const { machine, stock } = known.pairing;
  const liked = machine.likedUnits;
  const sheetMm = sheetOf(layout);
  const slots = layout.order
    .flatMap((cellIndex): TriedSlotOfCard[] => {
      const fit = wordOf(seen, FIT.field, cellIndex) as Fit | null;
      const drawnMm = layout.cells[cellIndex]!.levels.size as number;
      return fit === null ? [] : [{ cellIndex, fit, drawnMm, clearanceMm: drawnMm - sheetMm }];
    })
    .sort((a, b) => a.drawnMm - b.drawnMm);
  const rank = ({ fit }: FeltSlot): number => FITS.indexOf(fit);
  const odd = slots.filter((slot, k) => slots.slice(0, k).some((narrower) => rank(narrower) - rank(slot) >= ODD_BY));
  const none = {
    slots,
    sheetMm,
    bounds: null,
    drawnMm: null,
    chances: null,
    odd: odd.map(({ cellIndex }) => cellIndex),
  };
  const missing: string[] = [];
  if (slots.length < LEAST_SLOTS)
    missing.push(
      `Push an offcut of the sheet into the slots and say how it goes: ${LEAST_SLOTS} of them at the least.`,
    );
  else if (slots.every(({ fit }) => fit === 'no'))
    missing.push('It goes into none of the slots: make them wider, or measure the sheet again.');
  else if (slots.every(({ fit }) => fit === 'loose'))
    missing.push('It is loose in all of the slots: make them narrower, or measure the sheet again.');
  if (missing.length > 0) return { ...none, missing, says: '' };
  const bounds = fitBounds(slots, kerfToGoBy(known).xMm);
  const { clearanceMm } = clearanceFor(bounds, wish.fit, thicknessOf(stock).spreadMm ?? 0);
  const wanted = wish.thicknessMm ?? sheetMm;
  // A sheet is not as thick everywhere.
  const chances = chancesAt(bounds, clearanceMm, thicknessOf(stock).spreadMm ?? 0);
  const drawnMm = wanted + clearanceMm;
  return {
    ...none,
    bounds,
    drawnMm,
    chances,
    missing,
    says:
      drawnMm > 0
        ? `A slot for ${formatLength(wanted, liked, 3)} is drawn ${formatLength(drawnMm, liked, 3)} wide: ${FIT_WORDS[wish.fit]} in ${plainNumber(100 * chances[wish.fit], 2)} of 100.`
        : 'The cut alone is wider than such a slot: it cannot be drawn.',
  };
}

/** The sheet that a card's slots were drawn for, from any of its cells. */
function sheetOf(layout: Layout): number {
  const { size, clearance } = layout.cells[0]!.levels as { readonly size: number; readonly clearance: number };
  return size - clearance;
}
