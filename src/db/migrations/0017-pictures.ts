import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** How light the blocks of a cell are that is burned as a picture. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table cell_reading add column picture jsonb`.execute(db);
}
