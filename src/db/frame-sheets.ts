import { sql } from 'kysely';
import type { SheetGreys } from '../core/reading/sheet/sheet-greys';
import type { MeasuredSheets } from '../core/reading/sheet/sheet-tones';
import type { Exposure } from '../core/reading/tone/exposure';
import type { SheetFormat } from '../core/sheet/frame-sheet';
import type { FrameSheetRecord } from '../records/frame-sheet';
import type { Db } from './client';

const sheets = (db: Db) =>
  db
    .selectFrom('frameSheet')
    .selectAll()
    .select(({ selectFrom }) =>
      selectFrom('frameSheetPhoto')
        .whereRef('frameSheetId', '=', 'frameSheet.id')
        .select(sql<number>`count(*)::int`.as('count'))
        .as('photos'),
    );
type SheetRow = Awaited<ReturnType<ReturnType<typeof sheets>['execute']>>[number];

const recordOf = ({ measuredAt, createdAt, photos, ...sheet }: SheetRow): FrameSheetRecord => ({
  ...sheet,
  photos: photos ?? 0,
  measuredAt: measuredAt?.toISOString() ?? null,
  createdAt: createdAt.toISOString(),
});

/** All sheets, newest first. */
export async function listFrameSheets(db: Db): Promise<FrameSheetRecord[]> {
  return (await sheets(db).orderBy('id', 'desc').execute()).map(recordOf);
}

export async function frameSheetById(db: Db, id: number): Promise<FrameSheetRecord | undefined> {
  const row = await sheets(db).where('id', '=', id).executeTakeFirst();
  return row && recordOf(row);
}

export async function insertFrameSheet(
  db: Db,
  sheet: Pick<FrameSheetRecord, 'name' | 'format' | 'ruleMm'>,
): Promise<number> {
  return (await db.insertInto('frameSheet').values(sheet).returning('id').executeTakeFirstOrThrow()).id;
}

/** The newest measured sheet of each format: what is in use. */
export async function sheetsInUse(
  db: Db,
): Promise<{ readonly greys: MeasuredSheets; readonly ids: Readonly<Partial<Record<SheetFormat, number>>> }> {
  const rows = await db
    .selectFrom('frameSheet')
    .distinctOn('format')
    .select(['id', 'format', 'greys'])
    .where('measuredAt', 'is not', null)
    .orderBy('format')
    .orderBy('id', 'desc')
    .execute();
  return {
    greys: Object.fromEntries(rows.map(({ format, greys }) => [format, greys!])),
    ids: Object.fromEntries(rows.map(({ format, id }) => [format, id])),
  };
}

/** A photo of a sheet; the same one twice is kept once. */
export async function insertSheetPhoto(
  db: Db,
  photo: {
    readonly frameSheetId: number;
    readonly bytes: Buffer;
    readonly exposure: Exposure;
    readonly sha256: string;
  },
): Promise<void> {
  await db
    .insertInto('frameSheetPhoto')
    .values({ ...photo, exposure: JSON.stringify(photo.exposure) })
    .onConflict((conflict) => conflict.columns(['frameSheetId', 'sha256']).doNothing())
    .execute();
}

/** A sheet's photos, newest first. */
export async function photosOfSheet(
  db: Db,
  frameSheetId: number,
): Promise<{ id: number; bytes: Buffer; exposure: Exposure }[]> {
  return db
    .selectFrom('frameSheetPhoto')
    .select(['id', 'bytes', 'exposure'])
    .where('frameSheetId', '=', frameSheetId)
    .orderBy('id', 'desc')
    .execute();
}

/** Notes what a sheet's greys send back, once, and lets its photos go. To be called in a transaction. */
export async function noteGreys(db: Db, id: number, greys: SheetGreys, scatter: number): Promise<boolean> {
  const { numUpdatedRows } = await db
    .updateTable('frameSheet')
    .set({ greys: JSON.stringify(greys), scatter, measuredAt: new Date() })
    .where('id', '=', id)
    .where('measuredAt', 'is', null)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) return false;
  await db.deleteFrom('frameSheetPhoto').where('frameSheetId', '=', id).execute();
  return true;
}

/** Lets photos of a sheet go that told nothing. */
export async function dropSheetPhotos(db: Db, ids: readonly number[]): Promise<void> {
  await db.deleteFrom('frameSheetPhoto').where('id', 'in', ids).execute();
}
