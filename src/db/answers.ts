import { sql } from 'kysely';
import type { Answer } from '../core/card/asks';
import type { Db } from './client';

/**
 * Answers about a piece that was burned before them, and of which a later burn made another: the whole card lies on fresh stock then, and of a part
 * of it those cells were burned over. They stay stored, but tell nothing of what lies there now. What was answered before any burn was noted stays: on
 * a machine of the operator's own the note may come last.
 */
const OF_EARLIER_PIECE = sql<boolean>`(
  exists (select 1 from burn before where before.card_id = answer.card_id and before.started_at <= answer.updated_at)
  and exists (select 1 from burn later where later.card_id = answer.card_id and later.started_at > answer.updated_at
    and (later.lines_done > 0 or later.place = 'own-machine')
    and (coalesce(later.cells, 'null') = 'null' or answer.cell_index is null or later.cells @> to_jsonb(answer.cell_index))))`;

/** What was answered about a card as it lies there now, cell by cell. */
export async function answersOfCard(db: Db, cardId: number): Promise<Answer[]> {
  const rows = await db
    .selectFrom('answer')
    .select(['field', 'cellIndex', 'repeat', 'word', 'number'])
    .where('cardId', '=', cardId)
    .where(({ not }) => not(OF_EARLIER_PIECE))
    .orderBy('cellIndex')
    .orderBy('field')
    .orderBy('repeat')
    .execute();
  return rows.map((row) => ({
    field: row.field,
    cellIndex: row.cellIndex,
    repeat: row.repeat,
    value: row.word ?? row.number!,
  }));
}

/** Sets an answer, in place of an earlier one to the same question; null takes it back. */
export async function putAnswer(
  db: Db,
  cardId: number,
  { field, cellIndex, repeat, value }: Omit<Answer, 'value'> & { readonly value: string | number | null },
): Promise<void> {
  const question = { cardId: cardId, field, cellIndex: cellIndex, repeat };
  if (value === null) {
    await db
      .deleteFrom('answer')
      .where('cardId', '=', cardId)
      .where('field', '=', field)
      .where('cellIndex', 'is not distinct from', cellIndex)
      .where('repeat', '=', repeat)
      .execute();
    return;
  }
  const said = typeof value === 'string' ? { word: value, number: null } : { word: null, number: value };
  await db
    .insertInto('answer')
    .values({ ...question, ...said })
    .onConflict((conflict) =>
      conflict.columns(['cardId', 'field', 'cellIndex', 'repeat']).doUpdateSet({ ...said, updatedAt: new Date() }),
    )
    .execute();
}
