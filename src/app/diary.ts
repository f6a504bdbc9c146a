import type { DiaryEntry } from '../core/machine/diary';
import { hoursBurned } from '../db/burns';
import { diariesOf, insertEntry, strikeEntry } from '../db/diary';
import type { DiaryView } from '../records/diary';
import type { AppContext } from './context';
import { getMachine } from './machines';
import { once } from './once';
import { notFound, Problem } from './problems';

/** A machine's diary with what was struck out, and how long it has burned. */
export async function diaryOf(ctx: AppContext, machineId: number): Promise<DiaryView> {
  await getMachine(ctx, machineId);
  const [diaries, hours] = await Promise.all([
    diariesOf(ctx.db, [machineId], { withStruck: true }),
    hoursBurned(ctx.db, machineId),
  ]);
  return { entries: diaries.get(machineId)!, hours };
}

/** Clocks of a browser and the server may differ by this. */
const AHEAD_MS = 5 * 60_000;

/** Notes what happened to a machine. What it makes doubtful shows on the ladders of all of its pairings from then on. */
export async function addEntry(
  ctx: AppContext,
  machineId: number,
  entry: DiaryEntry,
  key?: string,
): Promise<{ id: number }> {
  await getMachine(ctx, machineId);
  if (Date.parse(entry.at) > ctx.now().getTime() + AHEAD_MS)
    throw new Problem(
      'invalid-input',
      'A diary notes what has happened: that day is still to come.',
      'Nothing was noted.',
      [{ field: 'at', message: 'This lies in the future.' }],
    );
  return once(ctx, key, 'add-diary-entry', async (tx) => ({ id: await insertEntry(tx, machineId, entry) }));
}

/** Strikes an entry out that was a mistake, or lets it stand again; it is never lost. */
export async function setStruck(
  ctx: AppContext,
  machineId: number,
  entryId: number,
  struck: boolean,
): Promise<DiaryView> {
  if (!(await strikeEntry(ctx.db, machineId, entryId, struck ? ctx.now() : null)))
    throw notFound('diary entry', entryId);
  return diaryOf(ctx, machineId);
}
