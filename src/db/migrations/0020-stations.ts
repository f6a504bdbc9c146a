import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Cards may stand in several places of the bed: each has a number of its own, and is photographed by itself. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table card add column numbers integer not null default 1 check (numbers between 1 and 100)`.execute(
    db,
  );
  await sql`alter table reading add column station integer check (station >= 0)`.execute(db);
  await sql`alter table cell_reading add column ripple jsonb`.execute(db);
}
