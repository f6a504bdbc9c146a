import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** What a photo shows of a cell's two bars, one burned on each way, and of the ends of a long fill. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table cell_reading add column bars jsonb, add column ends jsonb`.execute(db);
}
