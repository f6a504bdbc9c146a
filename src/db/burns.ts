import type { BurnedOn } from '../core/machine/source-hours';
import type { BurnRecord, HandRecord, SpentOnTests } from '../records/burn';
import type { DiaryView } from '../records/diary';
import { sql, type RawBuilder } from 'kysely';
import type { Db } from './client';

export type NewBurn = Omit<BurnRecord, 'id' | 'startedAt' | 'linesDone' | 'endedAt' | 'fault'> & {
  readonly program: string | null;
  readonly parts: readonly object[];
  readonly endedAt: Date | null;
};

export async function insertBurn(db: Db, burn: NewBurn): Promise<number> {
  const row = {
    cardId: burn.cardId,
    machineId: burn.machineId,
    place: burn.place,
    status: burn.status,
    program: burn.program,
    cells: JSON.stringify(burn.cells),
    parts: JSON.stringify(burn.parts),
    hands: '[]',
    linesTotal: burn.linesTotal,
    linesDone: 0,
    seed: burn.seed,
    cautions: JSON.stringify(burn.cautions),
    estimatedS: burn.estimatedS,
    actualS: burn.actualS,
    endedAt: burn.endedAt,
  };
  return (await db.insertInto('burn').values(row).returning('id').executeTakeFirstOrThrow()).id;
}

const burns = (db: Db) =>
  db
    .selectFrom('burn')
    .select([
      'id',
      'cardId',
      'machineId',
      'place',
      'status',
      'cells',
      'linesTotal',
      'linesDone',
      'seed',
      'cautions',
      'estimatedS',
      'actualS',
      'startedAt',
      'endedAt',
      'fault',
    ]);

type BurnRow = Awaited<ReturnType<ReturnType<typeof burns>['execute']>>[number];

const burnOf = ({ startedAt, endedAt, ...burn }: BurnRow): BurnRecord => ({
  ...burn,
  startedAt: startedAt.toISOString(),
  endedAt: endedAt?.toISOString() ?? null,
});

/** When a card was last burned, as a part of a query: photos from before that do not show it as it is. */
export const lastBurned = (cardId: number): RawBuilder<Date> =>
  sql<Date>`(select coalesce(max(coalesce(ended_at, started_at)), '-infinity') from burn
    where card_id = ${cardId} and (lines_done > 0 or place = 'own-machine'))`;

export async function burnById(db: Db, id: number): Promise<BurnRecord | undefined> {
  const row = await burns(db).where('id', '=', id).executeTakeFirst();
  return row && burnOf(row);
}

export async function burnsOfCard(db: Db, cardId: number): Promise<BurnRecord[]> {
  return (await burns(db).where('cardId', '=', cardId).orderBy('id', 'desc').execute()).map(burnOf);
}

export interface BurnedProgramRecord {
  readonly program: string;
  readonly linesDone: number;
  readonly hands: readonly HandRecord[];
  readonly seed: string;
}

/** What was sent to the bench for a card, oldest first: burns of which at least a line was taken. */
export async function programsOfCard(db: Db, cardId: number): Promise<BurnedProgramRecord[]> {
  const rows = await db
    .selectFrom('burn')
    .select(['program', 'linesDone', 'hands', 'seed'])
    .where('cardId', '=', cardId)
    .where('place', '=', 'bench')
    .where('linesDone', '>', 0)
    .orderBy('id')
    .execute();
  return rows.map((row) => ({ program: row.program!, linesDone: row.linesDone, hands: row.hands, seed: row.seed }));
}

/** Notes what a hand did at a stop, after what was noted before. */
export async function noteHands(db: Db, id: number, hands: readonly HandRecord[]): Promise<void> {
  await db
    .updateTable('burn')
    .set({ hands: JSON.stringify(hands) })
    .where('id', '=', id)
    .execute();
}

/** Notes how far a running burn has come. A burn that has ended is left as it is. */
export async function noteProgress(db: Db, id: number, linesDone: number, status: 'running' | 'paused'): Promise<void> {
  await db
    .updateTable('burn')
    .set({ linesDone: linesDone, status })
    .where('id', '=', id)
    .where('status', 'in', ['running', 'paused'])
    .execute();
}

export async function endBurn(
  db: Db,
  id: number,
  end: {
    readonly status: 'done' | 'stopped' | 'interrupted';
    readonly linesDone: number;
    readonly actualS: number | null;
    readonly at: Date;
    readonly hands: readonly HandRecord[];
    readonly fault: string | null;
  },
): Promise<void> {
  await db
    .updateTable('burn')
    .set({
      status: end.status,
      linesDone: end.linesDone,
      actualS: end.actualS,
      endedAt: end.at,
      hands: JSON.stringify(end.hands),
      fault: end.fault,
    })
    .where('id', '=', id)
    .where('status', 'in', ['running', 'paused'])
    .execute();
}

/** Marks burns that were under way when the server last ended as interrupted, and returns their ids. */
export async function interruptOpenBurns(db: Db, at: Date): Promise<number[]> {
  const rows = await db
    .updateTable('burn')
    .set({ status: 'interrupted', endedAt: at })
    .where('status', 'in', ['running', 'paused'])
    // A clock that somebody started beside their own machine runs on.
    .where('place', '=', 'bench')
    .returning('id')
    .execute();
  return rows.map((row) => row.id);
}

