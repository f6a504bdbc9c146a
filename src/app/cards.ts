import { cardKind, isCardKind, storedPlan } from '../cards/registry';
import { checkBed, type BedPlace } from '../core/card/check';
import { parseCardCode } from '../core/card/code';
import { type BasePlan, type Known, type Proposal } from '../core/card/contract';
import type { Estimate } from '../core/card/estimate';
import type { Layout } from '../core/card/layout';
import { isSaid } from '../core/card/work-setup';
import { cardIsFree, freePiece, freePlace, piecesOf } from '../core/card/place';
import { numbersOf } from '../core/card/station';
import { formatLength, formatSize } from '../core/quantities/format';
import * as cards from '../db/cards';
import type { Tx } from '../db/client';
import { lockStock } from '../db/stocks';
import type { CardRecord, SheetOnBed, UsedArea } from '../records/card';
import type { OpenPairing } from '../records/pairing';
import { settingToProve } from './brought';
import type { AppContext } from './context';
import { knownOf } from './known';
import { answeredBefore, once } from './once';
import { paceNow } from './pace';
import { getPairing, refuseUnlessBurnable } from './pairings';
import { notFound, Problem } from './problems';

export interface CardRequest {
  readonly pairingId: number;
  readonly kind: string;
  readonly plan: BasePlan;
  /** Upper left corner on the sheet; null for the first free place. */
  readonly sheetPlace: { readonly xMm: number; readonly yMm: number } | null;
  /** Which sheet or blank, counted from 1; null or left out for the first with room (the first, where a place is told). */
  readonly piece?: number | null;
  readonly sheetOnBed: SheetOnBed;
}

export function bedPlaceOf(sheetOnBed: SheetOnBed, place: { xMm: number; yMm: number }): BedPlace {
  return { leftMm: sheetOnBed.leftMm + place.xMm, rearMm: sheetOnBed.rearMm + place.yMm };
}

/** A proposal, or the reason why this kind of card makes no sense here. */
export async function proposeFor(
  ctx: AppContext,
  pairing: OpenPairing,
  kind: string,
  prove: number | null = null,
): Promise<Proposal<BasePlan>> {
  if (!isCardKind(kind)) throw notFound('kind of card', kind);
  refuseUnlessBurnable(pairing);
  try {
    const known = await knownOf(ctx, pairing);
    const proposal =
      prove === null ? cardKind(kind).propose(known) : await provingCard(ctx, kind, known, prove, pairing.id);
    return asSetUpBefore(proposal, await newestCard(ctx, pairing.id));
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new Problem('nothing-to-propose', error.message.replace(/^invalid pairing: /, ''));
  }
}

/** The small card that proves a setting which nobody has burned here. */
async function provingCard(
  ctx: AppContext,
  kind: string,
  known: Known,
  factId: number,
  pairingId: number,
): Promise<Proposal<BasePlan>> {
  const { prove, name } = cardKind(kind);
  if (!prove) throw new Problem('nothing-to-propose', `${name}: this kind of card proves no setting.`);
  return prove(known, await settingToProve(ctx, factId, pairingId));
}

/** A proposal with the sheet set up as for the last card of the pairing: jigs and nozzles stay where they are. */
function asSetUpBefore(
  proposal: Proposal<BasePlan>,
  before: { plan: BasePlan; code: string } | null,
): Proposal<BasePlan> {
  if (before === null || !isSaid(before.plan.setup)) return proposal;
  const fields = Object.keys(before.plan.setup).map((field) => [`setup.${field}`, `as for card ${before.code}`]);
  return {
    plan: { ...proposal.plan, setup: before.plan.setup },
    reasons: { ...proposal.reasons, ...Object.fromEntries(fields) },
  };
}

/** The newest card of a pairing, of one kind or of any; null when there is none. */
export async function newestCard(
  { db }: AppContext,
  pairingId: number,
  kind: string | null = null,
): Promise<{ plan: BasePlan; code: string } | null> {
  const card = await cards.newestCardOfPairing(db, pairingId, kind);
  return card ? { plan: storedPlan(card.kind, card.plan), code: card.layout.code } : null;
}

