import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Machines say where zero lies and how their axes count, galvo heads their delays, lenses their field. */
export async function up(db: Kysely<DB>): Promise<void> {
  const statements = [
    sql`alter table machine
      add galvo jsonb not null default 'null',
      add zero text not null default 'bed-front-left' check (zero in ('bed-front-left', 'bed-front-right', 'bed-rear-left',
        'bed-rear-right', 'bed-middle', 'head', 'card-corner', 'card-middle')),
      add x_plus text not null default 'right' check (x_plus in ('right', 'left')),
      add y_plus text not null default 'away' check (y_plus in ('away', 'toward'))`,
    // Galvo heads of before: delays as they usually are, jumps as fast as they were said to go.
    sql`update machine set galvo = jsonb_build_object('jumpSpeedMmPerS', top_speed_x_mm_per_s, 'jumpDelayS', 0.0003,
      'markDelayS', 0.0004, 'frequencyKHz', jsonb_build_object('least', 20, 'most', 100)) where head = 'galvo'`,
    sql`alter table machine add constraint machine_galvo check ((head = 'galvo') = (galvo <> 'null'::jsonb))`,
    sql`alter table lens add field_mm double precision check (field_mm > 0 and field_mm <= 2000)`,
    sql`alter table fact_version drop constraint fact_version_origin_check`,
    sql`alter table fact_version add constraint fact_version_origin_check check (origin in ('card', 'record', 'logs', 'brought', 'copied', 'adopted'))`,
    // Sheets of other outlines, and counted blanks; a card says which piece it lies on.
    sql`alter table stock
      add outline jsonb not null default '{"shape": "rectangle", "radiusMm": 0}',
      add blanks integer check (blanks between 1 and 100000)`,
    sql`alter table card add piece integer not null default 1 check (piece >= 1)`,
    // Old cards lie on no sheet of ours.
    sql`alter table card add adopted boolean not null
      generated always as (coalesce((layout ->> 'adopted')::boolean, false)) stored`,
    sql`alter table fact_version drop constraint fact_version_check`,
    sql`alter table fact_version add constraint fact_version_card check ((origin in ('card', 'adopted')) = (card_id is not null))`,
    // Plans worth burning again, on whatever stock.
    sql`create table favourite (
      id integer generated always as identity primary key,
      name text not null check (name <> ''),
      kind text not null check (kind <> ''),
      plan jsonb not null,
      created_at timestamptz not null default now())`,
    sql`create unique index favourite_name on favourite (kind, lower(name))`,
  ];
  for (const statement of statements) await statement.execute(db);
}
