import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import { HeavyWork } from './heavy-work';

const ODD = new URL('../../tests/fixtures/odd-worker.mjs', import.meta.url);
let work = new HeavyWork(ODD, 2);
afterEach(async () => {
  await work.close();
  work = new HeavyWork(ODD, 2);
});

/** Jobs of the odd worker: it answers with the seed it is given, or misbehaves as that says. */
const photographBy = (pool: HeavyWork, shotSeed: string) =>
  pool.do('photograph', {
    burn: {} as never,
    shotSeed,
    scale: 1,
    stopsLess: 0,
    onSheet: null,
    litFrom: 'front',
    turned: false,
    cutOut: [],
  });
const photograph = (shotSeed: string) => photographBy(work, shotSeed);

describe('the pool of threads', () => {
  it('answers every job, more than there are threads, each its own', async () => {
    const answers = await Promise.all(['slow', 'a', 'b', 'slow', 'c', 'd'].map((seed) => photograph(seed)));
    expect(answers.map((answer) => answer.jpeg)).toEqual(['slow', 'a', 'b', 'slow', 'c', 'd']);
  });
  it('passes progress on', async () => {
    const steps: string[] = [];
    await work.do('read', { shotSeed: 'x' } as never, ({ step }) => steps.push(step));
    expect(steps).toEqual(['opening']);
  });
  it('passes on all that was said before the answer, in order', async () => {
    const said: string[] = [];
    await work.do('read', { shotSeed: 'many' } as never, ({ step }) => said.push(step));
    expect(said).toEqual([...Array.from({ length: 500 }, (_, index) => `step ${index}`), 'opening']);
  });
  it('passes progress on while the job goes on', async () => {
    let ended = false;
    let job: Promise<unknown> = Promise.resolve();
    const begun = await new Promise<string>((done) => {
      const tell = ({ step }: { step: string }): void => done(`${step}, ${ended ? 'ended' : 'going on'}`);
      job = work.do('read', { shotSeed: 'slow-after-word' } as never, tell).then(() => (ended = true));
    });
    expect(begun).toBe('begun, going on');
    await job;
  });
  it('fails the job whose thread reports a fault, and goes on', async () => {
    await expect(photograph('fault')).rejects.toThrow('as asked');
    expect((await photograph('next')).jpeg).toBe('next');
  });
  it('fails the job whose thread dies, and hires another thread', async () => {
    const dying = Promise.allSettled([photograph('die'), photograph('die')]);
    const waiting = photograph('after');
    expect((await dying).map((result) => result.status)).toEqual(['rejected', 'rejected']);
    expect((await waiting).jpeg).toBe('after');
  });
  it('fails jobs where no thread can be had, instead of letting them wait', async () => {
    const none = new HeavyWork(new URL('../../tests/fixtures/no-such-worker.mjs', import.meta.url), 2);
    const jobs = ['a', 'b', 'c'].map((seed) => photographBy(none, seed));
    for (const result of await Promise.allSettled(jobs)) expect(result.status).toBe('rejected');
    await expect(none.do('lay', {} as never)).rejects.toThrow(/no-such-worker/);
    await none.close();
  });
  it('fails them also where the last thread to go takes a job with it, after its replacements failed', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'never-ready-'));
    process.env['NEVER_READY_TRIED'] = join(folder, 'tried');
    const none = new HeavyWork(new URL('../../tests/fixtures/never-ready-worker.mjs', import.meta.url), 2);
    const jobs = ['a', 'b', 'c'].map((seed) => photographBy(none, seed));
    for (const result of await Promise.allSettled(jobs)) expect(result.status).toBe('rejected');
    await none.close();
    rmSync(folder, { recursive: true });
  });
  it('does what somebody waits for at the screen before readings and photos', async () => {
    // One thread, so that what is begun first ends first, however busy the machine is.
    const one = new HeavyWork(ODD, 1);
    const done: string[] = [];
    const note = (seed: string, answer: Promise<unknown>): Promise<unknown> => answer.then(() => done.push(seed));
    const long = ['slow', 'photo'].map((seed) => note(seed, one.do('photograph', { shotSeed: seed } as never)));
    const short = note('short', one.do('lay', { shotSeed: 'short' } as never));
    await Promise.all([...long, short]);
    expect(done).toEqual(['slow', 'short', 'photo']);
    await one.close();
  });
  it('fails what waits when it closes, and takes nothing more', async () => {
    const jobs = Promise.allSettled(['slow', 'slow', 'slow'].map((seed) => photograph(seed)));
    await work.close();
    for (const result of await jobs)
      expect(result).toMatchObject({ status: 'rejected', reason: { message: 'the server is stopping' } });
    await expect(photograph('late')).rejects.toThrow('the server is stopping');
  });
});
