import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** What is said of a part when the sheet is tapped has one set of words for all cards: a kerf square that dropped is one that dropped clean. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`update answer set word = 'clean' where field = 'drop' and word = 'dropped'`.execute(db);
}
