import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** A reading says what is wrong with its photo. What was read before says nothing of it. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table reading
    add faults jsonb not null default '[]' check (jsonb_typeof(faults) = 'array')`.execute(db);
}
