import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** How far the drawing of a cell stands out that is burned or bare, place by place. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table cell_reading add column drawing jsonb`.execute(db);
}
