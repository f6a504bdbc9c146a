import { afterEach, describe, expect, it } from 'vitest';
import { PROTOCOL_VERSION, type PhotographJob, type ReadJob } from '../workers/protocol';
import { HeavyWork } from './heavy-work';

const ODD = new URL('../../tests/fixtures/odd-worker.mjs', import.meta.url);
let work = new HeavyWork(ODD, 2);
afterEach(async () => {
  await work.close();
  work = new HeavyWork(ODD, 2);
});

const job = (burnSeed: string) =>
  ({ version: PROTOCOL_VERSION, task: 'photograph', burnSeed }) as unknown as PhotographJob;

describe('the pool of threads', () => {
  it('answers every job, more than there are threads, each its own', async () => {
    const answers = await Promise.all(['slow', 'a', 'b', 'slow', 'c', 'd'].map((seed) => work.photograph(job(seed))));
    expect(answers.map((answer) => answer.jpeg)).toEqual(['slow', 'a', 'b', 'slow', 'c', 'd']);
  });
  it('passes progress on', async () => {
    const steps: string[] = [];
    await work.read(job('x') as unknown as ReadJob, ({ step }) => steps.push(step));
    expect(steps).toEqual(['opening']);
  });
  it('fails the job whose thread reports a fault, and goes on', async () => {
    await expect(work.photograph(job('fault'))).rejects.toThrow('as asked');
    expect((await work.photograph(job('next'))).jpeg).toBe('next');
  });
  it('fails the job whose thread dies, and hires another thread', async () => {
    const dying = Promise.allSettled([work.photograph(job('die')), work.photograph(job('die'))]);
    const waiting = work.photograph(job('after'));
    expect((await dying).map((result) => result.status)).toEqual(['rejected', 'rejected']);
    expect((await waiting).jpeg).toBe('after');
  });
  it('fails what waits when it closes, and takes nothing more', async () => {
    const jobs = Promise.allSettled(['slow', 'slow', 'slow'].map((seed) => work.photograph(job(seed))));
    await work.close();
    for (const result of await jobs)
      expect(result).toMatchObject({ status: 'rejected', reason: { message: 'the server is stopping' } });
    await expect(work.photograph(job('late'))).rejects.toThrow('the server is stopping');
  });
});
