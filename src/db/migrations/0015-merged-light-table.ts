import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Several photos of a card on a light table are read together: a merged reading says which it was made of. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table through_reading
    add column merged_from integer[] check (cardinality(merged_from) > 1)`.execute(db);
}
