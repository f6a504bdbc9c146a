import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** What a machine gives over what it gave before, as a card told that was burned again. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table diary_entry add column share double precision check (share > 0 and share <= 10),
    add check (share is null or command is null)`.execute(db);
}
