import type { Db } from './client';
import type { BurnStatus } from './schema';

export interface BurnRecord {
  readonly id: number;
  readonly cardId: number;
  readonly machineId: number;
  readonly place: 'bench' | 'own-machine';
  readonly status: BurnStatus;
  readonly linesTotal: number;
  readonly linesDone: number;
  readonly seed: string;
  readonly cautions: readonly string[];
  readonly estimatedS: number;
  readonly actualS: number | null;
  readonly startedAt: string;
  readonly endedAt: string | null;
}

export type NewBurn = Omit<BurnRecord, 'id' | 'startedAt' | 'linesDone' | 'actualS' | 'endedAt'> & {
  readonly program: string | null;
  readonly endedAt: Date | null;
};

export async function insertBurn(db: Db, burn: NewBurn): Promise<number> {
  const row = {
    card_id: burn.cardId,
    machine_id: burn.machineId,
    place: burn.place,
    status: burn.status,
    program: burn.program,
    lines_total: burn.linesTotal,
    lines_done: 0,
    seed: burn.seed,
    cautions: JSON.stringify(burn.cautions),
    estimated_s: burn.estimatedS,
    ended_at: burn.endedAt,
  };
  return (await db.insertInto('burn').values(row).returning('id').executeTakeFirstOrThrow()).id;
}

const burns = (db: Db) =>
  db
    .selectFrom('burn')
    .select([
      'id', 'card_id', 'machine_id', 'place', 'status', 'lines_total', 'lines_done', 'seed', 'cautions', 'estimated_s',
      'actual_s', 'started_at', 'ended_at',
    ]); // prettier-ignore

type BurnRow = Awaited<ReturnType<ReturnType<typeof burns>['execute']>>[number];

const burnOf = (row: BurnRow): BurnRecord => ({
  id: row.id,
  cardId: row.card_id,
  machineId: row.machine_id,
  place: row.place,
  status: row.status,
  linesTotal: row.lines_total,
  linesDone: row.lines_done,
  seed: row.seed,
  cautions: row.cautions,
  estimatedS: row.estimated_s,
  actualS: row.actual_s,
  startedAt: row.started_at.toISOString(),
  endedAt: row.ended_at?.toISOString() ?? null,
});

export async function burnById(db: Db, id: number): Promise<BurnRecord | undefined> {
  const row = await burns(db).where('id', '=', id).executeTakeFirst();
  return row && burnOf(row);
}

export async function burnsOfCard(db: Db, cardId: number): Promise<BurnRecord[]> {
  return (await burns(db).where('card_id', '=', cardId).orderBy('id', 'desc').execute()).map(burnOf);
}

export async function listBurns(db: Db, most: number): Promise<BurnRecord[]> {
  return (await burns(db).orderBy('id', 'desc').limit(most).execute()).map(burnOf);
}

export async function programOfBurn(db: Db, id: number): Promise<string | null> {
  return (await db.selectFrom('burn').select('program').where('id', '=', id).executeTakeFirst())?.program ?? null;
}

/** Notes how far a running burn has come. A burn that has ended is left as it is. */
export async function noteProgress(db: Db, id: number, linesDone: number, status: 'running' | 'paused'): Promise<void> {
  await db
    .updateTable('burn')
    .set({ lines_done: linesDone, status })
    .where('id', '=', id)
    .where('status', 'in', ['running', 'paused'])
    .execute();
}

export async function endBurn(
  db: Db,
  id: number,
  end: { status: 'done' | 'stopped' | 'interrupted'; linesDone: number; actualS: number | null; at: Date },
): Promise<void> {
  await db
    .updateTable('burn')
    .set({ status: end.status, lines_done: end.linesDone, actual_s: end.actualS, ended_at: end.at })
    .where('id', '=', id)
    .where('status', 'in', ['running', 'paused'])
    .execute();
}

/** Marks burns that were under way when the server last ended as interrupted, and returns their ids. */
export async function interruptOpenBurns(db: Db, at: Date): Promise<number[]> {
  const rows = await db
    .updateTable('burn')
    .set({ status: 'interrupted', ended_at: at })
    .where('status', 'in', ['running', 'paused'])
    .returning('id')
    .execute();
  return rows.map((row) => row.id);
}
