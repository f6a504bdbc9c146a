import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { untilReady } from '../../scripts/ready.mjs';
import { freePort } from '../../scripts/postgres.mjs';
import { jpegOf } from '../../src/bench/bench';
import { burnOnBench, photoOf } from '../../stand-ins/burn';
import { query, testAppOnItsOwn } from '../support/context';
import { demoPairing } from '../../stand-ins/demo';
import { makeCard, makePairing, tickedOf } from '../support/records';

const root = fileURLToPath(new URL('../..', import.meta.url));
const server = `${root}dist/server/main.mjs`;

let app: Awaited<ReturnType<typeof testAppOnItsOwn>>;
let port: number;
let running: ChildProcess | null = null;
beforeAll(async () => {
  app = await testAppOnItsOwn();
  port = await freePort();
});
afterEach(() => void running?.kill('SIGKILL'));
afterAll(() => app.close());

/** The real server in a process of its own, on the test's database. */
async function startServer(): Promise<string> {
  const env = {
    ...process.env,
    DATABASE_URL: app.databaseUrl,
    PORT: String(port),
    DEMO: 'no',
    BENCH_PACE: '2',
    NODE_ENV: 'production',
  };
  running = spawn(process.execPath, [server], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  await untilReady(running);
  return `http://127.0.0.1:${port}`;
}

async function kill(): Promise<void> {
  const gone = once(running!, 'exit');
  running!.kill('SIGKILL');
  await gone;
}

const post = (url: string, json: unknown): Promise<any> =>
  fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(json) }).then(
    (response) => response.json(),
  );
const get = (url: string): Promise<any> => fetch(url).then((response) => response.json());

async function until<T>(look: () => Promise<T>, good: (value: T) => boolean, seconds = 240): Promise<T> {
  for (let tries = 0; tries < seconds * 5; tries++) {
    const value = await look();
    if (good(value)) return value;
    await new Promise((done) => setTimeout(done, 200));
  }
  throw new Error('waited in vain');
}

describe('a server that is killed', () => {
  it('during a burn marks it interrupted, and the machine can burn again', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather');
    const card = await makeCard(app, pairingId);
    const base = await startServer();
    const ticked = ((await get(`${base}/api/cards/${card.id}/cautions`)) as { code: string }[]).map(
      (caution) => caution.code,
    );
    const burn = await post(`${base}/api/burns`, { cardId: card.id, place: 'bench', ticked });
    await until(
      () => get(`${base}/api/burns/${burn.id}`),
      (now: any) => now.progress?.linesDone > 5,
    );
    await kill();
    await startServer();
    expect(await get(`${base}/api/burns/${burn.id}`)).toMatchObject({ status: 'interrupted', progress: null });
    expect(await post(`${base}/api/burns`, { cardId: card.id, place: 'bench', ticked })).toMatchObject({
      status: 'running',
    });
    await kill();
  });

  it('during a reading still has the photo, and reads it', async () => {
    const pairing = demoPairing('heron', 'leather');
    const { pairingId } = await makePairing(app, 'heron', 'leather');
    const card = await makeCard(app, pairingId);
    const { json: view } = await app.call('GET', `/api/cards/${card.id}`);
    const bytes = await jpegOf(photoOf(burnOnBench(view.card.layout, pairing, 'killed'), 'killed'));
    const base = await startServer();
    const photo = await fetch(`${base}/api/cards/${card.id}/photos`, {
      method: 'POST',
      headers: { 'content-type': 'image/jpeg' },
      body: new Uint8Array(bytes),
    }).then((response) => response.json() as any);
    await kill();
    const [row] = await query(app.databaseUrl, `select status from photo where id = ${photo.id}`);
    expect(['waiting', 'reading']).toContain(row!['status']);
    expect(await query(app.databaseUrl, `select 1 from reading where photo_id = ${photo.id}`)).toEqual([]);
    await startServer();
    await until(
      () => get(`${base}/api/photos/${photo.id}`),
      (now: any) => now.status === 'read',
    );
    expect(
      await query(
        app.databaseUrl,
        `select count(*)::int as cells from cell_reading c join reading r on r.id = c.reading_id where r.photo_id = ${photo.id}`,
      ),
    ).toEqual([{ cells: 9 }]);
    await kill();
  });

  it('during an upload leaves nothing half-written', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather');
    const card = await makeCard(app, pairingId);
    await startServer();
    const sending = httpRequest({
      port,
      host: '127.0.0.1',
      path: `/api/cards/${card.id}/photos`,
      method: 'POST',
      headers: { 'content-type': 'image/jpeg', 'content-length': 5_000_000 },
    });
    sending.on('error', () => undefined);
    sending.write(Buffer.alloc(1_000_000, 0xff));
    await new Promise((done) => setTimeout(done, 300));
    await kill();
    expect(await query(app.databaseUrl, `select 1 from photo where card_id = ${card.id}`)).toEqual([]);
  });

  it('in an orderly way ends at once and with a good exit code', async () => {
    await startServer();
    const gone = once(running!, 'exit');
    running!.kill('SIGTERM');
    expect(await gone).toEqual([0, null]);
  });
});

