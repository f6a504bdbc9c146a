import { readFileSync } from 'node:fs';
import { crc32, deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { GridPlan } from '../../src/cards/grid/plan';
import { OPERATIONS } from '../../src/api/registry';
import { PROBLEMS } from '../../src/app/problems';
import { DEMO_MACHINES, DEMO_STOCKS } from '../../src/demo/world';
import { query, testApp, type TestApp } from '../support/context';
import { makeCard, makePairing } from '../support/records';
import { points } from '../../tests/support/points';

let app: TestApp;
let pairingId: number;
let cardId: number;
beforeAll(async () => {
  app = await testApp();
  ({ pairingId } = await makePairing(app, 'heron', 'leather', 'Heron'));
  ({ id: cardId } = await makeCard(app, pairingId));
});
afterAll(() => app.close());

const { machine, lenses } = DEMO_MACHINES.heron;
const newMachine = (change: object) =>
  app.call('POST', '/api/machines', { machine: { ...machine, name: 'Other', ...change }, lens: lenses[0] });
const newStock = (change: object) =>
  app.call('POST', '/api/stock', { ...DEMO_STOCKS.birch, acquiredOn: null, ...change });
const upload = (bytes: Buffer, headers: Record<string, string> = {}) =>
  app.call('POST', `/api/cards/${cardId}/photos?name=test`, new Uint8Array(bytes), headers);

/** Every refusal says what happened, what is safe and what to do. */
function expectProblem(json: any, code: keyof typeof PROBLEMS, fields?: readonly object[]): void {
  expect(json).toMatchObject({ code, status: PROBLEMS[code].status });
  for (const part of ['detail', 'whatIsSafe', 'whatToDo', 'title']) expect(json[part], part).toMatch(/\w{2}/);
  if (fields) expect(json.fields).toEqual(fields);
}

describe('records', () => {
  it.each([
    ['text for a number', { ratedPowerW: '10' }, 'machine.ratedPowerW'],
    ['null for a number', { bedWidthMm: null }, 'machine.bedWidthMm'],
    ['zero', { topSpeedXMmPerS: 0 }, 'machine.topSpeedXMmPerS'],
    ['negative', { accelerationYMmPerS2: -5 }, 'machine.accelerationYMmPerS2'],
    ['a wavelength no such source has', { wavelengthNm: 10600 }, 'machine.wavelengthNm'],
    ['a cap below the firing command', { powerCap: 0.01 }, 'machine.powerCap'],
    ['no name', { name: ' ' }, 'machine.name'],
    [
      'a falling power table',
      {
        powerTable: [
          { command: 0.5, watts: 5 },
          { command: 0.4, watts: 6 },
        ],
      },
      'machine.powerTable',
    ],
    ['an unknown field', { colour: 'red' }, 'machine.colour'],
  ])('a machine with %s', async (_name, change, field) => {
    const { status, json } = await newMachine(change);
    expect(status).toBe(422);
    expectProblem(json, 'invalid-input');
    expect(json.fields.map((problem: { field: string }) => problem.field)).toContain(field);
  });
  it('a second machine of one name in use, but not once the first is retired', async () => {
    expectProblem((await newMachine({ name: 'HERON' })).json, 'name-taken');
    const { json } = await newMachine({ name: 'Once' });
    await app.call('PUT', `/api/machines/${json.id}/retired`, { retired: true });
    expect((await newMachine({ name: 'once' })).status).toBe(201);
    expectProblem((await app.call('PUT', `/api/machines/${json.id}/retired`, { retired: false })).json, 'name-taken');
  });
  it.each([
    ['thickness 0', { nominalThicknessMm: 0 }, 'nominalThicknessMm'],
    ['a reading of 0', { thicknessReadingsMm: [3, 0] }, 'thicknessReadingsMm.1'],
    ['an unknown family', { family: 'moon rock' }, 'family'],
    ['a colour by name', { colour: 'tan' }, 'colour'],
    ['a day that is none', { acquiredOn: '2026-13-45' }, 'acquiredOn'],
  ])('stock with %s', async (_name, change, field) => {
    const { json } = await newStock(change);
    expectProblem(json, 'invalid-input');
    expect(json.fields.map((problem: { field: string }) => problem.field)).toContain(field);
  });
  it('banned stock can be recorded, and stops when it is to be planned', async () => {
    const { json } = await newStock({ name: 'White PVC', family: 'pvc', type: 'foam' });
    expect(json.stopped).toBe(true);
    const { json: machines } = await app.call('GET', '/api/machines');
    const pairing = await app.call('POST', '/api/pairings', {
      machineId: machines[0].id,
      lensId: machines[0].lenses[0].id,
      stockId: json.id,
    });
    expect(pairing.status).toBe(200);
    expectProblem((await app.call('GET', `/api/pairings/${pairing.json.id}/proposals/grid`)).json, 'banned-material');
  });
  it('clear acrylic under a blue diode stops with the reason', async () => {
    const acrylic = await makePairing(app, 'heron', 'acrylic');
    const { json } = await app.call('GET', `/api/pairings/${acrylic.pairingId}/proposals/grid`);
    expectProblem(json, 'wavelength-passes');
    expect(json.detail).toContain('blue light');
  });
  it('retired records keep their cards and take no new ones', async () => {
    const old = await makePairing(app, 'heron', 'cork');
    const card = await makeCard(app, old.pairingId);
    await app.call('PUT', `/api/stock/${old.stockId}/retired`, { retired: true });
    expect((await app.call('GET', `/api/cards/${card.id}`)).status).toBe(200);
    expectProblem((await app.call('GET', `/api/pairings/${old.pairingId}/proposals/grid`)).json, 'retired');
  });
});

describe('plans', () => {
  const bad: [string, (plan: any) => object, string][] = [
    ['text for a number', (plan) => ({ across: { ...plan.across, from: '20 %' } }), 'plan.across.from'],
    ['reversed ends', (plan) => ({ down: { ...plan.down, from: 90, to: 20 } }), 'plan.down.to'],
  ];
  it.each(bad)('%s', async (_name, change, field) => {
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const { json } = await app.call('POST', '/api/cards', {
      pairingId,
      kind: 'grid',
      plan: { ...plan, ...change(plan) },
      sheetPlace: null,
      sheetOnBed: { leftMm: 30, rearMm: 30 },
    });
    expectProblem(json, 'invalid-input');
    expect(json.fields.map((problem: { field: string }) => problem.field)).toContain(field);
  });
  it('a wish, a choice or a plan of another kind', async () => {
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const made = await app.call('POST', '/api/cards', {
      pairingId,
      kind: 'interval',
      plan,
      sheetPlace: null,
      sheetOnBed: { leftMm: 30, rearMm: 30 },
    });
    expectProblem(made.json, 'invalid-input');
    expectProblem(
      (await app.call('POST', `/api/cards/${cardId}/finding`, { wish: { moon: 1 } })).json,
      'invalid-input',
    );
    const keep = await app.call('POST', '/api/facts', { cardId, wish: null, choice: { moon: 1 }, note: '' });
    expectProblem(keep.json, 'invalid-input');
    expectProblem((await app.call('GET', `/api/pairings/${pairingId}/proposals/moon`)).json, 'invalid-input');
  });
  it('a card larger than sheet and bed', async () => {
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const { across, constants } = plan as GridPlan;
    const large = {
      cellMm: 50,
      across: { ...across, count: 20 },
      constants: { ...constants, intervalMm: 0.5 },
    };
    const { json } = await app.call('POST', '/api/cards', {
      pairingId,
      kind: 'grid',
      plan: { ...plan, ...large },
      sheetPlace: null,
      sheetOnBed: { leftMm: 30, rearMm: 30 },
    });
    expectProblem(json, 'does-not-fit');
  });
});

describe('photos at the door', () => {
  const jpeg = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#777' } })
      .jpeg()
      .toBuffer();

  it('a text file', async () =>
    expectProblem(
      (await upload(Buffer.from('this is not a picture, whatever it is called'))).json,
      'photo-not-readable',
    ));
  it('HEIC is named as such', async () => {
    const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(64)]);
    expectProblem((await upload(heic)).json, 'photo-heic');
  });
  it('a picture of one pixel', async () => expectProblem((await upload(await jpeg(1, 1))).json, 'photo-not-readable'));
  it('over 25 MB', async () =>
    expectProblem((await upload(Buffer.alloc(26 * 1024 * 1024, 0xff))).json, 'photo-too-large'));
  it('300 MB by its declared length, before any of it is read', async () => {
    expectProblem(
      (await upload(Buffer.from([0xff, 0xd8, 0xff]), { 'content-length': String(300 * 1024 * 1024) })).json,
      'photo-too-large',
    );
  });
  it('a few kilobytes that unpack to 400 megapixels', async () => {
    // A PNG of one bit a pixel, all of them black, written by hand: 20 000 lines of 2500 bytes and a filter byte each.
    const side = 20_000;
    const chunk = (type: string, data: Buffer): Buffer => {
      const body = Buffer.concat([Buffer.from(type), data]);
      const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)];
      length.writeUInt32BE(data.length);
      check.writeUInt32BE(crc32(body));
      return Buffer.concat([length, body, check]);
    };
    const header = Buffer.alloc(13);
    header.writeUInt32BE(side, 0);
    header.writeUInt32BE(side, 4);
    header[8] = 1;
    const lines = deflateSync(Buffer.alloc(side * (side / 8 + 1)));
    const parts = [chunk('IHDR', header), chunk('IDAT', lines), chunk('IEND', Buffer.alloc(0))];
    const bomb = Buffer.concat([Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'), ...parts]);
    expect(bomb.length).toBeLessThan(100_000);
    expectProblem((await upload(bomb)).json, 'photo-too-large');
  });
  it('JSON where an image should be', async () =>
    expectProblem((await app.call('POST', `/api/cards/${cardId}/photos`, { a: 1 })).json, 'wrong-media-type'));

  it('one more than can wait to be read is refused at the door, and nothing of it is kept', async () => {
    const full = vi.spyOn(app.ctx.readings, 'isFull', 'get').mockReturnValue(true);
    const { status, json } = await upload(await jpeg(641, 480));
    full.mockRestore();
    expect(status).toBe(503);
    expectProblem(json, 'too-many-photos');
    expect((await upload(await jpeg(641, 480))).status).toBe(201);
    await app.ctx.readings.idle();
  });
  it('a truncated JPEG is taken in, and found to be damaged when it is read', async () => {
    const whole = await sharp({
      create: {
        width: 1200,
        height: 900,
        channels: 3,
        background: '#a87',
        noise: { type: 'gaussian', mean: 128, sigma: 40 },
      },
    })
      .jpeg()
      .toBuffer();
    const { json } = await upload(whole.subarray(0, whole.length / 2));
    await app.ctx.readings.idle();
    expect((await app.call('GET', `/api/photos/${json.id}`)).json).toMatchObject({
      status: 'unreadable',
      detail: { reason: 'damaged' },
    });
  });
  it('a black photo and one without a card end with what to do next', async () => {
    const black = await upload(
      await sharp({ create: { width: 800, height: 600, channels: 3, background: '#000' } })
        .jpeg()
        .toBuffer(),
    );
    const cat = await upload(
      await sharp({
        create: {
          width: 800,
          height: 600,
          channels: 3,
          background: '#964',
          noise: { type: 'gaussian', mean: 120, sigma: 30 },
        },
      })
        .jpeg()
        .toBuffer(),
    );
    await app.ctx.readings.idle();
    expect((await app.call('GET', `/api/photos/${black.json.id}`)).json).toMatchObject({
      status: 'unreadable',
      detail: { reason: 'too-dark' },
    });
    expect((await app.call('GET', `/api/photos/${cat.json.id}`)).json).toMatchObject({
      status: 'needs-corners',
      detail: { markers: 0 },
    });
  });
  it('corners far outside the photo are refused, on whichever side, and so are those of a photo that is not there', async () => {
    const { json } = await upload(await jpeg(640, 480));
    await app.ctx.readings.idle();
    const corners = points([10, 10], [600, 10], [600, 400], [10, 400]);
    const put = (id: number, change: object, at = 2) =>
      app.call('PUT', `/api/photos/${id}/corners`, {
        corners: corners.map((corner, index) => (index === at ? { ...corner, ...change } : corner)),
      });
    for (const change of [{ x: -641 }, { y: -481 }, { x: 1281 }, { y: 961 }])
      expectProblem((await put(json.id, change)).json, 'invalid-input', [
        { field: 'corners', message: 'Drag each handle to a corner of the card.' },
      ]);
    expectProblem((await put(987654, {})).json, 'not-found');
    expectProblem((await app.call('GET', '/api/photos/987654')).json, 'not-found');
    expect((await put(json.id, { x: -640 }, 0)).status).toBe(200);
    await app.ctx.readings.idle();
  });
  it('the same photo sent twice is one photo', async () => {
    const bytes = await jpeg(900, 700);
    const [one, two] = await Promise.all([upload(bytes), upload(bytes)]);
    expect(one.json.id).toBe(two.json.id);
    expect([one.json.again, two.json.again].sort()).toEqual([false, true]);
    await app.ctx.readings.idle();
  });
  it('is served as the type it is, never to be guessed at, never as a page', async () => {
    const { json } = await upload(await jpeg(640, 480));
    const { response } = await app.call('GET', `/api/photos/${json.id}/images/original`);
    expect(response.headers.get('content-type')).toBe('image/jpeg');
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
    expect(response.headers.get('content-security-policy')).toBe("default-src 'none'; sandbox");
    // A picture is shown in the page and may be kept for a minute by the browser that showed it.
    expect(response.headers.get('content-disposition')).toBe(`inline; filename="photo-${json.id}-original.jpeg"`);
    expect(response.headers.get('cache-control')).toBe('private, max-age=60');
    expectProblem((await app.call('GET', `/api/photos/${json.id}/images/mystery`)).json, 'invalid-input');
    expectProblem((await app.call('GET', '/api/photos/987654/images/original')).json, 'not-found');
    await app.ctx.readings.idle();
  });
});

