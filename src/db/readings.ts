import { sql } from 'kysely';
import { isMirror, type Homography } from '../core/geometry/homography';
import type { CellReading, Doubt } from '../core/reading/observations';
import type { PhotoFault } from '../core/reading/photo-faults';
import type { SheetFault } from '../core/reading/sheet/sheet-tones';
import type { ReadingRecord, ShownPhoto } from '../records/photo';
import { lastBurned } from './burns';
import type { Db } from './client';

/** What is stored of one: merged ones say which they are made of. */
export type NewReading = Omit<ReadingRecord, 'id' | 'photoIds' | 'createdAt' | 'shown'> & {
  readonly toPhoto: Homography;
  readonly mergedFrom: readonly number[] | null;
};

/** To be called in a transaction. */
export async function insertReading(db: Db, { cells, ...reading }: NewReading): Promise<number> {
  const { id } = await db
    .insertInto('reading')
    .values({
      ...reading,
      toPhoto: JSON.stringify(reading.toPhoto),
      alsoSeen: JSON.stringify(reading.alsoSeen),
      tones: JSON.stringify(reading.tones),
      faults: JSON.stringify(reading.faults),
      mergedFrom: reading.mergedFrom && [...reading.mergedFrom],
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  await db
    .insertInto('cellReading')
    .values(
      cells.map((cell) => ({
        ...cell,
        readingId: id,
        doubts: [...cell.doubts],
        hue: JSON.stringify(cell.hue),
        lines: JSON.stringify(cell.lines),
        ripple: JSON.stringify(cell.ripple),
        line: JSON.stringify(cell.line),
        bars: JSON.stringify(cell.bars),
        ends: JSON.stringify(cell.ends),
        picture: JSON.stringify(cell.picture),
        drawing: JSON.stringify(cell.drawing),
      })),
    )
    .execute();
  return id;
}

/** Newest readings of photos by themselves, one for each photo. */
const ownReadings = (db: Db) =>
  db
    .selectFrom('reading')
    .distinctOn('reading.photoId')
    .where('mergedFrom', 'is', null)
    .orderBy('reading.photoId')
    .orderBy('reading.id', 'desc');

/** Photos that were read and whose newest reading asked no other one for the camera's tones. */
export async function readByThemselves(db: Db, photoIds: readonly number[]): Promise<number[]> {
  if (photoIds.length === 0) return [];
  const rows = await ownReadings(db).select(['photoId', 'secondPhotoId']).where('photoId', 'in', photoIds).execute();
  return rows.filter((row) => row.secondPhotoId === null).map((row) => row.photoId);
}

/** Photos that show a frame sheet whose greys were not measured when they were read last, oldest first. */
export async function readByUnmeasuredSheet(db: Db): Promise<number[]> {
  const rows = await db
    .with('own', () => ownReadings(db).select(['reading.photoId', 'reading.tones']))
    .selectFrom('own')
    .innerJoin('photo', 'photo.id', 'own.photoId')
    .select('photo.id')
    .where(sql<string>`own.tones ->> 'why'`, '=', 'sheet-not-measured' satisfies SheetFault)
    .where('photo.status', '=', 'read')
    .where('photo.leftOut', '=', false)
    .orderBy('photo.id')
    .execute();
  return rows.map(({ id }) => id);
}

type Stored = ReadingRecord & Pick<NewReading, 'toPhoto' | 'mergedFrom'>;

async function storedReading(db: Db, id: number): Promise<Stored> {
  const [row, cells] = await Promise.all([
    db.selectFrom('reading').selectAll().where('id', '=', id).executeTakeFirstOrThrow(),
    db.selectFrom('cellReading').selectAll().where('readingId', '=', id).orderBy('cellIndex').execute(),
  ]);
  const parts =
    row.mergedFrom &&
    (await db
      .selectFrom('reading')
      .select(['id', 'photoId', 'station'])
      .where('id', 'in', row.mergedFrom)
      .orderBy('photoId', 'desc')
      .execute());
  const { createdAt, ...reading } = row;
  return {
    ...reading,
    photoIds: parts ? parts.map(({ photoId }) => photoId) : [row.photoId],
    shown: newestOfEach(parts ?? [row]),
    createdAt: createdAt.toISOString(),
    cells: cells.map(({ readingId, doubts, ...cell }): CellReading => ({ ...cell, doubts: doubts as Doubt[] })),
  };
}

/** The newest photo of each station, or of the card; `newestFirst` in that order. */
function newestOfEach(newestFirst: readonly ShownPhoto[]): ShownPhoto[] {
  return newestFirst
    .filter(({ station }, index) => newestFirst.findIndex((other) => other.station === station) === index)
    .map(({ photoId, station }) => ({ photoId, station }));
}

/** What a card is told by now: its newest reading, of one photo or merged of several, with its cells in order. */
export async function newestReading(db: Db, cardId: number): Promise<ReadingRecord | undefined> {
  const row = await db
    .selectFrom('reading')
    .select('id')
    .where('cardId', '=', cardId)
    .orderBy('id', 'desc')
    .executeTakeFirst();
  if (!row) return undefined;
  const { toPhoto, mergedFrom, ...record } = await storedReading(db, row.id);
  return record;
}

/**
 * What a card showed before it was cleaned or finished, where its newest reading is of after that: the newest reading of photos taken since it was last
 * burned that are not left out. Undefined where there is none, and where the newest reading is of no such moment.
 */
export async function readingBeforeFinish(db: Db, cardId: number): Promise<ReadingRecord | undefined> {
  const readings = db
    .selectFrom('reading')
    .innerJoin('photo', 'photo.id', 'reading.photoId')
    .where('reading.cardId', '=', cardId)
    .orderBy('reading.id', 'desc');
  const newest = await readings.select('photo.finish').executeTakeFirst();
  if (newest?.finish !== 'after') return undefined;
  const row = await readings
    .select('reading.id')
    .where('photo.finish', '=', 'before')
    .where('photo.createdAt', '>=', lastBurned(cardId))
    .where((is) =>
      is.not(
        is.exists(
          is
            .selectFrom('reading as part')
            .innerJoin('photo as taken', 'taken.id', 'part.photoId')
            .select('part.id')
            .where('taken.leftOut', '=', true)
            .where(sql<boolean>`part.id = reading.id or part.id = any(reading.merged_from)`),
        ),
      ),
    )
    .executeTakeFirst();
  if (!row) return undefined;
  const { toPhoto, mergedFrom, ...record } = await storedReading(db, row.id);
  return record;
}

/** What is wrong with photos, which station they show and whether as a mirror does, as their newest readings by themselves have it. */
export async function toldOfPhotos(
  db: Db,
  photoIds: readonly number[],
): Promise<
  Map<
    number,
    {
      readonly faults: readonly PhotoFault[];
      readonly station: number | null;
      readonly alsoSeen: readonly number[];
      readonly mirrored: boolean;
    }
  >
> {
  if (photoIds.length === 0) return new Map();
  const rows = await ownReadings(db)
    .select(['photoId', 'faults', 'station', 'alsoSeen', 'toPhoto'])
    .where('photoId', 'in', photoIds)
    .execute();
  return new Map(rows.map(({ photoId, toPhoto, ...told }) => [photoId, { ...told, mirrored: isMirror(toPhoto) }]));
}

/** Holds other changes of what a card is told by until this transaction ends. */
export async function holdCard(db: Db, cardId: number): Promise<void> {
  // Not against rows that refer to the card: readings of its photos are stored meanwhile.
  await db.selectFrom('card').select('id').where('id', '=', cardId).forNoKeyUpdate().execute();
}

/**
 * The newest own readings of the photos of a card that show it as it is now, newest reading first: of photos taken since it was last burned, at the same
 * moment of its finish as the newest of them unless it has none, and not left out.
 */
export async function readingsThatCount(db: Db, cardId: number, hasFinish: boolean): Promise<Stored[]> {
  const rows = await db
    .with('own', () => ownReadings(db).select(['reading.id', 'reading.photoId']).where('cardId', '=', cardId))
    .selectFrom('own')
    .innerJoin('photo', 'photo.id', 'own.photoId')
    .select(['own.id', 'photo.finish'])
    .where('photo.cardId', '=', cardId)
    .where('photo.status', '=', 'read')
    .where('photo.leftOut', '=', false)
    .where('photo.createdAt', '>=', lastBurned(cardId))
    .orderBy('photo.id', 'desc')
    .execute();
  const moment = rows[0]?.finish;
  const ids = rows.filter(({ finish }) => !hasFinish || finish === moment).map(({ id }) => id);
  return Promise.all(ids.sort((a, b) => b - a).map((id) => storedReading(db, id)));
}