export async function proposeCard(
  ctx: AppContext,
  pairingId: number,
  kind: string,
  prove: number | null = null,
): Promise<Proposal<BasePlan>> {
  return proposeFor(ctx, await getPairing(ctx, pairingId), kind, prove);
}

async function layOrRefuse(
  ctx: AppContext,
  { kind, plan }: CardRequest,
  open: OpenPairing,
  cardNumber: number,
): Promise<{ layout: Layout; estimate: Estimate }> {
  const { machine, lens, stock } = open;
  const answer = await ctx.work.do('lay', {
    kind,
    plan,
    pairing: { machine, lens, stock },
    cardNumber,
    pace: await paceNow(ctx, open),
  });
  if (answer.laid) return answer;
  const fields = answer.problems.map(({ field, message }) => ({ field: `plan.${field}`, message }));
  const detail = `The card cannot be laid as planned: ${answer.problems.map(({ message }) => message).join(' ')}`;
  throw new Problem('invalid-input', detail, 'Nothing was made; your plan is still on the page.', fields);
}

interface ChosenPlace {
  readonly piece: number;
  readonly xMm: number;
  readonly yMm: number;
}

/** Where a card lies: as wanted, on the piece wanted, or the first free place of the first piece that has one. */
function choosePlace(
  layout: Layout,
  { stock, machine }: OpenPairing,
  used: readonly UsedArea[],
  wanted: CardRequest['sheetPlace'],
  wantedPiece: number | null,
): ChosenPlace {
  const size = formatSize(layout.widthMm, layout.heightMm, machine.likedUnits);
  const most = piecesOf(stock);
  if (wantedPiece !== null && wantedPiece > most)
    throw new Problem(
      'does-not-fit',
      `There are ${most} blanks of ${stock.name}: no ${wantedPiece} is not one of them.`,
    );
  if (wanted === null) {
    const on = wantedPiece === null ? used : used.filter((area) => area.piece === wantedPiece);
    const place =
      wantedPiece === null ? freePiece(stock, used, layout) : withPiece(freePlace(stock, on, layout), wantedPiece);
    if (place) return { piece: place.piece, xMm: place.x, yMm: place.y };
    const where = stock.blanks ? `on the ${stock.blanks.count} blanks of ${stock.name}` : 'on this sheet';
    throw new Problem('does-not-fit', `No free place of ${size} is left ${where}.`);
  }
  const piece = wantedPiece ?? 1;
  const onPiece = used.filter((area) => area.piece === piece);
  if (!cardIsFree(stock, onPiece, layout, { x: wanted.xMm, y: wanted.yMm })) {
    throw new Problem('does-not-fit', `A card of ${size} would leave the stock there or lie on an earlier card.`);
  }
  return { piece, ...wanted };
}

const withPiece = (place: { x: number; y: number } | null, piece: number) => place && { piece, ...place };

/** The card whose code somebody read off a sheet, however it was typed; null where no card here has it. Says whether it is a code at all. */
export async function cardByCode(ctx: AppContext, text: string): Promise<{ id: number | null; isCode: boolean }> {
  const number = parseCardCode(text);
  const [card] = number === null ? [] : await cards.cardsByNumber(ctx.db, [number]);
  return { id: card?.id ?? null, isCode: number !== null };
}

/** Throws the Problem of a head that would leave the bed. */
export function refuseOutsideBed(reach: Estimate['reach'], pairing: OpenPairing, bed: BedPlace): void {
  const check = checkBed(reach, pairing, bed);
  if (check.inside) return;
  const sides = Object.entries(check.beyondMm).filter(([, mm]) => mm > 0);
  throw new Problem(
    'outside-bed',
    `${pairing.machine.head === 'galvo' ? 'The card would lie beyond what the lens reaches' : 'Head or run-up would go beyond the bed'}: ${sides.map(([side, mm]) => `${formatLength(mm, pairing.machine.likedUnits, 3)} at the ${side}`).join(', ')}.`,
  );
}

