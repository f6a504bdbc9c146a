import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import sharp from 'sharp';
import { PROTOCOL_VERSION, type Job, type WorkOrder } from './protocol';
import { TASKS } from './tasks';

// One decode at a time in this thread; the pool of threads is what runs side by side.
sharp.concurrency(1);
// No photo is opened twice: kept pictures would only take memory.
sharp.cache(false);

// What a photo took is given back once it is read, and not when the next one needs it: a fortieth of the time, and a sixth of the server's memory.
setFlagsFromString('--expose-gc');
const collectGarbage = runInNewContext('gc') as () => void;

type AnyTask = (job: Job, send: (progress: unknown) => void) => Promise<unknown>;

/** Does one job of the pool; what it throws fails that job alone. */
export default async function work({ job, progress }: WorkOrder): Promise<unknown> {
  if (job.version !== PROTOCOL_VERSION)
    throw new Error(`protocol version ${String(job.version)} is not ${PROTOCOL_VERSION}`);
  const task = TASKS[job.task] as AnyTask;
  try {
    return await task(job, (said) => progress.postMessage(said));
  } finally {
    if (job.task === 'read') collectGarbage();
  }
}
