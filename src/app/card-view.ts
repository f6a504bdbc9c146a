import { addedCells } from '../db/cards';
import { burnsOfCard } from '../db/burns';
import { factsOfCard } from '../db/facts';
import { photosOfCard } from '../db/photos';
import type { BurnRecord } from '../records/burn';
import type { CardRecord } from '../records/card';
import type { CardView } from '../views/views';
import { cautionsOfCard } from './burns';
import type { AppContext } from './context';
import { knownOf } from './known';
import { ladderOfPairing } from './ladders';
import { getPairing } from './pairings';
import { viewPhotos } from './photos';
import { roundOfCard } from './rounds';
import { nextIn } from './search';
import { seenCard } from './seen';

/** Cells that some burn went over, to its end or not. */
function burnedCells({ layout }: CardRecord, burns: readonly BurnRecord[]): number[] {
  const begun = burns.filter((burn) => (burn.place === 'own-machine' ? burn.endedAt !== null : burn.linesDone > 0));
  if (layout.adopted) return [...layout.order];
  const cells = new Set(begun.flatMap((burn) => burn.cells ?? layout.order));
  return [...cells].sort((a, b) => a - b);
}

/** Everything the page of one card shows. */
export async function cardView(ctx: AppContext, cardId: number): Promise<CardView> {
  // Photos before what they show: one that is read while this is gathered must not stand here as read beside an older reading, since
  // nobody would look again.
  const photos = await photosOfCard(ctx.db, cardId);
  const { card, reading, before, through, seen } = await seenCard(ctx, cardId);
  const pairing = await getPairing(ctx, card.pairingId);
  const [known, { ladder }, burns, facts, added, round] = await Promise.all([
    knownOf(ctx, pairing),
    ladderOfPairing(ctx, pairing),
    burnsOfCard(ctx.db, cardId),
    factsOfCard(ctx.db, cardId),
    addedCells(ctx.db, cardId),
    roundOfCard(ctx, card),
  ]);
  return {
    card,
    pairing,
    known: { ...known, pairing: card.madeFor },
    ladder,
    cautions: cautionsOfCard(card),
    burns,
    photos: await viewPhotos(ctx, photos),
    reading,
    before,
    through,
    answers: seen.answers,
    kept: facts.map(({ fact, version }) => ({
      factId: fact.id,
      name: fact.name,
      version: version.version,
      cellIndex: version.cellIndex,
    })),
    burnedCells: burnedCells(card, burns),
    search: nextIn(card, seen),
    whys: Object.fromEntries(added.map(({ cell, why }) => [cell.index, why])),
    round,
  };
}
