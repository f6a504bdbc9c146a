import { fileURLToPath } from 'node:url';
import { MessageChannel, receiveMessageOnPort, type MessagePort } from 'node:worker_threads';
import { ArrayTaskQueue, Piscina, queueOptionsSymbol, type PiscinaTask, type TaskQueue } from 'piscina';
import { PROTOCOL_VERSION, type Job, type Jobs, type Task, type WorkOrder } from '../workers/protocol';

/** A job without the words that every job has. */
type Work<Name extends Task> = Omit<Jobs[Name]['job'], 'version' | 'task'>;

/** What somebody waits for at the screen. */
const SHORT: ReadonlySet<Task> = new Set<Task>(['lay', 'program', 'export', 'pace']);

/** Two lines: short work goes before readings and photos. */
class ShortFirst implements TaskQueue {
  private readonly short = new ArrayTaskQueue();
  private readonly long = new ArrayTaskQueue();

  get size(): number {
    return this.short.size + this.long.size;
  }
  push(task: PiscinaTask): void {
    this.lineOf(task).push(task);
  }
  unshift(task: PiscinaTask): void {
    this.lineOf(task).unshift(task);
  }
  shift(): PiscinaTask | null {
    return (this.short.size > 0 ? this.short : this.long).shift() as PiscinaTask | null;
  }
  remove(task: PiscinaTask): void {
    this.lineOf(task).remove(task);
  }
  private lineOf(task: PiscinaTask): ArrayTaskQueue {
    return (task[queueOptionsSymbol] as { readonly short: boolean } | null)?.short ? this.short : this.long;
  }
}

const stopping = (): Error => new Error('the server is stopping');

/**
 * Worker threads for what would hold up requests: laying and exporting cards, reading photos, and the bench. Each thread takes one job at
 * a time; one that dies fails its job and is replaced.
 */
export class HeavyWork {
  private readonly pool: Piscina;
  private readonly waiting = new Set<(error: unknown) => void>();
  private closed = false;

  constructor(workerFile: URL | string, mostThreads = 2) {
    this.pool = new Piscina({
      filename: workerFile instanceof URL ? fileURLToPath(workerFile) : workerFile,
      // All of them from the start: a thread takes a third of a second to load what it works with, and only this many are kept up.
      minThreads: mostThreads,
      maxThreads: mostThreads,
      // Or what finds no thread free would go to the end of its line.
      stricterFIFO: true,
      // Decoders answer in events, which a thread that waits without its event loop would not see.
      atomics: 'disabled',
      taskQueue: new ShortFirst(),
      // The pool would fetch the file by `require`, and Node.js 20 brings the whole server down where a thread is ended amid that; without it, it imports.
      execArgv: [...process.execArgv, '--no-experimental-require-module'],
    });
    // A thread that died without a job of its own.
    this.pool.on('error', (error: Error) => this.failWhereNoThreadIsLeft(error));
  }

  /** Where a thread died and none is left, not even a new one, what waits would wait for ever. */
  private failWhereNoThreadIsLeft(error: unknown): void {
    if (this.pool.threads.length === 0) for (const fail of this.waiting) fail(error);
  }

  /** Does one job in a thread. Short work for somebody who waits at the screen goes before readings and photos. */
  async do<Name extends Task>(
    task: Name,
    work: Work<Name>,
    onProgress?: (progress: Jobs[Name]['progress']) => void,
  ): Promise<Jobs[Name]['answer']> {
    if (this.closed) throw stopping();
    const job = { version: PROTOCOL_VERSION, task, ...work } as unknown as Job;
    const { port1: here, port2: there } = new MessageChannel();
    if (onProgress) here.on('message', onProgress);
    const order: WorkOrder = { job, progress: there };
    try {
      const queued = { ...order, [queueOptionsSymbol]: { short: SHORT.has(task) } };
      const answer = (await this.run(queued, there)) as Jobs[Name]['answer'];
      // The answer comes by another way, and can be here before the last that was said on this one.
      for (let said = receiveMessageOnPort(here); said; said = receiveMessageOnPort(here))
        onProgress?.(said.message as Jobs[Name]['progress']);
      return answer;
    } catch (error) {
      throw this.closed ? stopping() : error;
    } finally {
      here.close();
    }
  }

  private run(queued: object, there: MessagePort): Promise<unknown> {
    return new Promise((resolve, reject) => {
      this.waiting.add(reject);
      void this.pool
        .run(queued, { transferList: [there] })
        .then(resolve, (error: unknown) => {
          reject(error);
          this.failWhereNoThreadIsLeft(error);
        })
        .finally(() => this.waiting.delete(reject));
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.pool.destroy();
  }
}