describe('the door', () => {
  const status = (headers: Record<string, string>, path = '/bench'): Promise<number> =>
    new Promise((done, fail) => {
      httpRequest({ port, host: '127.0.0.1', path, headers }, (response) => {
        response.resume();
        done(response.statusCode!);
      })
        .on('error', fail)
        .end();
    });

  it('answers to loopback names only, with a strict content security policy', async () => {
    const base = await startServer();
    expect(await status({ host: `127.0.0.1:${port}` })).toBe(200);
    expect(await status({ host: 'rebound.example' })).toBe(403);
    const page = await fetch(`${base}/bench`);
    const policy =
      page.headers.get('content-security-policy') ??
      (await page.text()).match(/http-equiv="content-security-policy" content="([^"]+)"/i)?.[1] ??
      '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("object-src 'none'");
    expect(policy).not.toContain('unsafe-inline');
    expect(policy).not.toContain('unsafe-eval');
    expect(page.headers.get('x-content-type-options')).toBe('nosniff');
    expect(await status({ host: `127.0.0.1:${port}` }, '/cards/999999')).toBe(404);
  });
});

describe('a database that goes away', () => {
  it('is said so, and found again when it returns', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather');
    app.cluster.stop('fast');
    const away = await app.call('GET', `/api/pairings/${pairingId}`);
    expect(away.json).toMatchObject({ status: 503, code: 'database-away' });
    expect(away.json.whatIsSafe).toMatch(/safe/);
    await app.cluster.restart();
    const back = await until(
      () => app.call('GET', `/api/pairings/${pairingId}`),
      (now) => now.status === 200,
    );
    expect(back.json.pairing.id).toBe(pairingId);
  });
});

describe('a burn whose end falls into a time without a database', () => {
  it('is written as done when the database is back, and the machine can burn again', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather');
    const card = await makeCard(app, pairingId);
    const ticked = await tickedOf(app, card.id);
    const burn = await app.call('POST', '/api/burns', { cardId: card.id, place: 'bench', ticked, cells: null });
    expect(burn.status).toBe(201);
    app.cluster.stop('fast');
    await until(
      () => Promise.resolve(app.ctx.burns.progressOf(burn.json.id)),
      (progress) => progress === null,
    );
    await app.cluster.restart();
    const done = await until(
      () => app.call('GET', `/api/burns/${burn.json.id}`),
      ({ json }) => json.status !== 'running' && json.code !== 'database-away',
    );
    expect(done.json).toMatchObject({ status: 'done' });
    const again = await app.call('POST', '/api/burns', { cardId: card.id, place: 'bench', ticked, cells: null });
    expect(again.status).toBe(201);
    await app.ctx.burns.finishNow(again.json.id);
  });
});

describe('the start command', () => {
  const start = async (env: Record<string, string>): Promise<{ code: number; text: string }> => {
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: root,
      env: { ...process.env, DATABASE_URL: app.databaseUrl, DEMO: 'no', ...env },
    });
    let text = '';
    child.stdout.on('data', (chunk) => (text += String(chunk)));
    child.stderr.on('data', (chunk) => (text += String(chunk)));
    const [code] = (await once(child, 'exit')) as [number];
    return { code, text };
  };
  it('refuses a host beyond loopback, with the reason', async () => {
    const { code, text } = await start({ HOST: '0.0.0.0' });
    expect(code).toBe(1);
    expect(text).toMatch(/refused.*accounts/s);
  });
  it('says plainly that a port is taken or is none', async () => {
    await startServer();
    expect((await start({ PORT: String(port) })).text).toMatch(new RegExp(`Port ${port} is taken`));
    expect((await start({ PORT: 'abc' })).text).toMatch(/not a port number/);
  });

  describe('and its data folder', () => {
    const own = mkdtempSync(join(tmpdir(), 'glass-ladder-folder-'));
    chmodSync(own, 0o755);
    const withFolder = async (folder: string) => {
      const child = spawn(process.execPath, ['scripts/start.mjs'], {
        cwd: root,
        env: { ...process.env, DATABASE_URL: '', GLASS_LADDER_DATA: folder, PORT: '0' },
      });
      let text = '';
      child.stderr.on('data', (chunk) => (text += String(chunk)));
      await once(child, 'exit');
      return text;
    };
    it('says that another Glass Ladder uses it', async () => {
      const started = readFileSync(`/proc/${process.pid}/stat`, 'utf8').split(') ')[1]!.split(' ')[19];
      writeFileSync(join(own, 'lock.json'), JSON.stringify({ pid: process.pid, started }));
      expect(await withFolder(own)).toMatch(new RegExp(`in use by another Glass Ladder \\(process ${process.pid}\\)`));
    });
    it('takes over the lock of a command that died, and says that the folder is of an older version', async () => {
      writeFileSync(join(own, 'lock.json'), JSON.stringify({ pid: 1, started: '-1' }));
      mkdirSync(join(own, 'postgres'));
      writeFileSync(join(own, 'postgres', 'PG_VERSION'), '9\n');
      expect(await withFolder(own)).toMatch(/made by PostgreSQL 9.*Nothing was changed/s);
    });
    it('says that it may not write there', async () => {
      writeFileSync(join(own, 'a-file'), '', { mode: 0o755 });
      chmodSync(join(own, 'a-file'), 0o755);
      expect(await withFolder(join(own, 'a-file', 'folder'))).toMatch(/cannot be written/);
    });
  });
});
