import { cardKind, type CardKindName } from '../cards/registry';
import { checkBed, type BedPlace } from '../core/card/check';
import { PlanError, type Proposal } from '../core/card/contract';
import { estimateCard } from '../core/card/estimate';
import type { Layout } from '../core/card/layout';
import { freePlace, placeIsFree } from '../core/card/place';
import type { GridPlan } from '../cards/grid/plan';
import { plainNumber } from '../core/quantities/format';
import * as cards from '../db/cards';
import type { CardRecord } from '../db/cards';
import type { AppContext } from './context';
import { once } from './once';
import { getPairing, refuseUnlessBurnable, type OpenPairing } from './pairings';
import { notFound, Problem } from './problems';

export interface CardRequest {
  readonly pairingId: number;
  readonly kind: CardKindName;
  readonly plan: GridPlan;
  /** Upper left corner on the sheet; null for the first free place. */
  readonly sheetPlace: { readonly xMm: number; readonly yMm: number } | null;
  readonly sheetOnBed: SheetOnBed;
}

/** Where the sheet's rear left corner lies, from the bed's rear left corner. */
export interface SheetOnBed {
  readonly leftMm: number;
  readonly rearMm: number;
}

export function bedPlaceOf(sheetOnBed: SheetOnBed, place: { xMm: number; yMm: number }): BedPlace {
  return { leftMm: sheetOnBed.leftMm + place.xMm, rearMm: sheetOnBed.rearMm + place.yMm };
}

export async function proposeCard(ctx: AppContext, pairingId: number, kind: CardKindName): Promise<Proposal<GridPlan>> {
  const pairing = await getPairing(ctx, pairingId);
  refuseUnlessBurnable(pairing);
  return cardKind(kind).propose({ pairing });
}

function layOrRefuse(kind: CardKindName, plan: GridPlan, pairing: OpenPairing, cardNumber: number): Layout {
  try {
    return cardKind(kind).lay(plan, pairing, { cardNumber });
  } catch (error) {
    if (!(error instanceof PlanError)) throw error;
    const fields = error.problems.map(({ field, message }) => ({ field: `plan.${field}`, message }));
    throw new Problem(
      'invalid-input',
      'The card cannot be laid as planned.',
      'Nothing was made; your plan is still on the page.',
      fields,
    );
  }
}

function choosePlace(
  layout: Layout,
  pairing: OpenPairing,
  used: Awaited<ReturnType<typeof cards.usedAreasOfStock>>,
  wanted: CardRequest['sheetPlace'],
): { xMm: number; yMm: number } {
  const sheet = { widthMm: pairing.stock.sheetWidthMm, heightMm: pairing.stock.sheetDepthMm };
  const size = `${plainNumber(layout.widthMm)} × ${plainNumber(layout.heightMm)} mm`;
  if (wanted === null) {
    const place = freePlace(sheet, used, layout);
    if (!place) throw new Problem('does-not-fit', `No free place of ${size} is left on this sheet.`);
    return { xMm: place.x, yMm: place.y };
  }
  const rect = { x: wanted.xMm, y: wanted.yMm, width: layout.widthMm, height: layout.heightMm };
  if (!placeIsFree(sheet, used, rect)) {
    throw new Problem('does-not-fit', `A card of ${size} would leave the sheet there or lie on an earlier card.`);
  }
  return wanted;
}

/**
 * Makes a card: gives it its number, lays it, finds or checks its place on the sheet and bed, and keeps it for good. The
 * stock's row is locked meanwhile, so that two cards never get the same place.
 */
export async function createCard(
  ctx: AppContext,
  request: CardRequest,
  key?: string,
): Promise<{ id: number; code: string }> {
  const pairing = await getPairing(ctx, request.pairingId);
  refuseUnlessBurnable(pairing);
  layOrRefuse(request.kind, request.plan, pairing, 0);
  return once(ctx, key, 'create-card', async (tx) => {
    await tx.selectFrom('stock').select('id').where('id', '=', pairing.stock.id).forUpdate().executeTakeFirst();
    const number = await cards.nextCardNumber(tx);
    const layout = layOrRefuse(request.kind, request.plan, pairing, number);
    const place = choosePlace(layout, pairing, await cards.usedAreasOfStock(tx, pairing.stock.id), request.sheetPlace);
    const bed = bedPlaceOf(request.sheetOnBed, place);
    const check = checkBed(layout, pairing.machine, bed);
    if (!check.inside) {
      const sides = Object.entries(check.beyondMm).filter(([, mm]) => mm > 0);
      throw new Problem(
        'outside-bed',
        `Head or run-up would go beyond the bed: ${sides.map(([side, mm]) => `${plainNumber(mm)} mm at the ${side}`).join(', ')}.`,
      );
    }
    const { id: _id, remarks: _remarks, ...madeFor } = pairing;
    const id = await cards.insertCard(tx, {
      number,
      kind: request.kind,
      pairingId: pairing.id,
      plan: request.plan,
      layout,
      madeFor,
      sheetXMm: place.xMm,
      sheetYMm: place.yMm,
      bed,
      estimatedS: estimateCard(layout, pairing.machine).totalS,
    });
    return { id, code: layout.code };
  });
}

export async function getCard({ db }: AppContext, id: number): Promise<CardRecord> {
  const card = await cards.cardById(db, id);
  if (!card) throw notFound('card', id);
  return card;
}

/** Where a sheet is laid unless the operator says otherwise: against the front left, clear of the edge by run-up room. */
export function defaultSheetOnBed(pairing: OpenPairing): SheetOnBed {
  const { machine, stock } = pairing;
  return {
    leftMm: Math.max(0, Math.min(20, machine.bedWidthMm - stock.sheetWidthMm)),
    rearMm: Math.max(0, machine.bedDepthMm - stock.sheetDepthMm - 20),
  };
}
