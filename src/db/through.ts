import { sql } from 'kysely';
import { isMirror, type Homography } from '../core/geometry/homography';
import type { ThroughRecord } from '../records/photo';
import { lastBurned } from './burns';
import type { Db } from './client';

/** What is stored of one: merged ones say which they are made of. */
export type NewThrough = Omit<ThroughRecord, 'id' | 'photoIds' | 'createdAt'> & {
  readonly toPhoto: Homography;
  readonly mergedFrom: readonly number[] | null;
};

/** To be called in a transaction. */
export async function insertThrough(db: Db, { cells, ...reading }: NewThrough): Promise<number> {
  const { id } = await db
    .insertInto('throughReading')
    .values({
      ...reading,
      toPhoto: JSON.stringify(reading.toPhoto),
      alsoSeen: JSON.stringify(reading.alsoSeen),
      tones: JSON.stringify(reading.tones),
      pinholes: JSON.stringify(reading.pinholes),
      mergedFrom: reading.mergedFrom && [...reading.mergedFrom],
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  await db
    .insertInto('cellThrough')
    .values(cells.map((cell) => ({ ...cell, readingId: id, doubts: [...cell.doubts] })))
    .execute();
  return id;
}

type Stored = ThroughRecord & Pick<NewThrough, 'toPhoto'>;

async function stored(db: Db, id: number, photoIds: readonly number[]): Promise<Stored> {
  const [{ createdAt, mergedFrom, ...reading }, cells] = await Promise.all([
    db.selectFrom('throughReading').selectAll().where('id', '=', id).executeTakeFirstOrThrow(),
    db.selectFrom('cellThrough').selectAll().where('readingId', '=', id).orderBy('cellIndex').execute(),
  ]);
  return {
    ...reading,
    photoIds,
    createdAt: createdAt.toISOString(),
    cells: cells.map(({ readingId, ...cell }) => cell),
  };
}

/** Those of some photos on a light table whose newest reading found them to show their card as a mirror does. */
export async function mirroredThrough(db: Db, photoIds: readonly number[]): Promise<ReadonlySet<number>> {
  if (photoIds.length === 0) return new Set();
  const rows = await db
    .selectFrom('throughReading')
    .distinctOn('photoId')
    .select(['photoId', 'toPhoto'])
    .where('photoId', 'in', photoIds)
    .where('mergedFrom', 'is', null)
    .orderBy('photoId')
    .orderBy('id', 'desc')
    .execute();
  return new Set(rows.filter(({ toPhoto }) => isMirror(toPhoto)).map(({ photoId }) => photoId));
}

/** The newest own reading of each photo of a card on a light table that counts: taken since it was last burned, and not left out; newest photo first. */
const countingOf = (db: Db, cardId: number) =>
  db
    .selectFrom('throughReading')
    .innerJoin('photo', 'photo.id', 'throughReading.photoId')
    .distinctOn('photo.id')
    .select(['throughReading.id', 'photo.id as photoId'])
    .where('photo.cardId', '=', cardId)
    .where('throughReading.cardId', '=', cardId)
    .where('throughReading.mergedFrom', 'is', null)
    .where('photo.status', '=', 'read')
    .where('photo.leftOut', '=', false)
    .where('photo.createdAt', '>=', lastBurned(cardId))
    .orderBy('photo.id', 'desc')
    .orderBy('throughReading.id', 'desc')
    .execute();

export async function throughThatCounts(db: Db, cardId: number): Promise<Stored[]> {
  const rows = await countingOf(db, cardId);
  return Promise.all(rows.map(({ id, photoId }) => stored(db, id, [photoId])));
}

/** The reading that was merged of just these, if there is one. */
const mergedOf = (db: Db, cardId: number, ids: readonly number[]) =>
  db
    .selectFrom('throughReading')
    .select('id')
    .where('cardId', '=', cardId)
    // As one value: the builder takes a list for several.
    .where(sql<boolean>`merged_from = ${sql.val([...ids])}::integer[]`)
    .orderBy('id', 'desc')
    .executeTakeFirst();

export const isMerged = async (db: Db, cardId: number, ids: readonly number[]): Promise<boolean> =>
  (await mergedOf(db, cardId, ids)) !== undefined;

/** What a light table shows of a card as it is now: all its photos that count, merged where there are several. */
export async function newestThrough(db: Db, cardId: number): Promise<ThroughRecord | undefined> {
  const rows = await countingOf(db, cardId);
  const [newest] = rows;
  if (!newest) return undefined;
  const ids = rows.map(({ id }) => id);
  const merged = rows.length > 1 ? await mergedOf(db, cardId, ids) : undefined;
  const photoIds = merged ? rows.map(({ photoId }) => photoId) : [newest.photoId];
  const { toPhoto, ...record } = await stored(db, merged?.id ?? newest.id, photoIds);
  return record;
}
