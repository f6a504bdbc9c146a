import type { ThroughRecord } from '../records/photo';
import { lastBurned } from './burns';
import type { Db } from './client';

/** What is stored of one. */
export type NewThrough = Omit<ThroughRecord, 'id' | 'createdAt'> & { readonly toPhoto: readonly number[] };

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
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  await db
    .insertInto('cellThrough')
    .values(cells.map((cell) => ({ ...cell, readingId: id, doubts: [...cell.doubts] })))
    .execute();
  return id;
}

/** What a light table shows of a card as it is now: the newest reading of the newest such photo since it was last burned that is not left out. */
export async function newestThrough(db: Db, cardId: number): Promise<ThroughRecord | undefined> {
  const row = await db
    .selectFrom('throughReading')
    .innerJoin('photo', 'photo.id', 'throughReading.photoId')
    .selectAll('throughReading')
    .where('photo.cardId', '=', cardId)
    .where('throughReading.cardId', '=', cardId)
    .where('photo.status', '=', 'read')
    .where('photo.leftOut', '=', false)
    .where('photo.createdAt', '>=', lastBurned(cardId))
    .orderBy('photo.id', 'desc')
    .orderBy('throughReading.id', 'desc')
    .executeTakeFirst();
  if (!row) return undefined;
  const cells = await db
    .selectFrom('cellThrough')
    .selectAll()
    .where('readingId', '=', row.id)
    .orderBy('cellIndex')
    .execute();
  const { createdAt, toPhoto, ...reading } = row;
  return {
    ...reading,
    createdAt: createdAt.toISOString(),
    cells: cells.map(({ readingId, ...cell }) => cell),
  };
}
