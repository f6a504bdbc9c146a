import { parentPort } from 'node:worker_threads';
import sharp from 'sharp';
import { PROTOCOL_VERSION, type Job } from './protocol';
import { TASKS } from './tasks';

// One decode at a time in this thread; the pool of threads is what runs side by side.
sharp.concurrency(1);

type AnyTask = (job: Job, send: (progress: unknown) => void) => Promise<unknown>;

parentPort!.on('message', ({ id, job }: { id: number; job: Job }) => {
  if (job.version !== PROTOCOL_VERSION) {
    parentPort!.postMessage({ id, fault: `protocol version ${String(job.version)} is not ${PROTOCOL_VERSION}` });
    return;
  }
  const task = TASKS[job.task] as AnyTask;
  task(job, (progress) => parentPort!.postMessage({ id, progress })).then(
    (answer) => parentPort!.postMessage({ id, answer }),
    (error: unknown) =>
      parentPort!.postMessage({ id, fault: error instanceof Error ? (error.stack ?? error.message) : String(error) }),
  );
});
