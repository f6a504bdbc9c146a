import type { Answer } from '../core/card/asks';
import type { Db } from './client';

export async function answersOfCard(db: Db, cardId: number): Promise<Answer[]> {
  const rows = await db
    .selectFrom('answer')
    .select(['field', 'cell_index', 'repeat', 'word', 'number'])
    .where('card_id', '=', cardId)
    .orderBy('cell_index')
    .orderBy('field')
    .orderBy('repeat')
    .execute();
  return rows.map((row) => ({
    field: row.field,
    cellIndex: row.cell_index,
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
  const question = { card_id: cardId, field, cell_index: cellIndex, repeat };
  if (value === null) {
    await db
      .deleteFrom('answer')
      .where('card_id', '=', cardId)
      .where('field', '=', field)
      .where('cell_index', 'is not distinct from', cellIndex)
      .where('repeat', '=', repeat)
      .execute();
    return;
  }
  const said = typeof value === 'string' ? { word: value, number: null } : { word: null, number: value };
  await db
    .insertInto('answer')
    .values({ ...question, ...said })
    .onConflict((conflict) =>
      conflict.columns(['card_id', 'field', 'cell_index', 'repeat']).doUpdateSet({ ...said, updated_at: new Date() }),
    )
    .execute();
}
