import type { Answer, Seen } from '../core/card/asks';
import { answerProblem, otherOf } from '../core/card/asks';
import type { Layout } from '../core/card/layout';
import { ownMates } from '../core/card/mates-of-card';
import { MATE } from '../core/card/usual-asks';
import { cardKind } from '../cards/registry';
import { answersOfCard, putAnswer } from '../db/answers';
import { newestReading, readingBeforeFinish } from '../db/readings';
import { newestThrough } from '../db/through';
import type { CardRecord } from '../records/card';
import type { ReadingRecord, ThroughRecord } from '../records/photo';
import { getCard } from './cards';
import type { AppContext } from './context';
import { notFound, Problem } from './problems';

export interface SeenCard {
  readonly card: CardRecord;
  readonly reading: ReadingRecord | null;
  /** What it showed before it was finished, where `reading` is of after that. */
  readonly before: ReadingRecord | null;
  /** What a light table shows of it. */
  readonly through: ThroughRecord | null;
  readonly seen: Seen;
}

/** A card with what its photos show and all that was answered. */
export async function seenCard(ctx: AppContext, cardId: number): Promise<SeenCard> {
  const card = await getCard(ctx, cardId);
  const [reading, before, through, answers] = await Promise.all([
    newestReading(ctx.db, cardId),
    // Nothing is done to a card without a finish: photos of it are of one moment, whatever they name.
    card.plan.setup.finish === 'none' ? undefined : readingBeforeFinish(ctx.db, cardId),
    newestThrough(ctx.db, cardId),
    answersOfCard(ctx.db, cardId),
  ]);
  const seen = {
    readings: reading?.cells ?? [],
    ...(before && { before: before.cells }),
    ...(through && { through: through.cells }),
    answers,
  };
  return { card, reading: reading ?? null, before: before ?? null, through: through ?? null, seen };
}

const isPaired = (kind: string, field: string): boolean =>
  cardKind(kind).asks.some((ask) => ask.field === field && ask.by === 'pairs');

/** Why an answer names nothing that this card's cells go together with; null where it does, or is about something else. */
function mateProblem(
  layout: Layout,
  field: string,
  { cellIndex, repeat }: Pick<Answer, 'cellIndex' | 'repeat'>,
): string | null {
  if (field !== MATE.field || !layout.mates) return null;
  return cellIndex !== null && ownMates(layout).includes(cellIndex) && repeat < layout.mates.othersMm.length
    ? null
    : 'Say which hole, and which part of this card went into it.';
}

/** Sets an answer about a card or a cell of it; null takes it back. Returns all answers about the piece that was burned last. */
export async function answerCard(
  ctx: AppContext,
  cardId: number,
  answer: Omit<Answer, 'value'> & { readonly value: string | number | null },
): Promise<Answer[]> {
  const card = await getCard(ctx, cardId);
  const { cellIndex, value } = answer;
  if (cellIndex !== null && !card.layout.cells[cellIndex])
    throw notFound(`cell of card ${card.layout.code}:`, cellIndex);
  if (value !== null) {
    const problem =
      answerProblem(cardKind(card.kind).asks, { ...answer, value }) ?? mateProblem(card.layout, answer.field, answer);
    const other = typeof value === 'string' && isPaired(card.kind, answer.field) ? otherOf(value) : null;
    if (problem === null && other && !card.layout.cells[other.cellIndex])
      throw notFound(`cell of card ${card.layout.code}:`, other.cellIndex);
    if (problem)
      throw new Problem('invalid-input', problem, 'Nothing was changed.', [{ field: 'value', message: problem }]);
  }
  await putAnswer(ctx.db, cardId, answer);
  return answersOfCard(ctx.db, cardId);
}
