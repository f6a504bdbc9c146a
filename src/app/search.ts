import type { Seen } from '../core/card/asks';
import type { NextCell } from '../core/card/contract';
import { brokenConstraint } from '../db/client';
import { insertCell } from '../db/cards';
import type { CardRecord } from '../records/card';
import { planOf } from './cards';
import type { AppContext } from './context';
import { Problem } from './problems';
import { seenCard } from './seen';

/** What a search would burn next, or why it stops. Throws a Problem for a card that does not search. */
export async function nextOfCard(ctx: AppContext, cardId: number): Promise<NextCell> {
  return (await searched(ctx, cardId)).next;
}

/** A search's next cell, and the card that it was worked out from: what is asked at the same moment must not come between them. */
async function searched(ctx: AppContext, cardId: number): Promise<{ card: CardRecord; next: NextCell }> {
  const { card, seen } = await seenCard(ctx, cardId);
  const next = nextIn(card, seen);
  if (!next) throw new Problem('no-search', `Card ${card.layout.code} burns all its cells at once.`);
  return { card, next };
}

/** What a card that searches would burn next; null for one that does not. */
export function nextIn(card: CardRecord, seen: Seen): NextCell | null {
  const { kind, plan } = planOf(card);
  return kind.next?.(card.layout, plan, seen, card.madeFor) ?? null;
}

export type AddedCell =
  | { readonly go: true; readonly cellIndex: number; readonly why: string }
  | { readonly go: false; readonly why: string };

/** Adds the next cell of a search to its card. Asked for twice at the same moment it is added once. */
export async function addNextCell(ctx: AppContext, cardId: number): Promise<AddedCell> {
  const { card, next } = await searched(ctx, cardId);
  if (!next.go) return next;
  const cellIndex = card.layout.cells.length;
  try {
    await insertCell(ctx.db, cardId, { ...next.cell, index: cellIndex }, next.why);
  } catch (error) {
    if (brokenConstraint(error) !== 'card_cell_pkey') throw error;
  }
  return { go: true, cellIndex, why: next.why };
}