describe('requests', () => {
  it.each([
    [{ 'sec-fetch-site': 'cross-site' }],
    [{ 'sec-fetch-site': 'same-site' }],
    [{ origin: 'http://elsewhere.example' }],
    [{ origin: 'null' }],
  ])('from another site (%o) are refused', async (headers) => {
    const { json } = await app.call(
      'PUT',
      `/api/cards/${cardId}/answers`,
      { field: 'grade', cellIndex: 0, repeat: 0, value: '1' },
      headers,
    );
    expectProblem(json, 'cross-site');
  });
  it.each([
    [{}],
    [{ 'sec-fetch-site': 'same-origin' }],
    [{ 'sec-fetch-site': 'none' }],
    [{ origin: 'http://shop.example:4321', host: 'shop.example:4321' }],
    [{ origin: 'https://shop.example', host: 'shop.example' }],
  ])('from this site or from a tool (%o) are let through', async (headers) => {
    const answer = { field: 'grade', cellIndex: 0, repeat: 0, value: null };
    expect((await app.call('PUT', `/api/cards/${cardId}/answers`, answer, headers)).status).toBe(200);
  });
  it('that compare a cell with one that the card has not are refused', async () => {
    const better = (value: string) =>
      app.call('PUT', `/api/cards/${cardId}/answers`, { field: 'better', cellIndex: 0, repeat: 0, value });
    expectProblem((await better('9999')).json, 'not-found');
    expect((await better('1')).status).toBe(200);
    expect((await better('=1')).status).toBe(200);
  });
  it('that only read are answered, whoever sends them', async () => {
    const elsewhere = { 'sec-fetch-site': 'cross-site', origin: 'http://elsewhere.example' };
    const { status, response } = await app.call('GET', `/api/cards/${cardId}`, undefined, elsewhere);
    expect(status).toBe(200);
    expect(response.headers.get('content-type')).toBe('application/json; charset=utf-8');
    expect(response.headers.get('cache-control')).toBe('no-store');
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
  });
  it('have a key of 8 to 200 characters, and say in which words a type may be told', async () => {
    const send = (key: string, type = 'application/json') =>
      app.call('POST', '/api/pairings', '{}', { 'content-type': type, 'idempotency-key': key });
    for (const length of [7, 201]) expectProblem((await send('k'.repeat(length))).json, 'malformed-request');
    for (const length of [8, 200]) expectProblem((await send('k'.repeat(length))).json, 'invalid-input');
    expectProblem((await send('k'.repeat(9), 'APPLICATION/JSON; charset=utf-8')).json, 'invalid-input');
    expectProblem((await send('k'.repeat(9), 'text/plain')).json, 'wrong-media-type');
    const untold = (await send('k'.repeat(9), '')).json;
    expect(untold.detail).toMatch(/declared as nothing/);
  });
  it('whose address only looks like one are to nowhere', async () => {
    expectProblem((await app.call('GET', '/api/facts/exportXcsv')).json, 'invalid-input');
    for (const path of ['/api/machines/1/', '/api/pairings/1/2', '/apix/machines', '/api/machines/1/lenses/x/y']) {
      const { json } = await app.call('GET', path);
      expectProblem(json, 'not-found');
      expect(json.detail).toBe(`There is no address ${path}.`);
    }
    expect((await app.call('GET', '/api/facts/export.csv')).status).toBe(200);
  });
  it('that hit a fault inside are answered with the mark it stands under in the log, and no more', async () => {
    const said: { mark: string; error: string; as: string }[] = [];
    const error = app.ctx.log.error.bind(app.ctx.log);
    Object.assign(app.ctx.log, {
      error: (about: { mark: string; error: string }, as: string) => said.push({ ...about, as }),
    });
    try {
      await query(app.databaseUrl, 'alter table favourite rename to favourite_gone');
      const { json, response } = await app.call('GET', '/api/favourites');
      expectProblem(json, 'internal-fault');
      expect(response.headers.get('content-type')).toBe('application/problem+json; charset=utf-8');
      expect(said).toMatchObject([{ as: 'fault' }]);
      expect(said[0]!.error).toMatch(/favourite/);
      expect(said[0]!.mark).toMatch(/^[0-9a-f]{8}$/);
      expect(json.detail).toBe(`The fault is in the server’s log under ${said[0]!.mark}.`);
    } finally {
      await query(app.databaseUrl, 'alter table favourite_gone rename to favourite');
      Object.assign(app.ctx.log, { error });
    }
  });
  it('that are not JSON, of the wrong type, too large, to nowhere, or by the wrong method', async () => {
    expectProblem(
      (await app.call('POST', '/api/pairings', '{"machineId":', { 'content-type': 'application/json' })).json,
      'malformed-request',
    );
    expectProblem(
      (await app.call('POST', '/api/pairings', 'a=1', { 'content-type': 'application/x-www-form-urlencoded' })).json,
      'wrong-media-type',
    );
    expectProblem(
      (
        await app.call('POST', '/api/pairings', JSON.stringify({ text: 'x'.repeat(600_000) }), {
          'content-type': 'application/json',
        })
      ).json,
      'body-too-large',
    );
    expectProblem((await app.call('GET', '/api/nowhere')).json, 'not-found');
    const wrong = await app.call('PUT', '/api/machines', {});
    expectProblem(wrong.json, 'method-not-allowed');
    expect(wrong.response.headers.get('allow')).toBe('GET, POST');
    expectProblem((await app.call('GET', '/api/cards/0')).json, 'invalid-input');
    expectProblem((await app.call('GET', '/api/cards/99999999')).json, 'not-found');
  });
});

