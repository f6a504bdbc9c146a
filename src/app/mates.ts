import { ownMates, pairsOfCard } from '../core/card/mates-of-card';
import { MATE } from '../core/card/usual-asks';
import type { Layout } from '../core/card/layout';
import { answersOfCard, putAnswer } from '../db/answers';
import { cardsOfKind } from '../db/cards';
import { programsOfCard } from '../db/burns';
import type { CardRecord } from '../records/card';
import { benchBurnOf } from './bench-pieces';
import type { AppContext } from './context';
import { cutBox } from './cut-box';
import { Problem } from './problems';

/** So many cards back the other half of an inlay is looked for. */
const LOOKED_BACK = 50;

const ownLadder = (layout: Layout): number[] =>
  ownMates(layout).map((index) => Number(layout.cells[index]!.levels.tighter));

const sameSteps = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((mm, k) => Math.abs(mm - b[k]!) < 1e-6);

/** Whether a card is the other half of an inlay: the same shape by the same steps, cut of another sheet. */
export function isOtherHalf(
  { layout: a }: Pick<CardRecord, 'layout'>,
  { layout: b }: Pick<CardRecord, 'layout'>,
): boolean {
  if (!a.mates || !b.mates || a.mates.otherStock === null || b.mates.otherStock === null) return false;
  return (
    a.mates.shape === b.mates.shape &&
    sameSteps(a.mates.othersMm, ownLadder(b)) &&
    sameSteps(b.mates.othersMm, ownLadder(a))
  );
}

/** The newest card that is the other half of an inlay and was burned on the bench. */
async function otherHalf(ctx: AppContext, card: CardRecord): Promise<CardRecord> {
  for (const other of await cardsOfKind(ctx.db, card.kind, LOOKED_BACK)) {
    if (isOtherHalf(card, other) && (await programsOfCard(ctx.db, other.id)).length > 0) return other;
  }
  throw new Problem(
    'cannot-measure',
    'The bench has not cut the other half of this inlay: plan a card for it with the same shape, holes, parts and steps, on its own stock, and burn that first.',
    'Nothing was changed.',
  );
}

/** Puts every part into every hole that nobody has spoken of yet, and returns how many pairs those were. All of it at once, or nothing. */
export async function tryMates(ctx: AppContext, card: CardRecord): Promise<number> {
  const { layout } = card;
  const other = layout.mates!.otherStock === null ? card : await otherHalf(ctx, card);
  const own = ownMates(layout);
  const others =
    other === card ? layout.cells.flatMap(({ index }) => (own.includes(index) ? [] : [index])) : ownMates(other.layout);
  const open = pairsOfCard(layout, { answers: await answersOfCard(ctx.db, card.id) }).filter(({ fit }) => fit === null);
  const half = async (of: CardRecord, indexes: readonly number[]) => ({
    burn: await benchBurnOf(ctx, of),
    boxes: indexes.map((index) => cutBox(of.layout.cells[index]!)),
  });
  const [ours, theirs] = [await half(card, own), await half(other, others)];
  const holesAreOurs = layout.mates!.own === 'hole';
  const told = await ctx.work.do('try-mates', {
    holes: holesAreOurs ? ours : theirs,
    parts: holesAreOurs ? theirs : ours,
    pairs: open.map(({ cellIndex, other: step }) => {
      const place = own.indexOf(cellIndex);
      return holesAreOurs ? { hole: place, part: step } : { hole: step, part: place };
    }),
  });
  const shut = told.find((one) => 'cannot' in one);
  if (shut && 'cannot' in shut && told.every((one) => 'cannot' in one))
    throw new Problem('cannot-measure', shut.cannot);
  let tried = 0;
  await ctx.db.transaction().execute(async (tx) => {
    for (const [place, one] of told.entries()) {
      if ('cannot' in one) continue;
      const { cellIndex, other: repeat } = open[place]!;
      await putAnswer(tx, card.id, { field: MATE.field, cellIndex, repeat, value: one.goes });
      tried++;
    }
  });
  return tried;
}
