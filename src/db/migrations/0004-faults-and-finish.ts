import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** A burn says what broke it off; a photo says whether it was taken before or after the finish. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table burn add fault text check (fault <> '')`.execute(db);
  await sql`alter table photo add finish text check (finish in ('before', 'after'))`.execute(db);
}
