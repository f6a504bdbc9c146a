import type { Db } from './client';

/** What an earlier submission with this key was about and answered, if there was one. */
export async function earlierAnswer(db: Db, key: string): Promise<{ action: string; result: object } | undefined> {
  return db.selectFrom('submission').select(['action', 'result']).where('key', '=', key).executeTakeFirst();
}

/** Notes what a submission answered. A second one with the same key breaks the primary key, and its transaction with it. */
export async function noteAnswer(db: Db, key: string, action: string, result: object): Promise<void> {
  await db
    .insertInto('submission')
    .values({ key, action, result: JSON.stringify(result) })
    .execute();
}
