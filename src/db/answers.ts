import type { Answer } from '../core/card/asks';
import type { Db } from './client';

export async function answersOfCard(db: Db, cardId: number): Promise<Answer[]> {
  const rows = await db
    .selectFrom('answer')
    .select(['field', 'cellIndex', 'repeat', 'word', 'number'])
    .where('cardId', '=', cardId)
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
