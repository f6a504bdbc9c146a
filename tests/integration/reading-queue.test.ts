import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { HeavyWork } from '../../src/app/heavy-work';
import type { Log } from '../../src/app/log';
import { ReadingQueue } from '../../src/app/reading-queue';
import { imageOfPhoto, insertPhoto, photoById, requeuePhoto, setLeftOut, setPhotoStatus } from '../../src/db/photos';
import type { Exposure } from '../../src/core/reading/tone/exposure';
import type { ReadAnswer, ReadProgress } from '../../src/workers/protocol';
import { query, testApp, type TestApp } from '../support/context';
import { makeCard, makePairing } from '../support/records';
import { readingOf } from '../../stand-ins/made-up-reading';
import { points } from '../../tests/support/points';
import { tuples } from '../support/tuples';

let app: TestApp;
let cardId: number;
let shot = 0;
const said: { level: string; about: any }[] = [];
const log = {
  info: (about: object) => said.push({ level: 'info', about }),
  error: (about: object) => said.push({ level: 'error', about }),
} as unknown as Log;

beforeAll(async () => {
  app = await testApp();
  const { pairingId } = await makePairing(app, 'heron', 'birch');
  cardId = (await makeCard(app, pairingId)).id;
});
afterAll(() => app.close());
beforeEach(() => void (said.length = 0));

/** A photo in line, its bytes of no account: what reads them here only says what it is told to. */
async function photo(exposure: Exposure | null = null): Promise<number> {
  const bytes = Buffer.from(`photo ${shot++}`);
  const id = await insertPhoto(
    app.ctx.db,
    {
      cardId,
      origin: 'upload',
      fileName: 'a.jpg',
      mediaType: 'image/jpeg',
      byteCount: bytes.length,
      widthPx: 900,
      heightPx: 700,
      sha256: bytes.toString('hex'),
      finish: null,
      litFrom: 'front',
      exposure,
    },
    bytes,
  );
  return id!;
}
type Read = (
  job: { bytes: Uint8Array; corners: unknown; second: unknown },
  tell: (progress: ReadProgress) => void,
) => Promise<ReadAnswer>;
const reading = (read: Read): ReadingQueue => {
  const work = { do: (_task: string, job: never, tell: never) => read(job, tell) } as unknown as HeavyWork;
  return new ReadingQueue(app.ctx.db, work, log);
};
const answer = (outcome: string, more: object = {}): ReadAnswer =>
  ({ outcome, tookS: 0.5, previewJpeg: null, ...more }) as unknown as ReadAnswer;
const CELL = { ...readingOf(2), doubts: ['blurred'], hue: { a: -1.5, b: 2, sigma: 0.6 }, colour: '#123456' };
const FAULT = { fault: 'reflection', amount: 0.1, area: { x: 1, y: 2, width: 3, height: 4 }, line: null, cells: [2] };
const READ = answer('read', {
  cells: [CELL],
  toPhoto: [1, 0, 0, 0, 1, 0, 0, 0, 1],
  markers: 4,
  frameErrorMm: 0.02,
  photoPxPerMm: 12,
  alsoSeen: [9],
  tones: { told: 'by-one-photo', cameraIsTrue: true },
  faults: [FAULT],
  previewJpeg: Buffer.from('small'),
  straightenedJpeg: Buffer.from('straight'),
});
const stored = async (id: number) => {
  const { status, detail } = (await photoById(app.ctx.db, id))!;
  return { status, detail };
};