describe('documents', () => {
  const docs = readFileSync(new URL('../../docs/api.md', import.meta.url), 'utf8');
  it('name every endpoint and every problem, and no others', () => {
    for (const { method, path } of OPERATIONS) expect(docs).toContain(`\`${method} ${path}\``);
    for (const code of Object.keys(PROBLEMS)) expect(docs).toContain(`\`${code}\``);
    const named = [...docs.matchAll(/`(GET|POST|PUT) (\/api\/[^`?]+)`/g)].map((match) => `${match[1]} ${match[2]}`);
    const known = new Set(OPERATIONS.map(({ method, path }) => `${method} ${path}`));
    expect(named.filter((name) => !known.has(name))).toEqual([]);
  });
  it('include an OpenAPI 3.1 file with every path, made of the same schemas', async () => {
    const { json } = await app.call('GET', '/api/openapi.json');
    expect(json.openapi).toBe('3.1.0');
    expect(Object.keys(json.paths).sort()).toEqual([...new Set(OPERATIONS.map(({ path }) => path))].sort());
    const { schema } = json.paths['/api/cards'].post.requestBody.content['application/json'];
    expect(schema.properties.kind.enum).toContain('grid');
    const answers = json.paths['/api/cards/{cardId}/answers'].put.requestBody.content['application/json'].schema;
    expect(answers.properties.repeat).toMatchObject({ minimum: 0 });
  });
});
