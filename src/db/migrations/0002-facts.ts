import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/** Columns of a machine's or a lens's id that a fact's owner asks for. */
const OWNED = `(owner = 'pairing') = (pairing_id is not null) and (owner = 'machine') = (machine_id is not null)
  and (owner = 'lens') = (lens_id is not null) and (owner = 'stock') = (stock_id is not null)`;

/**
 * Facts, findings and answers become tables; verdicts and settings of the first version move into them with their ids, and what was
 * measured of machines, lenses and stock becomes facts too. Cards can grow cells, burns know their parts, cells and hands. Each pairing
 * keeps its ladder and next step until something it stands on changes, which triggers notice.
 */
export async function up(db: Kysely<DB>): Promise<void> {
  const statements = [
    sql`alter table machine
      add ramp_power text not null default 'constant' check (ramp_power in ('follows-speed', 'constant')),
      add adds_run_up boolean not null default false`,
    // What lists show of a card, beside its layout, so that none of those large values is read for them.
    sql`alter table card
      add code text not null generated always as (layout ->> 'code') stored,
      add width_mm double precision not null generated always as ((layout ->> 'widthMm')::double precision) stored,
      add height_mm double precision not null generated always as ((layout ->> 'heightMm')::double precision) stored`,
    sql`create table card_cell (
      card_id integer not null references card,
      cell_index integer not null check (cell_index >= 0),
      cell jsonb not null,
      why text not null,
      created_at timestamptz not null default now(),
      primary key (card_id, cell_index))`,
    sql`alter table burn
      add cells jsonb,
      add parts jsonb not null default '[]',
      add hands jsonb not null default '[]'`,
    sql`alter table photo add revision integer not null default 0`,
    sql`create table answer (
      card_id integer not null references card,
      field text not null check (field <> ''),
      cell_index integer check (cell_index >= 0),
      repeat integer not null check (repeat >= 0),
      word text,
      number double precision,
      updated_at timestamptz not null default now(),
      check ((word is null) <> (number is null)),
      unique nulls not distinct (card_id, field, cell_index, repeat))`,
    sql`create table finding (
      id integer generated always as identity primary key,
      card_id integer not null references card,
      kind text not null,
      method_version integer not null check (method_version >= 1),
      wish jsonb not null,
      value jsonb not null,
      reading_id integer references reading,
      created_at timestamptz not null default now())`,
    sql`create index finding_card on finding (card_id)`,
    sql`create table fact (
      id integer generated always as identity primary key,
      name text not null check (name <> ''),
      owner text not null check (owner in ('pairing', 'machine', 'lens', 'stock')),
      pairing_id integer references pairing,
      machine_id integer references machine,
      lens_id integer references lens,
      stock_id integer references stock,
      at jsonb not null,
      at_key text not null,
      created_at timestamptz not null default now(),
      check (${sql.raw(OWNED)}),
      unique nulls not distinct (name, pairing_id, machine_id, lens_id, stock_id, at_key))`,
    sql`create table fact_version (
      id integer generated always as identity primary key,
      fact_id integer not null references fact,
      version integer not null check (version >= 1),
      value jsonb not null,
      sigma double precision check (sigma >= 0),
      origin text not null check (origin in ('card', 'record')),
      card_id integer references card,
      cell_index integer,
      photo_id integer references photo,
      reading_id integer references reading,
      finding_id integer references finding,
      made_for jsonb not null,
      note text not null,
      created_at timestamptz not null default now(),
      check ((origin = 'card') = (card_id is not null)),
      unique (fact_id, version))`,
    sql`create index photo_card on photo (card_id)`,
    sql`create index fact_version_card on fact_version (card_id)`,

    sql`insert into answer (card_id, field, cell_index, repeat, word, updated_at)
      select card_id, 'grade', cell_index, 0, grade::text, updated_at from verdict where grade is not null
      union all select card_id, 'outcome', cell_index, 0, outcome, updated_at from verdict where outcome is not null
      union all select card_id, 'note', cell_index, 0, note, updated_at from verdict where note <> ''`,
    sql`insert into fact (id, name, owner, pairing_id, at, at_key, created_at) overriding system value
      select id, process, 'pairing', pairing_id, '{}', '{}', created_at from setting`,
    sql`select setval(pg_get_serial_sequence('fact', 'id'), coalesce((select max(id) from fact), 0) + 1, false)`,
    sql`insert into fact_version
        (fact_id, version, value, sigma, origin, card_id, cell_index, photo_id, reading_id, made_for, note, created_at)
      select v.setting_id, v.version,
        jsonb_build_object(
          'settings', jsonb_build_object(
            'powerFraction', v.power_fraction, 'speedMmPerS', v.speed_mm_per_s, 'intervalMm', v.interval_mm, 'passes', v.passes,
            'focusOffsetMm', v.focus_offset_mm, 'air', v.air, 'direction', v.direction, 'bothWays', v.both_ways,
            'runUpMm', null, 'scanOffsetMm', 0),
          'lightness', v.lightness, 'lightnessSigma', v.lightness_sigma, 'confidence', v.confidence),
        v.lightness_sigma, 'card', v.card_id, v.cell_index, v.photo_id, v.reading_id, c.made_for, v.note, v.created_at
      from setting_version v join card c on c.id = v.card_id order by v.id`,
    sql`insert into fact (name, owner, stock_id, at, at_key)
      select distinct 'thickness', 'stock', stock_id, '{}'::jsonb, '{}' from thickness_reading`,
    sql`insert into fact_version (fact_id, version, value, sigma, origin, made_for, note)
      select f.id, 1, jsonb_build_object('meanMm', avg(r.thickness_mm), 'readings', count(*)), stddev_samp(r.thickness_mm), 'record', '{}', ''
      from fact f join thickness_reading r on r.stock_id = f.stock_id where f.name = 'thickness' group by f.id`,
    sql`insert into fact (name, owner, lens_id, at, at_key)
      select 'spot', 'lens', id, '{}'::jsonb, '{}' from lens where spot_origin = 'measured'`,
    sql`insert into fact_version (fact_id, version, value, origin, made_for, note)
      select f.id, 1, jsonb_build_object('xMm', l.spot_x_mm, 'yMm', l.spot_y_mm), 'record', '{}', ''
      from fact f join lens l on l.id = f.lens_id where f.name = 'spot'`,
    sql`insert into fact (name, owner, machine_id, at, at_key)
      select 'watts', 'machine', id, '{}'::jsonb, '{}' from machine where jsonb_typeof(power_table) = 'array'`,
    sql`insert into fact_version (fact_id, version, value, origin, made_for, note)
      select f.id, 1, jsonb_build_object('points', m.power_table), 'record', '{}', ''
      from fact f join machine m on m.id = f.machine_id where f.name = 'watts'`,
    sql`drop table verdict`,
    sql`drop table setting_version`,
    sql`drop table setting`,

    sql`create or replace function refuse_change() returns trigger language plpgsql as $$
      begin raise exception 'versions and findings are never changed: keep a new one'; end $$`,
    sql`create trigger fact_version_immutable before update or delete on fact_version
      for each row execute function refuse_change()`,
    sql`create trigger finding_immutable before update or delete on finding
      for each row execute function refuse_change()`,

    // What a pairing's ladder showed when it was last worked out, and whether anything has changed since.
    sql`create table pairing_state (
      pairing_id integer primary key references pairing,
      revision integer not null default 1,
      kept_revision integer not null default 0,
      ladder jsonb,
      next jsonb,
      waits integer not null default 9,
      changed_at timestamptz not null default now())`,
    sql`create index pairing_state_waits on pairing_state (waits, changed_at desc)`,
    sql`insert into pairing_state (pairing_id) select id from pairing`,
    sql`create function touch_pairings(wanted integer[]) returns void language sql as $$
      update pairing_state set revision = revision + 1, changed_at = now() where pairing_id = any(wanted) $$`,
    sql`create function touch_new_pairing() returns trigger language plpgsql as $$
      begin insert into pairing_state (pairing_id) values (new.id); return null; end $$`,
    sql`create function touch_by_pairing() returns trigger language plpgsql as $$
      begin perform touch_pairings(array[new.pairing_id]); return null; end $$`,
    sql`create function touch_by_card() returns trigger language plpgsql as $$
      begin
        perform touch_pairings(array(select pairing_id from card where id in (new.card_id, old.card_id)));
        return null;
      end $$`,
    sql`create function touch_by_fact() returns trigger language plpgsql as $$
      begin
        perform touch_pairings(array(
          select p.id from fact f join pairing p
            on p.id = f.pairing_id or p.machine_id = f.machine_id or p.lens_id = f.lens_id or p.stock_id = f.stock_id
          where f.id = new.fact_id));
        return null;
      end $$`,
    sql`create function touch_by_machine() returns trigger language plpgsql as $$
      begin perform touch_pairings(array(select id from pairing where machine_id = new.id)); return null; end $$`,
    sql`create function touch_by_lens() returns trigger language plpgsql as $$
      begin perform touch_pairings(array(select id from pairing where lens_id = new.id)); return null; end $$`,
    sql`create function touch_by_stock() returns trigger language plpgsql as $$
      begin perform touch_pairings(array(select id from pairing where stock_id = new.id)); return null; end $$`,
    sql`create trigger pairing_new after insert on pairing for each row execute function touch_new_pairing()`,
    sql`create trigger card_new after insert on card for each row execute function touch_by_pairing()`,
    sql`create trigger burn_new after insert on burn for each row execute function touch_by_card()`,
    sql`create trigger burn_changed after update on burn for each row
      when (old.status is distinct from new.status) execute function touch_by_card()`,
    sql`create trigger photo_new after insert on photo for each row execute function touch_by_card()`,
    sql`create trigger photo_changed after update on photo for each row
      when (old.status is distinct from new.status or old.card_id <> new.card_id) execute function touch_by_card()`,
    sql`create trigger answer_changed after insert or update or delete on answer for each row execute function touch_by_card()`,
    sql`create trigger fact_new after insert on fact_version for each row execute function touch_by_fact()`,
    sql`create trigger machine_changed after update on machine for each row execute function touch_by_machine()`,
    sql`create trigger lens_changed after update on lens for each row execute function touch_by_lens()`,
    sql`create trigger stock_changed after update on stock for each row execute function touch_by_stock()`,
  ];
  for (const statement of statements) await statement.execute(db);
}
