import type { Point } from '../core/geometry/point';
import type { ImageRole, PhotoDetail, PhotoRecord, PhotoStatus } from '../records/photo';
import type { Db } from './client';

export type NewPhoto = Omit<PhotoRecord, 'id' | 'status' | 'detail' | 'corners' | 'revision' | 'leftOut' | 'createdAt'>;

const photos = (db: Db) => db.selectFrom('photo').selectAll();
type PhotoRow = Awaited<ReturnType<ReturnType<typeof photos>['execute']>>[number];

const photoOf = ({ createdAt, ...photo }: PhotoRow): PhotoRecord => ({ ...photo, createdAt: createdAt.toISOString() });

/** To be called in a transaction: photo and bytes belong together. Null when the card has this very photo already. */
export async function insertPhoto(db: Db, photo: NewPhoto, bytes: Buffer): Promise<number | null> {
  const row = await db
    .insertInto('photo')
    .values({
      ...photo,
      status: 'waiting',
      detail: '{}',
      corners: 'null',
      exposure: JSON.stringify(photo.exposure),
    })
    .onConflict((conflict) => conflict.columns(['cardId', 'sha256']).doNothing())
    .returning('id')
    .executeTakeFirst();
  if (!row) return null;
  await putImage(db, row.id, 'original', photo.mediaType, bytes);
  return row.id;
}

/** A photo once more, for another card that it shows. To be called in a transaction; null when that card has it already. */
export async function insertPhotoToo(
  db: Db,
  photo: PhotoRecord,
  cardId: number,
  bytes: Buffer,
): Promise<number | null> {
  const { id, status, detail, corners, revision, leftOut, createdAt, ...same } = photo;
  return insertPhoto(db, { ...same, cardId }, bytes);
}

export async function photoById(db: Db, id: number): Promise<PhotoRecord | undefined> {
  const row = await photos(db).where('id', '=', id).executeTakeFirst();
  return row && photoOf(row);
}

export async function photoOfCardByHash(db: Db, cardId: number, sha256: string): Promise<PhotoRecord | undefined> {
  const row = await photos(db).where('cardId', '=', cardId).where('sha256', '=', sha256).executeTakeFirst();
  return row && photoOf(row);
}

export async function photosOfCard(db: Db, cardId: number): Promise<PhotoRecord[]> {
  return (await photos(db).where('cardId', '=', cardId).orderBy('id', 'desc').execute()).map(photoOf);
}

export async function setPhotoStatus(db: Db, id: number, status: PhotoStatus, detail: PhotoDetail = {}): Promise<void> {
  await db
    .updateTable('photo')
    .set({ status, detail: JSON.stringify(detail) })
    .where('id', '=', id)
    .execute();
}

/** Whether a photo is to count in what its card is told by. */
export async function setLeftOut(db: Db, id: number, leftOut: boolean): Promise<void> {
  await db.updateTable('photo').set({ leftOut }).where('id', '=', id).execute();
}

/** Puts a photo back in line, with dragged corners or for another card. */
export async function requeuePhoto(
  db: Db,
  id: number,
  change: { corners?: readonly Point[]; cardId?: number },
): Promise<void> {
  await db
    .updateTable('photo')
    .set(({ eb }) => ({
      status: 'waiting' as const,
      detail: '{}',
      revision: eb('revision', '+', 1),
      ...(change.corners ? { corners: JSON.stringify(change.corners) } : {}),
      ...(change.cardId !== undefined && { cardId: change.cardId }),
    }))
    .where('id', '=', id)
    .execute();
}

/** Whether a photo is still at the revision that a reading was begun for; its row is locked until the transaction ends. */
export async function isAtRevision(db: Db, id: number, revision: number): Promise<boolean> {
  const row = await db.selectFrom('photo').select('revision').where('id', '=', id).forUpdate().executeTakeFirst();
  return row?.revision === revision;
}

/** The newest photo in a lamp's light that was read. */
export async function newestReadPhoto(db: Db): Promise<PhotoRecord | undefined> {
  const row = await photos(db)
    .where('status', '=', 'read')
    .where('litFrom', '=', 'front')
    .orderBy('id', 'desc')
    .limit(1)
    .executeTakeFirst();
  return row && photoOf(row);
}

/** Photos whose reading has not ended, oldest first: they are read after a restart. */
export async function unreadPhotoIds(db: Db): Promise<number[]> {
  const rows = await db
    .selectFrom('photo')
    .select('id')
    .where('status', 'in', ['waiting', 'reading'])
    .orderBy('id')
    .execute();
  return rows.map((row) => row.id);
}

export async function putImage(
  db: Db,
  photoId: number,
  role: ImageRole,
  mediaType: string,
  bytes: Buffer,
): Promise<void> {
  await db
    .insertInto('photoImage')
    .values({ photoId, role, mediaType, bytes })
    .onConflict((conflict) => conflict.columns(['photoId', 'role']).doUpdateSet({ mediaType, bytes }))
    .execute();
}

export async function imageOfPhoto(
  db: Db,
  photoId: number,
  role: ImageRole,
): Promise<{ mediaType: string; bytes: Buffer } | undefined> {
  const row = await db
    .selectFrom('photoImage')
    .select(['mediaType', 'bytes'])
    .where('photoId', '=', photoId)
    .where('role', '=', role)
    .executeTakeFirst();
  return row;
}
