import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** What a photo shows of a cell's single line: its place, width, ragged edges and the light across it. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table cell_reading add column line jsonb`.execute(db);
}
