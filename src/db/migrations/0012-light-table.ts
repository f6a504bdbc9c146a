import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Photos of a card on a light table, and how much of its light they show to come through each cell. */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table photo
    add column lit_from text not null default 'front' check (lit_from in ('front', 'behind'))`.execute(db);
  await sql`create table through_reading (
    id integer generated always as identity primary key,
    photo_id integer not null references photo,
    card_id integer not null references card,
    to_photo jsonb not null,
    markers integer not null,
    frame_error_mm double precision not null,
    photo_px_per_mm double precision not null,
    also_seen jsonb not null,
    tones jsonb not null,
    bare_through double precision not null check (bare_through >= 0),
    pinholes jsonb not null,
    took_s double precision not null,
    created_at timestamptz not null default now())`.execute(db);
  await sql`create index through_reading_card on through_reading (card_id)`.execute(db);
  await sql`create table cell_through (
    reading_id integer not null references through_reading,
    cell_index integer not null check (cell_index >= 0),
    through double precision not null check (through >= 0),
    sigma double precision not null check (sigma > 0),
    own_sigma double precision not null check (own_sigma > 0 and own_sigma <= sigma),
    darkest_tenth double precision not null check (darkest_tenth >= 0),
    doubts text[] not null,
    primary key (reading_id, cell_index))`.execute(db);
  await sql`alter table finding add column through_reading_id integer references through_reading`.execute(db);
}
