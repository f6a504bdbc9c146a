import type { Db } from '../db/client';
import type { BurnRunner } from './burn-runner';
import type { HeavyWork } from './heavy-work';
import type { Log } from './log';
import type { ReadingQueue } from './reading-queue';

/** What use cases work with. Made once by the server (or by a test) and handed to every call. */
export interface AppContext {
  readonly db: Db;
  readonly log: Log;
  readonly now: () => Date;
  readonly work: HeavyWork;
  readonly burns: BurnRunner;
  readonly readings: ReadingQueue;
  /** Sides of the simulated camera's pictures, as a share of a usual camera's: small ones are quick. */
  readonly cameraScale: number;
}

const KEY = Symbol.for('glass-ladder.context');

/** The server's context, for pages: they are bundled apart from the server and find it here. */
export function currentContext(): AppContext {
  const context = (globalThis as Record<symbol, unknown>)[KEY] as AppContext | undefined;
  if (!context) throw new Error('missing server context: start the application with npm start');
  return context;
}

export function setCurrentContext(context: AppContext): void {
  (globalThis as Record<symbol, unknown>)[KEY] = context;
}
