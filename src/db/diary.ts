import type { DiaryEntry, DiaryKind } from '../core/machine/diary';
import type { DiaryRecord } from '../records/diary';
import type { Db } from './client';

/** Diaries of machines, by machine, newest entry first; struck ones among them only where that is asked for. */
export async function diariesOf(
  db: Db,
  machineIds: readonly number[],
  { withStruck = false } = {},
): Promise<Map<number, DiaryRecord[]>> {
  const found = new Map<number, DiaryRecord[]>(machineIds.map((id) => [id, []]));
  if (machineIds.length === 0) return found;
  const rows = await db
    .selectFrom('diaryEntry')
    .selectAll()
    .where('machineId', 'in', machineIds)
    .$if(!withStruck, (query) => query.where('struckAt', 'is', null))
    .orderBy('at', 'desc')
    .orderBy('id', 'desc')
    .execute();
  for (const { id, machineId, at, kind, note, command, watts, share, struckAt } of rows)
    found.get(machineId)!.push({
      id,
      at: at.toISOString(),
      kind: kind as DiaryKind,
      note,
      reading: command === null || watts === null ? null : { command, watts },
      share,
      struck: struckAt !== null,
    });
  return found;
}

export async function insertEntry(
  db: Db,
  machineId: number,
  { at, kind, note, reading, share }: DiaryEntry,
): Promise<number> {
  const { id } = await db
    .insertInto('diaryEntry')
    .values({ machineId, at, kind, note, command: reading?.command ?? null, watts: reading?.watts ?? null, share })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
}

/** Strikes an entry out, or lets it stand again. False where the machine has none of that number. */
export async function strikeEntry(db: Db, machineId: number, id: number, at: Date | null): Promise<boolean> {
  const { numUpdatedRows } = await db
    .updateTable('diaryEntry')
    .set({ struckAt: at })
    .where('id', '=', id)
    .where('machineId', '=', machineId)
    .executeTakeFirstOrThrow();
  return numUpdatedRows > 0n;
}
