import { isCardKind, storedPlan } from '../cards/registry';
import type { BasePlan } from '../core/card/contract';
import { brokenConstraint } from '../db/client';
import * as favourites from '../db/favourites';
import type { FavouriteRecord } from '../records/favourite';
import type { AppContext } from './context';
import { once } from './once';
import { notFound, Problem } from './problems';

/** Favourites of a kind, or all, their plans brought up to the versions in use. Kinds that are gone are left out. */
export async function getFavourites({ db }: AppContext, kind: string | null = null): Promise<FavouriteRecord[]> {
  const all = await favourites.listFavourites(db, kind);
  return all
    .filter((favourite) => isCardKind(favourite.kind))
    .map((favourite) => ({ ...favourite, plan: storedPlan(favourite.kind, favourite.plan) }));
}

/** Keeps a plan under a name of its kind. */
export async function keepFavourite(
  ctx: AppContext,
  favourite: { name: string; kind: string; plan: BasePlan },
  key?: string,
): Promise<{ id: number }> {
  try {
    return await once(ctx, key, 'keep-favourite', async (tx) => ({
      id: await favourites.insertFavourite(tx, favourite),
    }));
  } catch (error) {
    if (brokenConstraint(error) !== 'favourite_name') throw error;
    throw new Problem('name-taken', `There is a favourite named “${favourite.name}” already.`, 'Nothing was changed.', [
      { field: 'name', message: 'This name is in use.' },
    ]);
  }
}

/** Takes a plan off the favourites. Cards that were made of it stay. */
export async function dropFavourite({ db }: AppContext, id: number): Promise<void> {
  if (!(await favourites.removeFavourite(db, id))) throw notFound('favourite', id);
}
