import { parentPort } from 'node:worker_threads';
import sharp from 'sharp';
import { burnProgram, casualShot, jpegOf, photograph } from '../bench/bench';
import { flattened } from '../core/reading/flattened';
import { readCard } from '../core/reading/read-card';
import { openPhoto } from './open-photo';
import {
  PROTOCOL_VERSION,
  type Job,
  type PhotographAnswer,
  type PhotographJob,
  type ReadAnswer,
  type ReadJob,
  type ReadProgress,
} from './protocol';

// One decode at a time in this thread; the pool of threads is what runs side by side.
sharp.concurrency(1);

type Send = (progress: ReadProgress) => void;

async function read(job: ReadJob, send: Send): Promise<ReadAnswer> {
  const started = performance.now();
  send({ step: 'opening' });
  const opened = await openPhoto(job.bytes);
  const tookS = (): number => (performance.now() - started) / 1000;
  if (!opened.opened) return { outcome: 'unreadable', reason: opened.reason, previewJpeg: null, tookS: tookS() };
  const { photo, previewJpeg } = opened;
  const result = readCard({
    photo,
    layout: job.layout,
    stock: job.stock,
    corners: job.corners,
    onProgress: (step) => send({ step }),
  });
  if (result.outcome !== 'read') return { ...result, previewJpeg, tookS: tookS() };
  const { rectified, field, stockLinear, ...rest } = result;
  const level = flattened(rectified, field, stockLinear);
  const straightenedJpeg = await sharp(level.data, { raw: { width: level.width, height: level.height, channels: 3 } })
    .jpeg({ quality: 88 })
    .toBuffer();
  return { ...rest, straightenedJpeg, previewJpeg, tookS: tookS() };
}

async function takePhotograph(job: PhotographJob): Promise<PhotographAnswer> {
  const piece = burnProgram(job.program, job.lines, job.machine, job.sheet, job.place, job.burnSeed);
  return { jpeg: await jpegOf(photograph(piece, casualShot(job.shotSeed))) };
}

parentPort!.on('message', ({ id, job }: { id: number; job: Job }) => {
  if (job.version !== PROTOCOL_VERSION) {
    parentPort!.postMessage({ id, fault: `protocol version ${String(job.version)} is not ${PROTOCOL_VERSION}` });
    return;
  }
  const answer: Promise<ReadAnswer | PhotographAnswer> =
    job.task === 'read' ? read(job, (progress) => parentPort!.postMessage({ id, progress })) : takePhotograph(job);
  answer.then(
    (value) => parentPort!.postMessage({ id, answer: value }),
    (error: unknown) =>
      parentPort!.postMessage({ id, fault: error instanceof Error ? (error.stack ?? error.message) : String(error) }),
  );
});
