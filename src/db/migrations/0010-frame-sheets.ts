import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/**
 * Frame sheets as they were printed: the length of their rule, and what their greys send back once two photos told it. Photos of a sheet are
 * kept until its greys are measured, with what the last of them told.
 */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`create table frame_sheet (
    id integer generated always as identity primary key,
    name text not null check (name <> ''),
    format text not null check (format in ('a5', 'letter')),
    rule_mm double precision not null check (rule_mm between 99.5 and 100.5),
    greys jsonb,
    scatter double precision check (scatter >= 0),
    measured_at timestamptz,
    created_at timestamptz not null default now(),
    check ((greys is null) = (measured_at is null) and (greys is null) = (scatter is null)))`.execute(db);
  await sql`create table frame_sheet_photo (
    id integer generated always as identity primary key,
    frame_sheet_id integer not null references frame_sheet,
    bytes bytea not null,
    exposure jsonb not null,
    sha256 text not null,
    created_at timestamptz not null default now(),
    unique (frame_sheet_id, sha256))`.execute(db);
  await sql`alter table reading add column frame_sheet_id integer references frame_sheet`.execute(db);
}
