import type { Db } from './client';

/** By how much a camera was found to bend tones, when two exposures told it last; null for one that was never checked. */
export async function bentByOfCamera(db: Db, name: string): Promise<number | null> {
  const row = await db.selectFrom('camera').select('bentBy').where('name', '=', name).executeTakeFirst();
  return row?.bentBy ?? null;
}

/** Notes what two exposures told of a camera. What they told before is over: phones change with their programs. */
export async function noteCamera(
  db: Db,
  camera: { readonly name: string; readonly bentBy: number; readonly readingId: number },
): Promise<void> {
  const { bentBy, readingId } = camera;
  await db
    .insertInto('camera')
    .values(camera)
    .onConflict((conflict) => conflict.column('name').doUpdateSet({ bentBy, readingId, checkedAt: new Date() }))
    .execute();
}
