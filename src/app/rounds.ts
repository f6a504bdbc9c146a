import { kindFor } from '../cards/registry';
import { openRungs } from '../core/book/round';
import type { RungId } from '../core/book/rungs';
import type { BasePlan } from '../core/card/contract';
import { hasMarkers } from '../core/card/layout';
import { firstPieceFor } from '../core/card/pack';
import { sideBySide } from '../core/card/side-by-side';
import { paceOf } from '../core/book/motion-facts';
import type { ZeroPlace } from '../core/machine/machine';
import * as cards from '../db/cards';
import { lockStock } from '../db/stocks';
import type { BurnRecord } from '../records/burn';
import type { CardRecord, RoundCard } from '../records/card';
import type { OpenPairing } from '../records/pairing';
import type { RoundOfCard, RoundOffer, RoundView } from '../views/views';
import type { ExportFormat } from '../workers/protocol';
import { cautionsOfCard, refuseUnlessTicked, startBurn } from './burns';
import { defaultSheetOnBed, getCard, keepCard, layUnderNumber, proposeFor } from './cards';
import type { AppContext } from './context';
import { exportCard, type ExportedFile } from './exports';
import { knownOf } from './known';
import { ladderOfPairing, newestByRung, NEWEST_CARDS } from './ladders';
import { answeredBefore, once } from './once';
import { getPairing, refuseUnlessBurnable } from './pairings';
import { isProblem, notFound, Problem } from './problems';

/** Fewer are a card by itself. */
const LEAST_CARDS = 2;

/** The card that a rung would be answered by in a round, or why it cannot be in one. */
async function offerOf(
  ctx: AppContext,
  pairing: OpenPairing,
  rung: RungId,
  isStale: boolean,
): Promise<{ offer: Omit<RoundOffer, 'rung' | 'question'>; plan: BasePlan } | { why: string }> {
  const known = await knownOf(ctx, pairing);
  const { kind, name } = kindFor(rung, isStale, known);
  try {
    const { plan } = await proposeFor(ctx, pairing, kind);
    const { facts, pairing: on } = known;
    const answer = await ctx.work.do('lay', { kind, plan, pairing: on, cardNumber: 0, pace: paceOf(facts) });
    if (!answer.laid) return { why: answer.problems.map(({ message }) => message).join(' ') };
    const { layout, estimate } = answer;
    if (layout.stations) return { why: 'it stands in several places of the bed' };
    if (layout.tilt) return { why: 'its board is tilted' };
    if (!hasMarkers(layout)) return { why: 'no photo answers it' };
    const { widthMm, heightMm } = layout;
    return { offer: { kind, name, seconds: estimate.totalS, widthMm, heightMm }, plan };
  } catch (error) {
    if (isProblem(error)) return { why: error.detail };
    throw error;
  }
}

async function openRungsOf(ctx: AppContext, pairing: OpenPairing) {
  const [{ ladder }, summaries] = await Promise.all([
    ladderOfPairing(ctx, pairing),
    cards.cardSummaries(ctx.db, pairing.id, { limit: NEWEST_CARDS, offset: 0 }),
  ]);
  return { ladder, open: openRungs(ladder, newestByRung(summaries)) };
}

/** Which cards a pairing waits for, and which of them can be burned in one go. */
export async function roundView(ctx: AppContext, pairingId: number): Promise<RoundView> {
  const pairing = await getPairing(ctx, pairingId);
  refuseUnlessBurnable(pairing);
  const { ladder, open } = await openRungsOf(ctx, pairing);
  const offers: RoundOffer[] = [];
  const others: { name: string; why: string }[] = [];
  for (const { rung, name, question, isStale, why } of open) {
    const answer = why === null ? await offerOf(ctx, pairing, rung, isStale) : { why };
    if ('why' in answer) others.push({ name, why: answer.why });
    else offers.push({ ...answer.offer, rung, question });
  }
  return { pairing, ladder, offers, others, usedAreas: await cards.usedAreasOfStock(ctx.db, pairing.stock.id) };
}

/**
 * Makes the proposed cards of some rungs to be burned in one go: each gets its number, and they are laid beside each other on one piece where there
 * is room for that. All of them are made, or none. Throws a Problem for rungs that wait for no card, or whose cards cannot share a burn.
 */
