import sharp from 'sharp';
import { PROTOCOL_VERSION, type Job, type WorkOrder } from './protocol';
import { TASKS } from './tasks';

// One decode at a time in this thread; the pool of threads is what runs side by side.
sharp.concurrency(1);

type AnyTask = (job: Job, send: (progress: unknown) => void) => Promise<unknown>;

/** Does one job of the pool; what it throws fails that job alone. */
export default function work({ job, progress }: WorkOrder): Promise<unknown> {
  if (job.version !== PROTOCOL_VERSION)
    throw new Error(`protocol version ${String(job.version)} is not ${PROTOCOL_VERSION}`);
  const task = TASKS[job.task] as AnyTask;
  return task(job, (said) => progress.postMessage(said));
}
