import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** A cell's hue beside its stock's. Of what was read before nothing is known of it. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table cell_reading add hue jsonb`.execute(db);
}
