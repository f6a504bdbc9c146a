import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** A photo says how it was exposed and by what camera; a reading says what it knows of the camera's tones, and by which other photo. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table photo add exposure jsonb`.execute(db);
  await sql`alter table reading
    add tones jsonb not null default '{"told":"by-one-photo"}',
    add second_photo_id integer references photo (id),
    add check (second_photo_id <> photo_id)`.execute(db);
}
