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
}

export function makeContext({ databaseUrl, workerFile, log, paceFactor, cameraScale = 1 }: ContextOptions): AppContext {
  const db = openDatabase(databaseUrl, (error) => log.warn({ error: error.message }, 'a database connection was lost'));
  const now = (): Date => new Date();
  const work = new HeavyWork(workerFile);
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

/** Ends everything in order: no new readings, burns noted, threads ended, connections closed. */
export async function closeContext(ctx: AppContext): Promise<void> {
  ctx.readings.stop();
  await ctx.burns.close();
  await ctx.work.close();
  await ctx.db.destroy();
}
