import { Worker } from 'node:worker_threads';
import { PROTOCOL_VERSION, type Job, type Jobs, type Task } from '../workers/protocol';

interface Waiting {
  readonly job: Job;
  readonly onProgress: ((progress: never) => void) | undefined;
  readonly resolve: (answer: never) => void;
  readonly reject: (error: Error) => void;
}

interface Message {
  readonly id: number;
  readonly progress?: unknown;
  readonly answer?: unknown;
  readonly fault?: string;
}

/** A job without the words that every job has. */
type Work<Name extends Task> = Omit<Jobs[Name]['job'], 'version' | 'task'>;

/**
 * Worker threads for what would hold up requests: laying and exporting cards, reading photos, and the bench. Jobs wait in one line and
 * each thread takes one at a time. A thread that dies fails its job and is replaced.
 */
export class HeavyWork {
  private readonly line: Waiting[] = [];
  private readonly idle: Worker[] = [];
  private readonly busy = new Map<Worker, Waiting>();
  private threads = 0;
  private closed = false;

  constructor(
    private readonly workerFile: URL | string,
    private readonly mostThreads = 2,
  ) {}

  /** Does one job in a thread. Short work for somebody who waits at the screen goes before readings and photos. */
  do<Name extends Task>(
    task: Name,
    work: Work<Name>,
    onProgress?: (progress: Jobs[Name]['progress']) => void,
  ): Promise<Jobs[Name]['answer']> {
    if (this.closed) return Promise.reject(new Error('the server is stopping'));
    const job = { version: PROTOCOL_VERSION, task, ...work } as unknown as Job;
    return new Promise((resolve, reject) => {
      const waiting = { job, onProgress: onProgress as Waiting['onProgress'], resolve: resolve as never, reject };
      const short = task === 'lay' || task === 'program' || task === 'export' || task === 'pace';
      const firstLong = this.line.findIndex(({ job: other }) => other.task === 'read' || other.task === 'photograph');
      if (short && firstLong >= 0) this.line.splice(firstLong, 0, waiting);
      else this.line.push(waiting);
      this.next();
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    const stopping = new Error('the server is stopping');
    for (const waiting of this.line.splice(0)) waiting.reject(stopping);
    const workers = [...this.idle, ...this.busy.keys()];
    for (const waiting of this.busy.values()) waiting.reject(stopping);
    this.busy.clear();
    await Promise.all(workers.map((worker) => worker.terminate()));
  }

  private next(): void {
    if (this.line.length === 0) return;
    const worker = this.idle.pop() ?? (this.threads < this.mostThreads ? this.hire() : undefined);
    if (!worker) return;
    const waiting = this.line.shift()!;
    this.busy.set(worker, waiting);
    worker.postMessage({ id: 0, job: waiting.job });
  }

  private hire(): Worker {
    this.threads++;
    const worker = new Worker(this.workerFile);
    worker.unref();
    worker.on('message', (message: Message) => {
      const waiting = this.busy.get(worker);
      if (message.progress !== undefined) return waiting?.onProgress?.(message.progress as never);
      this.busy.delete(worker);
      this.idle.push(worker);
      if (message.fault !== undefined) waiting?.reject(new Error(message.fault));
      else waiting?.resolve(message.answer as never);
      this.next();
    });
    const lost = (error: Error): void => {
      const waiting = this.busy.get(worker);
      const place = this.idle.indexOf(worker);
      if (!waiting && place < 0) return;
      this.busy.delete(worker);
      if (place >= 0) this.idle.splice(place, 1);
      this.threads--;
      waiting?.reject(error);
      this.next();
    };
    worker.on('error', lost);
    worker.on('exit', (code) => lost(new Error(`a worker thread ended with ${code}`)));
    return worker;
  }
}
