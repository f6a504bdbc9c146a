import * as burns from '../db/burns';
import type { BurnRecord } from '../records/burn';
import type { AppContext } from './context';
import { renewPace } from './pace';
import { notFound, Problem } from './problems';

export interface OwnBurnEnd {
  readonly status: 'done' | 'stopped';
  /** Seconds as a stopwatch showed them; null for what the clock here says. */
  readonly tookS: number | null;
}

async function ownBurn(ctx: AppContext, id: number): Promise<BurnRecord> {
  const burn = await burns.burnById(ctx.db, id);
  if (!burn) throw notFound('burn', id);
  if (burn.place !== 'own-machine')
    throw new Problem('burn-not-open', `Burn ${id} is the simulated bench’s: it keeps its own time.`);
  return burn;
}

/** Stops the clock of a burn on the operator's own machine. What was timed to the end calibrates that machine's estimates. */
export async function endOwnBurn(ctx: AppContext, id: number, { status, tookS }: OwnBurnEnd): Promise<BurnRecord> {
  const burn = await ownBurn(ctx, id);
  const at = ctx.now();
  const clockS = (at.getTime() - Date.parse(burn.startedAt)) / 1000;
  const ended = await burns.endOwnBurn(ctx.db, id, { status, actualS: tookS ?? clockS, at });
  if (!ended) throw new Problem('burn-not-open', `The clock of burn ${id} was stopped before.`, 'Its time stands.');
  if (status === 'done') await renewPace(ctx, burn.machineId);
  return (await burns.burnById(ctx.db, id))!;
}

/** Corrects the time of a burn on the operator's own machine; null for one that was not timed after all. */
export async function correctTime(ctx: AppContext, id: number, tookS: number | null): Promise<BurnRecord> {
  const burn = await ownBurn(ctx, id);
  if (!(await burns.correctTime(ctx.db, id, tookS)))
    throw new Problem('burn-not-open', `The clock of burn ${id} still runs.`, 'It goes on.');
  await renewPace(ctx, burn.machineId);
  return (await burns.burnById(ctx.db, id))!;
}
