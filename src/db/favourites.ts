import type { BasePlan } from '../core/card/contract';
import type { FavouriteRecord } from '../records/favourite';
import type { Db } from './client';

export async function listFavourites(db: Db, kind: string | null = null): Promise<FavouriteRecord[]> {
  let query = db.selectFrom('favourite').selectAll().orderBy('name');
  if (kind !== null) query = query.where('kind', '=', kind);
  return (await query.execute()).map((row) => ({
    id: row.id,
    name: row.name,
    kind: row.kind,
    plan: row.plan as BasePlan,
    createdAt: row.createdAt.toISOString(),
  }));
}

export async function insertFavourite(
  db: Db,
  favourite: { name: string; kind: string; plan: BasePlan },
): Promise<number> {
  const row = { name: favourite.name, kind: favourite.kind, plan: JSON.stringify(favourite.plan) };
  return (await db.insertInto('favourite').values(row).returning('id').executeTakeFirstOrThrow()).id;
}

export async function removeFavourite(db: Db, id: number): Promise<boolean> {
  return (await db.deleteFrom('favourite').where('id', '=', id).executeTakeFirst()).numDeletedRows === 1n;
}
