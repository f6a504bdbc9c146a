import { paceOf } from '../core/book/motion-facts';
import type { Pace } from '../core/motion/pace';
import * as burns from '../db/burns';
import { cardById } from '../db/cards';
import { machineById } from '../db/machines';
import type { OpenPairing } from '../records/pairing';
import type { AppContext } from './context';
import { knownOf } from './known';
import { notFound } from './problems';
import { keepPace } from './record-facts';
import { scopeAt } from './scope';

/** The newest timed burns that a machine's pace stands on: older ones may be of another belt and another firmware. */
const NEWEST = 40;

/** How estimates are made for a pairing now. */
export async function paceNow(ctx: AppContext, pairing: OpenPairing): Promise<Pace> {
  return paceOf((await knownOf(ctx, pairing)).facts);
}

/**
 * Works a machine's pace out of its timed burns and keeps it in the book when it says anything new. Called whenever a time is logged or
 * corrected, and when the machine's record changes: times are compared with what the record now says.
 */
export async function renewPace(ctx: AppContext, machineId: number): Promise<void> {
  const record = await machineById(ctx.db, machineId);
  if (!record) throw notFound('machine', machineId);
  const { id: _id, lenses: _lenses, retired: _retired, ...machine } = record;
  const timed = await burns.timedBurnsOfMachine(ctx.db, machineId, NEWEST);
  const told = await Promise.all(
    timed.map(async (burn) => {
      const card = (await cardById(ctx.db, burn.cardId))!;
      const earlier = (await burns.burnsOfCard(ctx.db, burn.cardId)).filter((other) => other.id < burn.id);
      const scope = scopeAt(burn.cells, earlier);
      return { layout: card.layout, machine: card.madeFor.machine, scope, tookS: burn.actualS! };
    }),
  );
  const pace = await ctx.work.do('pace', { machine, burns: told });
  await ctx.db.transaction().execute((tx) => keepPace(tx, machineId, pace, machine));
}
