import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** What happened to a machine: entries stay, and are struck out where they were a mistake. Ladders of its pairings are worked out anew with each. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`create table diary_entry (
    id integer generated always as identity primary key,
    machine_id integer not null references machine,
    at timestamptz not null,
    kind text not null,
    note text not null check (length(note) <= 500),
    command double precision check (command > 0 and command <= 1),
    watts double precision check (watts >= 0),
    struck_at timestamptz,
    created_at timestamptz not null default now(),
    check ((command is null) = (watts is null)))`.execute(db);
  await sql`create index diary_entry_machine on diary_entry (machine_id)`.execute(db);
  await sql`create function touch_by_diary() returns trigger language plpgsql as $$
    begin perform touch_pairings(array(select id from pairing where machine_id = new.machine_id)); return null; end $$`.execute(
    db,
  );
  await sql`create trigger diary_changed after insert or update on diary_entry for each row execute function touch_by_diary()`.execute(
    db,
  );
}
