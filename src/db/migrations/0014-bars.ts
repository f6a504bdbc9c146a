import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** What a photo shows of a cell's two bars, one burned on each way. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table cell_reading add column bars jsonb`.execute(db);
}
