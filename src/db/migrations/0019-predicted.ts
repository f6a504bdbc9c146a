import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Settings may be foretold between the cells of a card. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table fact_version drop constraint fact_version_origin_check`.execute(db);
  await sql`alter table fact_version add constraint fact_version_origin_check
    check (origin in ('card', 'record', 'logs', 'brought', 'copied', 'predicted', 'adopted'))`.execute(db);
  await sql`alter table fact_version drop constraint fact_version_card`.execute(db);
  await sql`alter table fact_version add constraint fact_version_card
    check ((origin in ('card', 'adopted', 'predicted')) = (card_id is not null))`.execute(db);
}