/** Ends a burn on the operator's own machine. False when it has ended already. */
export async function endOwnBurn(
  db: Db,
  id: number,
  end: { readonly status: 'done' | 'stopped'; readonly actualS: number | null; readonly at: Date },
): Promise<boolean> {
  const result = await db
    .updateTable('burn')
    .set({ status: end.status, actualS: end.actualS, endedAt: end.at })
    .where('id', '=', id)
    .where('place', '=', 'own-machine')
    .where('status', '=', 'running')
    .executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

/** Corrects the time that a burn on the operator's own machine took. False when there is no such burn, or its clock still runs. */
export async function correctTime(db: Db, id: number, actualS: number | null): Promise<boolean> {
  const result = await db
    .updateTable('burn')
    .set({ actualS: actualS })
    .where('id', '=', id)
    .where('place', '=', 'own-machine')
    .where('endedAt', 'is not', null)
    .executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

/**
 * The newest burns to the end that were timed on a machine of the operator's, newest first. Those of a round are not among them: one time was
 * shared out among its cards as it was estimated, and would look like several that agree with the estimate.
 */
export async function timedBurnsOfMachine(db: Db, machineId: number, most: number): Promise<BurnRecord[]> {
  const rows = await burns(db)
    .where('machineId', '=', machineId)
    .where('place', '=', 'own-machine')
    .where('status', '=', 'done')
    .where('actualS', '>', 0)
    .where('cardId', 'in', (eb) => eb.selectFrom('card').select('card.id').where('card.roundId', 'is', null))
    .orderBy('id', 'desc')
    .limit(most)
    .execute();
  return rows.map(burnOf);
}

/** Cards that the bench burned to the end last, newest first: of one piece, not of several places. */
export async function newestOnBench(
  db: Db,
  most: number,
): Promise<{ id: number; code: string; kind: string; stock: string }[]> {
  return db
    .selectFrom('card')
    .innerJoin('pairing', 'pairing.id', 'card.pairingId')
    .innerJoin('stock', 'stock.id', 'pairing.stockId')
    .select(['card.id', 'card.code', 'card.kind', 'stock.name as stock'])
    .where('card.numbers', '=', 1)
    .where(({ exists, selectFrom }) =>
      exists(
        selectFrom('burn')
          .select('burn.id')
          .whereRef('burn.cardId', '=', 'card.id')
          .where('burn.place', '=', 'bench')
          .where('burn.status', '=', 'done'),
      ),
    )
    .orderBy('card.id', 'desc')
    .limit(most)
    .execute();
}

/** Seconds that a burn took: those of the log; else as estimated, and of one that was broken off by the share of lines that was done. */
const BURNED_S = sql<number>`coalesce(burn.actual_s, burn.estimated_s * case when burn.status = 'done' or burn.lines_total = 0 then 1
  else burn.lines_done::double precision / burn.lines_total end)`;

/** Cards of a pairing that were burned: how many, how long all burns took, and how much stock they lie on. Adopted ones cost nothing here. */
export async function spentOn(db: Db, pairingId: number): Promise<SpentOnTests> {
  const { rows } = await sql<{ cards: number; seconds: number; areaMm2: number }>`
    with burned as (
      select card.id, coalesce(
          (select sum((station -> 'box' ->> 'width')::double precision * (station -> 'box' ->> 'height')::double precision)
            from jsonb_array_elements(card.layout -> 'stations') station),
          card.width_mm * card.height_mm) as area, sum(${BURNED_S}) as s
      from card join burn on burn.card_id = card.id
      where card.pairing_id = ${pairingId} and burn.ended_at is not null group by card.id)
    select count(*)::integer as cards, coalesce(sum(s), 0) as seconds, coalesce(sum(area), 0) as area_mm2 from burned`.execute(
    db,
  );
  return rows[0]!;
}

/** Hours that machines burned, by machine and day. */
export async function hoursByDay(db: Db, machineIds: readonly number[]): Promise<Map<number, BurnedOn[]>> {
  const found = new Map<number, BurnedOn[]>(machineIds.map((id) => [id, []]));
  if (machineIds.length === 0) return found;
  const rows = await db
    .selectFrom('burn')
    .select([
      'machineId',
      sql<Date>`date_trunc('day', burn.started_at)`.as('day'),
      sql<number>`sum(${BURNED_S}) / 3600`.as('hours'),
    ])
    .where('machineId', 'in', machineIds)
    .where('endedAt', 'is not', null)
    .groupBy(['machineId', 'day'])
    .orderBy('day')
    .execute();
  for (const { machineId, day, hours } of rows) found.get(machineId)!.push({ at: day.toISOString(), hours });
  return found;
}

/** Hours of a machine's logged burns: of all of them, and since its source was replaced last. */
export async function hoursBurned(db: Db, machineId: number): Promise<DiaryView['hours']> {
  const { rows } = await sql<{ all: number; ofSource: number }>`
    with ended as (
      select started_at, ${BURNED_S} as s
      from burn where machine_id = ${machineId} and ended_at is not null),
    replaced as (
      select max(at) as at from diary_entry where machine_id = ${machineId} and kind = 'source' and struck_at is null)
    select coalesce(sum(s), 0) / 3600 as all,
      coalesce(sum(s) filter (where started_at > coalesce((select at from replaced), '-infinity')), 0) / 3600 as of_source
    from ended`.execute(db);
  return { all: Number(rows[0]!.all), ofSource: Number(rows[0]!.ofSource) };
}
