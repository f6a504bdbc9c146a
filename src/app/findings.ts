import type { BaseFinding } from '../core/card/contract';
import { FACTS } from '../core/book/facts';
import { findingById, insertFactVersion, insertFinding } from '../db/facts';
import type { CardRecord } from '../records/card';
import { planOf } from './cards';
import type { AppContext } from './context';
import { knownOf } from './known';
import { once } from './once';
import { getPairing } from './pairings';
import { Problem } from './problems';
import { seenCard } from './seen';

/** What a card says for a wish; without one, for the kind's usual wish. */
export async function findInCard(ctx: AppContext, cardId: number, wish: unknown): Promise<BaseFinding> {
  const { card, seen } = await seenCard(ctx, cardId);
  const { kind } = planOf(card);
  return kind.find(card.layout, seen, await knownForCard(ctx, card), wish ?? kind.wish(card.madeFor));
}

/** A finding beside what the same card says for the same wish today: by the method as it is now, and all that was seen of the card since. */
export interface FoundAgain {
  readonly cardId: number;
  readonly then: string;
  readonly now: string;
}

/** Works a kept finding out again; the one that was kept stays as it is. Null where nothing is on record of it. */
export async function findAgain(ctx: AppContext, findingId: number): Promise<FoundAgain | null> {
  const kept = await findingById(ctx.db, findingId);
  if (!kept) return null;
  const { says, missing } = await findInCard(ctx, kept.cardId, kept.wish);
  return { cardId: kept.cardId, then: kept.says, now: missing.length > 0 ? missing.join(' ') : says };
}

/** What is known now, on the records as they were when the card was made. */
async function knownForCard(ctx: AppContext, card: CardRecord) {
  const known = await knownOf(ctx, await getPairing(ctx, card.pairingId));
  return { ...known, pairing: card.madeFor };
}

export interface KeepRequest {
  readonly cardId: number;
  readonly wish: unknown;
  readonly choice: unknown;
  readonly note: string;
}

/**
 * Keeps what a card found as the next version of each fact it settles, with the finding as it was computed and where it came from.
 */
export async function keepFinding(
  ctx: AppContext,
  { cardId, wish, choice, note }: KeepRequest,
  key?: string,
): Promise<{ facts: { factId: number; name: string; version: number }[] }> {
  const { card, reading, through, seen } = await seenCard(ctx, cardId);
  const { kind } = planOf(card);
  const wanted = wish ?? kind.wish(card.madeFor);
  const finding = kind.find(card.layout, seen, await knownForCard(ctx, card), wanted);
  const drafts = kind.settle(finding, card.layout, seen, choice);
  if (drafts.length === 0) {
    const why = finding.missing.join(' ') || `Card ${card.layout.code} has nothing to keep for this choice.`;
    throw new Problem('nothing-to-keep', why);
  }
  const pairing = await getPairing(ctx, card.pairingId);
  return once(ctx, key, 'keep-finding', async (tx) => {
    const findingId = await insertFinding(tx, {
      cardId,
      kind: kind.kind,
      methodVersion: kind.version,
      wish: wanted as object,
      value: finding,
      readingId: reading?.id ?? null,
      throughReadingId: through?.id ?? null,
    });
    const facts = [];
    for (const draft of drafts) {
      const own = {
        pairing: { pairingId: pairing.id },
        machine: { machineId: pairing.machine.id },
        lens: { lensId: pairing.lens.id },
        stock: { stockId: pairing.stock.id },
      }[FACTS[draft.name].owner];
      const read = draft.cellIndex === null || seen.readings.some((cell) => cell.cellIndex === draft.cellIndex);
      const { name, at, value, sigma, cellIndex } = draft;
      const kept = await insertFactVersion(tx, own, {
        name,
        at,
        value,
        sigma,
        origin: draft.predicted ? 'predicted' : card.layout.adopted ? 'adopted' : 'card',
        cardId,
        cellIndex,
        photoId: read ? (reading?.photoId ?? null) : null,
        readingId: read ? (reading?.id ?? null) : null,
        findingId,
        madeFor: card.madeFor,
        note,
      });
      facts.push({ ...kept, name });
    }
    return { facts };
  });
}