/** A card that is laid under its number, and not kept yet. */
interface LaidCard {
  readonly request: CardRequest;
  readonly number: number;
  readonly layout: Layout;
  readonly estimate: Estimate;
}

/** Gives a card its number and lays it in a thread. A number that comes to nothing is lost. */
export async function layUnderNumber(ctx: AppContext, request: CardRequest, pairing: OpenPairing): Promise<LaidCard> {
  const { layout: first } = await layOrRefuse(ctx, request, pairing, 0);
  const number = await cards.nextCardNumber(ctx.db, numbersOf(first));
  return { request, number, ...(await layOrRefuse(ctx, request, pairing, number)) };
}

/** Keeps a laid card where it was put, unless the head would leave the bed there. */
export async function keepCard(
  tx: Tx,
  { request, number, layout, estimate }: LaidCard,
  pairing: OpenPairing,
  place: ChosenPlace,
  roundId: number | null,
): Promise<{ id: number; code: string }> {
  const bed = bedPlaceOf(request.sheetOnBed, place);
  refuseOutsideBed(estimate.reach, pairing, bed);
  const { machine, lens, stock } = pairing;
  const id = await cards.insertCard(tx, {
    number,
    kind: request.kind,
    pairingId: pairing.id,
    plan: request.plan,
    layout,
    madeFor: { machine, lens, stock },
    piece: place.piece,
    sheetXMm: place.xMm,
    sheetYMm: place.yMm,
    bed,
    estimatedS: estimate.totalS,
    roundId,
  });
  return { id, code: layout.code };
}

/**
 * Makes a card: gives it its number, lays it in a thread, finds or checks its place on the sheet and bed, and keeps it for good. The
 * stock's row is locked while the place is chosen, so that two cards never get the same one.
 */
export async function createCard(
  ctx: AppContext,
  request: CardRequest,
  key?: string,
): Promise<{ id: number; code: string }> {
  const action = 'create-card';
  const earlier = key === undefined ? undefined : await answeredBefore<{ id: number; code: string }>(ctx, key, action);
  if (earlier) return earlier;
  const pairing = await getPairing(ctx, request.pairingId);
  refuseUnlessBurnable(pairing);
  const laid = await layUnderNumber(ctx, request, pairing);
  return once(ctx, key, action, async (tx) => {
    await lockStock(tx, pairing.stock.id);
    const used = await cards.usedAreasOfStock(tx, pairing.stock.id);
    const place = choosePlace(laid.layout, pairing, used, request.sheetPlace, request.piece ?? null);
    return keepCard(tx, laid, pairing, place, null);
  });
}

/** A card, its plan brought up to the version in use. */
export async function getCard({ db }: AppContext, id: number): Promise<CardRecord> {
  const card = await cards.cardById(db, id);
  if (!card) throw notFound('card', id);
  return { ...card, plan: storedPlan(card.kind, card.plan) };
}

export function planOf(card: CardRecord) {
  return { kind: cardKind(card.kind), plan: card.plan };
}

/** Where a sheet is laid unless the operator says otherwise: against the front left, clear of the edge by run-up room. */
export function defaultSheetOnBed(pairing: OpenPairing): SheetOnBed {
  const { machine, lens, stock } = pairing;
  if (machine.head === 'galvo') {
    const fieldMm = lens.fieldMm ?? Infinity;
    return {
      leftMm: Math.max(0, (machine.bedWidthMm - fieldMm) / 2),
      rearMm: Math.max(0, (machine.bedDepthMm - fieldMm) / 2),
    };
  }
  return {
    leftMm: Math.max(0, Math.min(20, machine.bedWidthMm - stock.sheetWidthMm)),
    rearMm: Math.max(0, machine.bedDepthMm - stock.sheetDepthMm - 20),
  };
}
