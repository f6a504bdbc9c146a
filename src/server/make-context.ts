import { BurnRunner } from '../app/burn-runner';
import type { AppContext } from '../app/context';
import { HeavyWork } from '../app/heavy-work';
import type { Log } from '../app/log';
import { ReadingQueue } from '../app/reading-queue';
import { openDatabase } from '../db/client';

export interface ContextOptions {
  readonly databaseUrl: string;
  readonly workerFile: URL | string;
  readonly log: Log;
  /** How many times faster than life the bench burns. */
  readonly paceFactor: number;
  /** Sides of the simulated camera's pictures, as a share of a usual camera's. */
  readonly cameraScale?: number;
  /** Threads that others use too, and whoever made them ends; without them the context has its own. */
  readonly work?: HeavyWork;
}

export function makeContext({
  databaseUrl,
  workerFile,
  log,
  paceFactor,
  cameraScale = 1,
  work = new HeavyWork(workerFile),
}: ContextOptions): AppContext {
  const db = openDatabase(databaseUrl, (error) => log.warn({ error: error.message }, 'a database connection was lost'));
  const now = (): Date => new Date();
  return {
    db,
    log,
    now,
    work,
    burns: new BurnRunner(db, log, now, paceFactor),
    readings: new ReadingQueue(db, work, log),
    cameraScale,
  };
}

/** Ends everything in order: no new readings, burns noted, threads ended (or what they read for this context read, where others use them), connections closed. */
export async function closeContext(ctx: AppContext, threads: 'ended' | 'kept' = 'ended'): Promise<void> {
  ctx.readings.stop();
  await ctx.burns.close();
  await (threads === 'ended' ? ctx.work.close() : ctx.readings.idle());
  await ctx.db.destroy();
}