describe('the line of photos', () => {
  it.each([
    [answer('other-card', { cardNumber: 12 }), { status: 'other-card', detail: { cardNumbers: [12] } }],
    [answer('several-cards', { cardNumbers: [3, 4] }), { status: 'several-cards', detail: { cardNumbers: [3, 4] } }],
    [answer('needs-corners', { markers: 2 }), { status: 'needs-corners', detail: { markers: 2 } }],
    [answer('unreadable', { reason: 'too-dark' }), { status: 'unreadable', detail: { reason: 'too-dark' } }],
  ] as const)('keeps what came of each, %#', async (came, kept) => {
    const id = await photo();
    const queue = reading(() => Promise.resolve(came));
    queue.add(id);
    await queue.idle();
    expect(await stored(id)).toEqual(kept);
    expect(said).toEqual([{ level: 'info', about: { photoId: id, outcome: came.outcome, tookS: 0.5, stored: true } }]);
  });
  it('keeps a reading with its pictures and cells', async () => {
    const id = await photo();
    const queue = reading(() => Promise.resolve(READ));
    queue.add(id);
    await queue.idle();
    const { json } = await app.call('GET', `/api/cards/${cardId}`);
    expect(json.reading).toMatchObject({
      photoId: id,
      markers: 4,
      frameErrorMm: 0.02,
      photoPxPerMm: 12,
      alsoSeen: [9],
      tookS: 0.5,
      cells: [CELL],
      faults: [FAULT],
    });
    for (const [role, text] of tuples(['preview', 'small'], ['straightened', 'straight'])) {
      const image = await app.call('GET', `/api/photos/${id}/images/${role}`);
      expect(image.json).toBe(text);
      expect(image.response.headers.get('content-type')).toBe('image/jpeg');
    }
  });
  it('reads two at once and each once, and tells how far each is and which place in line it has', async () => {
    const ids = [await photo(), await photo(), await photo(), await photo()];
    const begun = new Map<number, { tell: (progress: ReadProgress) => void; end: () => void }>();
    const first = Number(
      Buffer.from((await imageOfPhoto(app.ctx.db, ids[0]!, 'original'))!.bytes)
        .toString()
        .split(' ')[1],
    );
    const queue = reading(
      (job, tell) =>
        new Promise((resolve) => {
          // Its bytes say which photo it is: of two that begin at once either may come first.
          const turn = Number(Buffer.from(job.bytes).toString().split(' ')[1]) - first;
          begun.set(turn, { tell, end: () => resolve(answer('needs-corners', { markers: 0 })) });
        }),
    );
    const places = () => ids.map((id) => queue.placeOf(id));
    for (const id of [...ids, ids[3]!, ids[0]!]) queue.add(id);
    expect(places()).toEqual([null, null, 1, 2]);
    await expect.poll(() => begun.size).toBe(2);
    begun.get(0)!.tell({ step: 'straightening' });
    expect(ids.map((id) => queue.stepOf(id))).toEqual(['straightening', 'waiting', 'waiting', 'waiting']);
    begun.get(1)!.end();
    await expect.poll(() => begun.size).toBe(3);
    expect(places()).toEqual([null, null, null, 1]);
    begun.get(2)!.end();
    await expect.poll(() => begun.size).toBe(4);
    begun.get(0)!.end();
    begun.get(3)!.end();
    await queue.idle();
    // The first was asked for again while it was read; by then nothing of it was left to read.
    expect(begun.size).toBe(4);
    expect([...places(), ...ids.map((id) => queue.stepOf(id))]).toEqual(Array.from({ length: 8 }, () => null));
  });
  it('takes no more photos in than it can read in minutes', async () => {
    const queue = reading(() => new Promise(() => undefined));
    expect(queue.isFull).toBe(false);
    // Two are read, sixty wait.
    for (let id = 1; id <= 61; id++) queue.add(900_000 + id);
    expect(queue.isFull).toBe(false);
    queue.add(900_100);
    expect(queue.isFull).toBe(true);
    queue.stop();
  });
  it('goes on with what an earlier server did not get to, and with nothing that is done', async () => {
    await query(app.databaseUrl, `update photo set status = 'read' where status in ('waiting', 'reading')`);
    const [begun, done] = [await photo(), await photo()];
    await setPhotoStatus(app.ctx.db, begun, 'reading');
    await setPhotoStatus(app.ctx.db, done, 'unreadable', { reason: 'damaged' });
    const seen: string[] = [];
    const queue = reading((job) => {
      seen.push(Buffer.from(job.bytes).toString());
      return Promise.resolve(answer('needs-corners', { markers: 1 }));
    });
    expect(await queue.resume()).toBe(1);
    queue.add(done);
    queue.add(987_654);
    await queue.idle();
    expect(seen).toHaveLength(1);
    expect((await stored(begun)).status).toBe('needs-corners');
    expect(await stored(done)).toEqual({ status: 'unreadable', detail: { reason: 'damaged' } });
  });
  it('reads again what was asked for anew meanwhile, and keeps nothing of the first reading', async () => {
    const id = await photo();
    const corners = points([1, 2], [3, 2], [3, 5], [1, 5]);
    const told: unknown[] = [];
    const queue = reading(async (job) => {
      told.push(job.corners);
      if (told.length === 1) await requeuePhoto(app.ctx.db, id, { corners });
      return answer('unreadable', { reason: told.length === 1 ? 'too-dark' : 'bad-corners' });
    });
    queue.add(id);
    await queue.idle();
    expect(told).toEqual([null, corners]);
    expect(await stored(id)).toEqual({ status: 'unreadable', detail: { reason: 'bad-corners' } });
    expect(said.map(({ about }) => about.stored)).toEqual([false, true]);
  });
  it('reads the brighter photo right before a darker one again with it, but none over a newer photo', async () => {
    const exposed = (biasStops: number): Exposure => ({
      camera: 'Pond one',
      timeS: 2 ** biasStops / 60,
      iso: 100,
      fNumber: 2,
      biasStops,
    });
    const turns = async (
      meanwhile: 'nothing' | 'a newer photo' | 'left aside',
    ): Promise<(readonly [text: string, byTwo: boolean])[]> => {
      const seen: (readonly [string, boolean])[] = [];
      const queue = reading((job) => {
        seen.push([Buffer.from(job.bytes).toString(), job.second !== null]);
        return Promise.resolve(READ);
      });
      const ids = [await photo(exposed(0))];
      queue.add(ids[0]!);
      await queue.idle();
      ids.push(await photo(exposed(-2)));
      if (meanwhile === 'a newer photo') await photo();
      if (meanwhile === 'left aside') await setLeftOut(app.ctx.db, ids[0]!, true);
      queue.add(ids[1]!);
      await queue.idle();
      // Photos are counted on through the file: told here from the first of them on.
      const first = Number(/\d+/.exec(seen[0]![0])![0]);
      await query(app.databaseUrl, `update photo set exposure = null`);
      return seen.map(([text, byTwo]) => [`photo ${Number(/\d+/.exec(text)![0]) - first}`, byTwo] as const);
    };
    expect(await turns('nothing')).toEqual(tuples(['photo 0', false], ['photo 1', true], ['photo 0', true]));
    expect(await turns('a newer photo')).toEqual(tuples(['photo 0', false], ['photo 1', true]));
    // Nothing is told by a photo that was left aside, nor is it read again.
    expect(await turns('left aside')).toEqual(tuples(['photo 0', false], ['photo 1', false]));
  });
  it('keeps what the database could not take meanwhile, and reads it again two seconds later', async () => {
    const id = await photo();
    const away = Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' });
    let turn = 0;
    const queue = reading(() =>
      turn++ === 0 ? Promise.reject(away) : Promise.resolve(answer('needs-corners', { markers: 3 })),
    );
    const timers = vi.spyOn(globalThis, 'setTimeout');
    queue.add(id);
    await queue.idle();
    const [again] = timers.mock.calls.find(([, ms]) => ms === 2000)!;
    timers.mockRestore();
    expect((await stored(id)).status).toBe('reading');
    again();
    await queue.idle();
    expect(await stored(id)).toEqual({ status: 'needs-corners', detail: { markers: 3 } });
  });
  it('warms up by the newest photo that was read, once in each thread, and keeps nothing of it', async () => {
    const [older, newest, unread] = [await photo(), await photo(), await photo()];
    const line = reading(() => Promise.resolve(READ));
    for (const id of [older, newest]) line.add(id);
    await line.idle();
    const before = await query(app.databaseUrl, 'select * from reading order by id');
    const { bytes } = (await imageOfPhoto(app.ctx.db, newest, 'original'))!;
    const read: unknown[] = [];
    const cold = reading((job) => {
      read.push(job.bytes);
      return Promise.resolve(READ);
    });
    await cold.warmUp();
    expect(read).toEqual([bytes, bytes]);
    expect(await query(app.databaseUrl, 'select * from reading order by id')).toEqual(before);
    expect((await stored(unread)).status).toBe('waiting');
    // A photo that waits goes first: it warms up what it needs.
    cold.add(unread);
    await cold.warmUp();
    await cold.idle();
    expect(read).toHaveLength(3);
  });
  it('gives up what fails inside, says so in the log, and goes on with the next', async () => {
    const [bad, good] = [await photo(), await photo()];
    const { bytes: badBytes } = (await imageOfPhoto(app.ctx.db, bad, 'original'))!;
    const queue = reading(({ bytes }) =>
      Buffer.from(bytes).equals(badBytes)
        ? Promise.reject(new Error('as asked'))
        : Promise.resolve(answer('needs-corners', { markers: 0 })),
    );
    queue.add(bad);
    queue.add(good);
    await queue.idle();
    expect(await stored(bad)).toEqual({ status: 'unreadable', detail: { reason: 'fault' } });
    expect((await stored(good)).status).toBe('needs-corners');
    expect(said).toContainEqual({ level: 'error', about: { photoId: bad, error: 'Error: as asked' } });
  });
  it('takes nothing more once it is stopped, and leaves what waits for the next server', async () => {
    const [first, second, third, late] = [await photo(), await photo(), await photo(), await photo()];
    const queue = reading(() => {
      queue.stop();
      return Promise.reject(new Error('the server is stopping'));
    });
    queue.add(first);
    queue.add(second);
    queue.add(third);
    await queue.idle();
    queue.add(late);
    await queue.idle();
    for (const begun of [first, second]) expect((await stored(begun)).status).toBe('reading');
    expect((await stored(third)).status).toBe('waiting');
    expect((await stored(late)).status).toBe('waiting');
    expect(said).toEqual([]);
  });
});
