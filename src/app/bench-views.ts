import { isCardKind } from '../cards/registry';
import { factWords, type FactNow } from '../core/book/facts';
import { openRungs } from '../core/book/round';
import { cardSummaries, usedAreasOfStock } from '../db/cards';
import { spentOn } from '../db/burns';
import { factsOfCard } from '../db/facts';
import { listMachines } from '../db/machines';
import { benchPage } from '../db/pairing-states';
import { piecesOfPairing } from '../db/pairings';
import { newestReading } from '../db/readings';
import { listStocks } from '../db/stocks';
import type { OpenPairing } from '../records/pairing';
import type { BenchListView, BenchView, PlanView } from '../views/views';
import { defaultSheetOnBed, getCard, newestCard, proposeFor } from './cards';
import type { AppContext } from './context';
import { getFavourites } from './favourites';
import { knownOf } from './known';
import { ladderOfPairing, newestByRung } from './ladders';
import { getPairing } from './pairings';
import { worthOfTest } from './pieces';
import { isProblem } from './problems';

export const BENCHES_A_PAGE = 24;
const CARDS_SHOWN = 40;

/** What was kept from a card, the newest version of each fact: "strong, 60.6 %, 1200 mm/min". */
async function keptWordsOf(ctx: AppContext, { machine }: OpenPairing, cardId: number): Promise<string[]> {
  const versions = await factsOfCard(ctx.db, cardId);
  const newest = versions.filter(
    ({ fact }, index) => versions.findIndex((other) => other.fact.id === fact.id) === index,
  );
  return newest.map(({ fact, version }) => {
    const value = { name: fact.name, value: version.value } as Pick<FactNow, 'name' | 'value'>;
    return [fact.at['shade'], factWords(value, machine.likedUnits)].filter(Boolean).join(', ');
  });
}

/** The newest card that a photo shows, with its straightened photos; the newest photo alone where nothing was read from the front. */
async function newestShown(ctx: AppContext, cardId: number, photoId: number): Promise<BenchView['newest']> {
  const [card, reading] = await Promise.all([getCard(ctx, cardId), newestReading(ctx.db, cardId)]);
  return { card, shown: card.layout.stations ? (reading?.shown ?? []) : [{ photoId, station: null }] };
}

export async function benchView(ctx: AppContext, pairingId: number): Promise<BenchView> {
  const pairing = await getPairing(ctx, pairingId);
  const [cards, usedAreas, { ladder, next }, spent, pieces, { facts }] = await Promise.all([
    cardSummaries(ctx.db, pairingId, { limit: CARDS_SHOWN, offset: 0 }),
    usedAreasOfStock(ctx.db, pairing.stock.id),
    ladderOfPairing(ctx, pairing),
    spentOn(ctx.db, pairingId),
    piecesOfPairing(ctx.db, pairingId),
    knownOf(ctx, pairing),
  ]);
  const told = await Promise.all(
    cards.filter((card) => card.kept > 0).map(async ({ id }) => [id, await keptWordsOf(ctx, pairing, id)] as const),
  );
  const read = cards.find((card) => card.photoId !== null);
  return {
    pairing,
    ladder,
    next,
    cards,
    keptWords: Object.fromEntries(told),
    usedAreas,
    spent,
    pieces,
    worth: worthOfTest(next.burn, pieces, pairing.machine, facts),
    together: openRungs(ladder, newestByRung(cards)).filter(({ why }) => why === null).length,
    newest: read ? await newestShown(ctx, read.id, read.photoId!) : null,
  };
}

/** Throws the Problem that keeps a card of this kind from being planned. */
export async function planView(
  ctx: AppContext,
  pairingId: number,
  kind: string,
  prove: number | null = null,
): Promise<PlanView> {
  const pairing = await getPairing(ctx, pairingId);
  const proposal = await proposeFor(ctx, pairing, kind, prove);
  const [known, usedAreas, { ladder }, before, favourites] = await Promise.all([
    knownOf(ctx, pairing),
    usedAreasOfStock(ctx.db, pairing.stock.id),
    ladderOfPairing(ctx, pairing),
    newestCard(ctx, pairingId, kind),
    getFavourites(ctx, kind),
  ]);
  const sheetOnBed = defaultSheetOnBed(pairing);
  return { kind, pairing, known, ladder, proposal, usedAreas, sheetOnBed, before, favourites };
}

/** What a bench can be opened for: machines and stock in use. */
export async function pairingChoices({ db }: AppContext): Promise<Pick<BenchListView, 'machines' | 'stocks'>> {
  const [machines, stocks] = await Promise.all([listMachines(db), listStocks(db)]);
  return {
    machines: machines.filter((machine) => !machine.retired),
    stocks: stocks.filter((stock) => !stock.retired),
  };
}

/** The reason why a card of a kind cannot be planned on a bench; null when it can, or when there is no such kind. */
export async function whyNotPlanned(ctx: AppContext, pairingId: number, kind: string): Promise<string | null> {
  if (!isCardKind(kind)) return null;
  try {
    await proposeFor(ctx, await getPairing(ctx, pairingId), kind);
    return null;
  } catch (error) {
    if (isProblem(error)) return error.detail;
    throw error;
  }
}

/** A page of benches, what waits for a hand first. Ladders that have changed are worked out for the page that shows them. */
export async function benchListView(ctx: AppContext, page = 1): Promise<BenchListView> {
  const limit = BENCHES_A_PAGE;
  const offset = (page - 1) * limit;
  const [{ rows, total }, choices] = await Promise.all([benchPage(ctx.db, { limit, offset }), pairingChoices(ctx)]);
  const benches = await Promise.all(
    rows.map(async (row) => {
      if (row.fresh) return { ...row, ladder: row.ladder!, next: row.next! };
      const { ladder, next } = await ladderOfPairing(ctx, await getPairing(ctx, row.pairingId));
      return { ...row, ladder, next };
    }),
  );
  return {
    benches: { rows: benches, total, limit, offset },
    ...choices,
  };
}
