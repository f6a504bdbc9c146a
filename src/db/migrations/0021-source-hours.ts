import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Sources age by what they burn: when a burn ends, ladders of all pairings of its machine are worked out anew. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`create function touch_by_ended_burn() returns trigger language plpgsql as $$
    begin perform touch_pairings(array(select id from pairing where machine_id = new.machine_id)); return null; end $$`.execute(
    db,
  );
  await sql`create trigger burn_ended_new after insert on burn for each row when (new.ended_at is not null) execute function touch_by_ended_burn()`.execute(
    db,
  );
  await sql`create trigger burn_ended after update on burn for each row
    when (old.ended_at is distinct from new.ended_at or old.actual_s is distinct from new.actual_s) execute function touch_by_ended_burn()`.execute(
    db,
  );
}