export async function createRound(
  ctx: AppContext,
  pairingId: number,
  rungs: readonly RungId[],
  key?: string,
): Promise<{ id: number; cards: { id: number; code: string }[] }> {
  const action = 'create-round';
  type Made = { id: number; cards: { id: number; code: string }[] };
  const earlier = key === undefined ? undefined : await answeredBefore<Made>(ctx, key, action);
  if (earlier) return earlier;
  const pairing = await getPairing(ctx, pairingId);
  refuseUnlessBurnable(pairing);
  if (rungs.length < LEAST_CARDS)
    throw new Problem('invalid-input', 'A round is two cards or more.', 'Nothing was made.', [
      { field: 'rungs', message: 'Choose two or more.' },
    ]);
  const { open } = await openRungsOf(ctx, pairing);
  const sheetOnBed = defaultSheetOnBed(pairing);
  const laid: Awaited<ReturnType<typeof layUnderNumber>>[] = [];
  for (const rung of rungs) {
    const waits = open.find((one) => one.rung === rung);
    const answer: Awaited<ReturnType<typeof offerOf>> = waits
      ? waits.why === null
        ? await offerOf(ctx, pairing, rung, waits.isStale)
        : { why: waits.why }
      : { why: 'it waits for no card' };
    if ('why' in answer)
      throw new Problem('nothing-to-propose', `${waits?.name ?? rung} cannot share a burn: ${answer.why}.`);
    const { plan, offer } = answer;
    laid.push(await layUnderNumber(ctx, { pairingId, kind: offer.kind, plan, sheetPlace: null, sheetOnBed }, pairing));
  }
  return once(ctx, key, action, async (tx) => {
    await lockStock(tx, pairing.stock.id);
    const used = await cards.usedAreasOfStock(tx, pairing.stock.id);
    const placed = firstPieceFor(
      pairing.stock,
      used,
      laid.map(({ layout }) => layout),
    );
    if (!placed)
      throw new Problem('does-not-fit', `No piece of ${pairing.stock.name} has room for these ${laid.length} cards.`);
    const id = await cards.insertRound(tx, pairingId);
    const made = [];
    for (const [index, one] of laid.entries()) {
      const { x, y } = placed.places[index]!;
      made.push(await keepCard(tx, one, pairing, { piece: placed.piece, xMm: x, yMm: y }, id));
    }
    return { id, cards: made };
  });
}

async function membersOf(ctx: AppContext, roundId: number): Promise<RoundCard[]> {
  const members = await cards.cardsOfRound(ctx.db, roundId);
  if (members.length === 0) throw notFound('round', roundId);
  return members;
}

/** The cards that a card was made with, itself among them, and the check before all of them that are left are burned; null for a card by itself. */
export async function roundOfCard(ctx: AppContext, card: CardRecord): Promise<RoundOfCard | null> {
  if (card.roundId === null) return null;
  const members = await membersOf(ctx, card.roundId);
  const left = await Promise.all(members.filter(({ stage }) => stage === 'planned').map(({ id }) => getCard(ctx, id)));
  const cautions = new Map(left.flatMap(cautionsOfCard).map((caution) => [caution.code, caution]));
  return { id: card.roundId, cards: members, cautions: [...cautions.values()] };
}

export interface RoundBurnRequest {
  readonly place: 'bench' | 'own-machine';
  /** Codes of the cautions that the operator ticked: they hold for all that is burned in one go. */
  readonly ticked: readonly string[];
  /** What all of it took on a machine of the operator's own; null where nobody looked. */
  readonly tookS: number | null;
}

/**
 * Burns what is left of a round: on the bench one card after the other, each when the one before it is done, until one is stopped; or notes that all
 * were burned on a machine of the operator's own, the time shared out as it was estimated. Returns the burns that were begun or noted at once.
 */
export async function burnRound(
  ctx: AppContext,
  roundId: number,
  { place, ticked, tookS }: RoundBurnRequest,
): Promise<BurnRecord[]> {
  const left = (await membersOf(ctx, roundId)).filter(({ stage }) => stage === 'planned');
  if (left.length === 0)
    throw new Problem('nothing-to-propose', `Every card of round ${roundId} was burned. Burn one again on its page.`);
  // All of it or nothing: a check that only a later card asks for must not stop the burn half way.
  for (const { id } of left) refuseUnlessTicked(await getCard(ctx, id), ticked);
  if (place === 'bench') return [await burnNext(ctx, left, ticked)];
  const estimates = left.map(({ estimatedS }) => estimatedS);
  const totalS = estimates.reduce((sum, seconds) => sum + seconds, 0);
  const noted = [];
  for (const [index, { id }] of left.entries()) {
    const share = tookS === null ? null : (tookS * estimates[index]!) / totalS;
    noted.push(await startBurn(ctx, { cardId: id, place, ticked, cells: null, tookS: share }));
  }
  return noted;
}

/** Burns the first of some cards on the bench, and the rest after it. */
function burnNext(
  ctx: AppContext,
  [first, ...rest]: readonly RoundCard[],
  ticked: readonly string[],
): Promise<BurnRecord> {
  return startBurn(ctx, { cardId: first!.id, place: 'bench', ticked, cells: null }, () => {
    if (rest.length === 0) return;
    burnNext(ctx, rest, ticked).catch((error: unknown) =>
      ctx.log.error({ cardId: rest[0]!.id, error: String(error) }, 'the next card of a round was not begun'),
    );
  });
}

/** All cards of a round as one file, by the machine's own zero or another one. */
export async function exportRound(
  ctx: AppContext,
  roundId: number,
  format: ExportFormat,
  zero: ZeroPlace | null,
): Promise<ExportedFile> {
  const members = await Promise.all((await membersOf(ctx, roundId)).map(({ id }) => getCard(ctx, id)));
  const { layout, at } = sideBySide(
    members.map((card) => ({ layout: card.layout, at: { x: card.bed.leftMm, y: card.bed.rearMm } })),
  );
  const whole = { ...members[0]!, layout, bed: { leftMm: at.x, rearMm: at.y } };
  return exportCard(ctx, whole, format, zero, `round-${roundId}`);
}
