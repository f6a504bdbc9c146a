import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** A kept ladder says which rungs and kinds of card it was worked out with: a program that knows others works it out anew. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table pairing_state add column made_by text not null default ''`.execute(db);
}
