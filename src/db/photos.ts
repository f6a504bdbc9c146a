import type { Point } from '../core/geometry/point';
import type { CellReading, Doubt } from '../core/reading/observations';
import type { ImageRole, PhotoDetail, PhotoRecord, PhotoStatus, ReadingRecord } from '../records/photo';
import type { Db } from './client';

export type NewPhoto = Omit<PhotoRecord, 'id' | 'status' | 'detail' | 'corners' | 'revision' | 'createdAt'>;

const photos = (db: Db) => db.selectFrom('photo').selectAll();
type PhotoRow = Awaited<ReturnType<ReturnType<typeof photos>['execute']>>[number];

const photoOf = (row: PhotoRow): PhotoRecord => ({
  id: row.id,
  cardId: row.card_id,
  origin: row.origin,
  fileName: row.file_name,
  mediaType: row.media_type,
  byteCount: row.byte_count,
  widthPx: row.width_px,
  heightPx: row.height_px,
  sha256: row.sha256,
  status: row.status,
  detail: row.detail,
  corners: row.corners,
  finish: row.finish,
  revision: row.revision,
  createdAt: row.created_at.toISOString(),
});

/** To be called in a transaction: photo and bytes belong together. Null when the card has this very photo already. */
export async function insertPhoto(db: Db, photo: NewPhoto, bytes: Buffer): Promise<number | null> {
  const row = await db
    .insertInto('photo')
    .values({
      card_id: photo.cardId,
      origin: photo.origin,
      file_name: photo.fileName,
      media_type: photo.mediaType,
      byte_count: photo.byteCount,
      width_px: photo.widthPx,
      height_px: photo.heightPx,
      sha256: photo.sha256,
      status: 'waiting',
      detail: '{}',
      corners: 'null',
      finish: photo.finish,
    })
    .onConflict((conflict) => conflict.columns(['card_id', 'sha256']).doNothing())
    .returning('id')
    .executeTakeFirst();
  if (!row) return null;
  await putImage(db, row.id, 'original', photo.mediaType, bytes);
  return row.id;
}

export async function photoById(db: Db, id: number): Promise<PhotoRecord | undefined> {
  const row = await photos(db).where('id', '=', id).executeTakeFirst();
  return row && photoOf(row);
}

export async function photoOfCardByHash(db: Db, cardId: number, sha256: string): Promise<PhotoRecord | undefined> {
  const row = await photos(db).where('card_id', '=', cardId).where('sha256', '=', sha256).executeTakeFirst();
  return row && photoOf(row);
}

export async function photosOfCard(db: Db, cardId: number): Promise<PhotoRecord[]> {
  return (await photos(db).where('card_id', '=', cardId).orderBy('id', 'desc').execute()).map(photoOf);
}

export async function setPhotoStatus(db: Db, id: number, status: PhotoStatus, detail: PhotoDetail = {}): Promise<void> {
  await db
    .updateTable('photo')
    .set({ status, detail: JSON.stringify(detail) })
    .where('id', '=', id)
    .execute();
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
      ...(change.cardId === undefined ? {} : { card_id: change.cardId }),
    }))
    .where('id', '=', id)
    .execute();
}

/** Whether a photo is still at the revision that a reading was begun for; its row is locked until the transaction ends. */
export async function isAtRevision(db: Db, id: number, revision: number): Promise<boolean> {
  const row = await db.selectFrom('photo').select('revision').where('id', '=', id).forUpdate().executeTakeFirst();
  return row?.revision === revision;
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
    .insertInto('photo_image')
    .values({ photo_id: photoId, role, media_type: mediaType, bytes })
    .onConflict((conflict) => conflict.columns(['photo_id', 'role']).doUpdateSet({ media_type: mediaType, bytes }))
    .execute();
}

export async function imageOfPhoto(
  db: Db,
  photoId: number,
  role: ImageRole,
): Promise<{ mediaType: string; bytes: Buffer } | undefined> {
  const row = await db
    .selectFrom('photo_image')
    .select(['media_type', 'bytes'])
    .where('photo_id', '=', photoId)
    .where('role', '=', role)
    .executeTakeFirst();
  return row && { mediaType: row.media_type, bytes: row.bytes };
}

export interface NewReading {
  readonly photoId: number;
  readonly cardId: number;
  readonly toPhoto: readonly number[];
  readonly markers: number;
  readonly frameErrorMm: number;
  readonly photoPxPerMm: number;
  readonly alsoSeen: readonly number[];
  readonly tookS: number;
  readonly cells: readonly CellReading[];
}

/** To be called in a transaction. */
export async function insertReading(db: Db, reading: NewReading): Promise<number> {
  const { id } = await db
    .insertInto('reading')
    .values({
      photo_id: reading.photoId,
      card_id: reading.cardId,
      to_photo: JSON.stringify(reading.toPhoto),
      markers: reading.markers,
      frame_error_mm: reading.frameErrorMm,
      photo_px_per_mm: reading.photoPxPerMm,
      also_seen: JSON.stringify(reading.alsoSeen),
      took_s: reading.tookS,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  await db
    .insertInto('cell_reading')
    .values(
      reading.cells.map((cell) => ({
        reading_id: id,
        cell_index: cell.cellIndex,
        lightness: cell.lightness,
        delta_lightness: cell.deltaLightness,
        spread: cell.spread,
        line_visibility: cell.lineVisibility,
        edge_halo: cell.edgeHalo,
        clipped_share: cell.clippedShare,
        edge_width_mm: cell.edgeWidthMm,
        lightness_sigma: cell.lightnessSigma,
        confidence: cell.confidence,
        doubts: [...cell.doubts],
        colour: cell.colour,
      })),
    )
    .execute();
  return id;
}

/** The newest reading of a card, with its cells in order. */
export async function newestReading(db: Db, cardId: number): Promise<ReadingRecord | undefined> {
  const row = await db
    .selectFrom('reading')
    .selectAll()
    .where('card_id', '=', cardId)
    .orderBy('id', 'desc')
    .executeTakeFirst();
  if (!row) return undefined;
  const cells = await db
    .selectFrom('cell_reading')
    .selectAll()
    .where('reading_id', '=', row.id)
    .orderBy('cell_index')
    .execute();
  return {
    id: row.id,
    photoId: row.photo_id,
    cardId: row.card_id,
    markers: row.markers,
    frameErrorMm: row.frame_error_mm,
    photoPxPerMm: row.photo_px_per_mm,
    alsoSeen: row.also_seen,
    tookS: row.took_s,
    createdAt: row.created_at.toISOString(),
    cells: cells.map((cell) => ({
      cellIndex: cell.cell_index,
      lightness: cell.lightness,
      deltaLightness: cell.delta_lightness,
      spread: cell.spread,
      lineVisibility: cell.line_visibility,
      edgeHalo: cell.edge_halo,
      clippedShare: cell.clipped_share,
      edgeWidthMm: cell.edge_width_mm,
      lightnessSigma: cell.lightness_sigma,
      confidence: cell.confidence,
      doubts: cell.doubts as Doubt[],
      colour: cell.colour,
    })),
  };
}
