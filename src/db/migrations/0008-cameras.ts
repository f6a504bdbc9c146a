import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/**
 * Cameras by the name that they write into their photos, with what the newest two exposures told of their tones. The simulated camera is what
 * its maker says: it stores light as it is. What was read before was read as if every camera did, and says so no more.
 */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`create table camera (
    name text primary key check (name <> ''),
    bent_by double precision not null check (bent_by >= 0),
    reading_id integer references reading,
    checked_at timestamptz not null default now())`.execute(db);
  await sql`insert into camera (name, bent_by) values ('Saltgrass simulated camera', 0)`.execute(db);
  await sql`update reading set tones = tones || '{"cameraIsTrue":false}' where tones ->> 'told' <> 'by-two'`.execute(
    db,
  );
  await sql`alter table reading alter tones set default '{"told":"by-one-photo","cameraIsTrue":false}'`.execute(db);
}
