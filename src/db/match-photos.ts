import type { MatchPhoto } from '../records/match-photo';
import type { Db } from './client';

const SHOWN = ['id', 'fileName', 'widthPx', 'heightPx', 'pxPerMm', 'createdAt'] as const;

const recordOf = <Row extends { readonly createdAt: Date }>({ createdAt, ...row }: Row) => ({
  ...row,
  createdAt: createdAt.toISOString(),
});

/** Keeps a photo; one that is there already is not kept twice. Returns its id. */
export async function insertMatchPhoto(
  db: Db,
  photo: Omit<MatchPhoto, 'id' | 'createdAt'> & { mediaType: string; bytes: Buffer; preview: Buffer; sha256: string },
): Promise<number> {
  const made = await db
    .insertInto('matchPhoto')
    .values(photo)
    .onConflict((conflict) => conflict.column('sha256').doNothing())
    .returning('id')
    .executeTakeFirst();
  if (made) return made.id;
  const there = db.selectFrom('matchPhoto').select('id').where('sha256', '=', photo.sha256);
  return (await there.executeTakeFirstOrThrow()).id;
}

export async function matchPhotoById(db: Db, id: number): Promise<MatchPhoto | undefined> {
  const row = await db.selectFrom('matchPhoto').select(SHOWN).where('id', '=', id).executeTakeFirst();
  return row && recordOf(row);
}

/** The newest photos, newest first. */
export async function newestMatchPhotos(db: Db, most: number): Promise<MatchPhoto[]> {
  return (await db.selectFrom('matchPhoto').select(SHOWN).orderBy('id', 'desc').limit(most).execute()).map(recordOf);
}

/** The photo as it was sent, and a smaller JPEG of it, upright. */
export async function imagesOfMatchPhoto(db: Db, id: number): Promise<{ bytes: Buffer; preview: Buffer } | undefined> {
  return db.selectFrom('matchPhoto').select(['bytes', 'preview']).where('id', '=', id).executeTakeFirst();
}
