import type { Db } from './client';

/** What an earlier submission with this key answered, if there was one. */
export async function earlierAnswer(db: Db, key: string, action: string): Promise<object | undefined> {
  const row = await db.selectFrom('submission').select(['action', 'result']).where('key', '=', key).executeTakeFirst();
  return row?.action === action ? row.result : undefined;
}

/** Notes what a submission answered. A second one with the same key breaks the primary key, and its transaction with it. */
export async function noteAnswer(db: Db, key: string, action: string, result: object): Promise<void> {
  await db
    .insertInto('submission')
    .values({ key, action, result: JSON.stringify(result) })
    .execute();
}
