import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Several cards that lie beside each other, are burned one after the other in one go, and read from one photo; and how many pieces a stock is for. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`create table card_round (
    id integer generated always as identity primary key,
    pairing_id integer not null references pairing (id),
    created_at timestamptz not null default now(),
    unique (id, pairing_id)
  )`.execute(db);
  await sql`alter table card add column round_id integer,
    add foreign key (round_id, pairing_id) references card_round (id, pairing_id)`.execute(db);
  await sql`create index card_of_round on card (round_id) where round_id is not null`.execute(db);
  await sql`alter table pairing add column pieces jsonb not null default 'null'`.execute(db);
}
