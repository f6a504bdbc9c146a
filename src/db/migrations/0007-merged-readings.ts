import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/**
 * Several photos of a card are read together: a merged reading says which it was made of, a cell how much of its uncertainty every photo shares,
 * and a photo whether the operator left it aside. Of what was read before, all uncertainty is taken as shared: it is never made less by merging.
 */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table photo add left_out boolean not null default false`.execute(db);
  await sql`alter table reading
    add merged_from integer[] check (cardinality(merged_from) > 0)`.execute(db);
  await sql`alter table cell_reading add shared_sigma double precision`.execute(db);
  await sql`update cell_reading set shared_sigma = lightness_sigma`.execute(db);
  await sql`alter table cell_reading
    alter shared_sigma set not null,
    add check (shared_sigma >= 0 and shared_sigma <= lightness_sigma + 1e-9)`.execute(db);
}
