import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Photos of pieces beside a frame sheet, whose tone is to be matched. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`create table match_photo (
    id integer generated always as identity primary key,
    file_name text not null check (file_name <> ''),
    media_type text not null,
    bytes bytea not null,
    preview bytea not null,
    width_px integer not null check (width_px > 0),
    height_px integer not null check (height_px > 0),
    px_per_mm double precision not null check (px_per_mm > 0),
    sha256 text not null unique,
    created_at timestamptz not null default now())`.execute(db);
}
