import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_MACHINES, DEMO_STOCKS } from '../../src/demo/world';
import { query, testApp, type TestApp } from '../support/context';
import { answerCard, burnCard, makeCard, makePairing } from '../support/records';
import { points } from '../../tests/support/points';
import { tuples } from '../support/tuples';

let app: TestApp;
beforeAll(async () => void (app = await testApp()));
afterAll(() => app.close());

const { machine, lenses } = DEMO_MACHINES.marl;
const create = (name: string) => app.call('POST', '/api/machines', { machine: { ...machine, name }, lens: lenses[0] });

describe('machines and lenses', () => {
  it('come back as they were recorded', async () => {
    const { json: made } = await create('Dunlin');
    const { json } = await app.call('GET', `/api/machines/${made.id}`);
    expect(json).toMatchObject({ ...machine, name: 'Dunlin', retired: false });
    expect(json.lenses).toHaveLength(1);
    expect(json.lenses[0]).toMatchObject(lenses[0]);
  });
  it('change, retire and come back, and nothing is deleted', async () => {
    const { json: made } = await create('Knot');
    const changed = await app.call('PUT', `/api/machines/${made.id}`, {
      ...machine,
      name: 'Knot',
      powerCap: 0.7,
      powerTable: null,
    });
    expect(changed.json).toMatchObject({ powerCap: 0.7, powerTable: null });
    for (const retired of [true, false]) {
      expect((await app.call('PUT', `/api/machines/${made.id}/retired`, { retired })).json.retired).toBe(retired);
    }
    expect((await app.call('PUT', '/api/machines/99999', { ...machine, name: 'Nobody' })).json.code).toBe('not-found');
    expect((await app.call('PUT', '/api/machines/99999/retired', { retired: true })).json.detail).toBe(
      'There is no machine 99999.',
    );
  });
  it('take more lenses, and one retired is no longer offered but keeps its place', async () => {
    const { json: made } = await create('Turnstone');
    const added = await app.call('POST', `/api/machines/${made.id}/lenses`, lenses[1]);
    expect(added.status).toBe(201);
    const changed = await app.call('PUT', `/api/machines/${made.id}/lenses/${added.json.id}`, {
      lens: { ...lenses[1], spotXMm: 0.11 },
      retired: true,
    });
    expect(changed.json.lenses[1]).toMatchObject({ spotXMm: 0.11, retired: true });
    const other = await create('Whimbrel');
    const strange = await app.call('PUT', `/api/machines/${other.json.id}/lenses/${added.json.id}`, {
      lens: lenses[1],
      retired: false,
    });
    expect(strange.json.code).toBe('not-found');
  });
});

describe('stock', () => {
  it('keeps its readings in order and replaces them as a whole', async () => {
    const { json: made } = await app.call('POST', '/api/stock', { ...DEMO_STOCKS.birch, acquiredOn: '2026-02-28' });
    const first = await app.call('GET', `/api/stock/${made.id}`);
    expect(first.json.thicknessReadingsMm).toEqual([...DEMO_STOCKS.birch.thicknessReadingsMm]);
    expect(first.json.acquiredOn).toBe('2026-02-28');
    const changed = await app.call('PUT', `/api/stock/${made.id}`, {
      ...DEMO_STOCKS.birch,
      acquiredOn: null,
      thicknessReadingsMm: [3.2, 3.0],
    });
    expect(changed.json.thicknessReadingsMm).toEqual([3.2, 3.0]);
    expect((await app.call('PUT', '/api/stock/99999', { ...DEMO_STOCKS.birch, acquiredOn: null })).json.code).toBe(
      'not-found',
    );
    expect((await app.call('PUT', '/api/stock/99999/retired', { retired: true })).json.detail).toBe(
      'There is no stock 99999.',
    );
  });
  it('says how each machine takes it', async () => {
    await app.call('POST', '/api/machines', {
      machine: { ...DEMO_MACHINES.heron.machine, name: 'Blue one' },
      lens: DEMO_MACHINES.heron.lenses[0],
    });
    const { json: made } = await app.call('POST', '/api/stock', { ...DEMO_STOCKS.acrylic, acquiredOn: null });
    const { json } = await app.call('GET', `/api/stock/${made.id}`);
    const blue = json.byMachine.find((entry: { machine: string }) => entry.machine === 'Blue one');
    expect(blue.remarks[0]).toMatchObject({ severity: 'stop', code: 'wavelength-passes' });
  });
  it('lists families, their suitability and the bans', async () => {
    const { json } = await app.call('GET', '/api/families');
    expect(json.families.length).toBe(json.suitability.length);
    expect(json.banned.map((ban: { id: string }) => ban.id)).toContain('pvc');
  });
});

describe('pairings', () => {
  it('are one for the same three, and refuse what does not exist or belong together', async () => {
    const one = await makePairing(app, 'heron', 'leather');
    const again = await app.call('POST', '/api/pairings', {
      machineId: one.machineId,
      lensId: one.lensId,
      stockId: one.stockId,
    });
    expect(again.json.id).toBe(one.pairingId);
    const two = await makePairing(app, 'heron', 'mdf');
    expect(
      (await app.call('POST', '/api/pairings', { machineId: one.machineId, lensId: two.lensId, stockId: one.stockId }))
        .json.code,
    ).toBe('not-found');
    expect(
      (await app.call('POST', '/api/pairings', { machineId: one.machineId, lensId: one.lensId, stockId: 99999 })).json
        .code,
    ).toBe('not-found');
  });
});

describe('a card', () => {
  it('is exported under its code, each file as its type, the same each time', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'mdf');
    const card = await makeCard(app, pairingId);
    for (const [format, type] of [
      ['svg', 'image/svg+xml'],
      ['gcode', 'text/plain'],
      ['csv', 'text/csv'],
      ['png', 'image/png'],
    ] as const) {
      const files = await Promise.all([1, 2].map(() => app.call('GET', `/api/cards/${card.id}/export/${format}`)));
      const bytes = await Promise.all(files.map(async ({ response }) => Buffer.from(await response.arrayBuffer())));
      expect(bytes[0]!.equals(bytes[1]!), format).toBe(true);
      expect(files[0]!.response.headers.get('content-type')).toContain(type);
      expect(files[0]!.response.headers.get('content-disposition')).toBe(
        `attachment; filename="card-${card.code}.${format}"`,
      );
    }
    expect((await app.call('GET', `/api/cards/${card.id}/export/exe`)).json.code).toBe('invalid-input');
  });

  it('keeps machine and stock as they were when they change later', async () => {
    const { pairingId, machineId } = await makePairing(app, 'marl', 'mdf', 'Changing');
    const card = await makeCard(app, pairingId);
    await app.call('PUT', `/api/machines/${machineId}`, { ...machine, name: 'Changing', accelerationXMmPerS2: 1 });
    const { json } = await app.call('GET', `/api/cards/${card.id}`);
    expect(json.card.madeFor.machine.accelerationXMmPerS2).toBe(machine.accelerationXMmPerS2);
    expect(json.pairing.machine.accelerationXMmPerS2).toBe(1);
  });

  it('gets its photo back from the card it was sent to by mistake', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const right = await makeCard(app, pairingId);
    const wrong = await makeCard(app, pairingId);
    await burnCard(app, right.id);
    const taken = await app.call('POST', `/api/cards/${right.id}/photograph`);
    const { response } = await app.call('GET', `/api/photos/${taken.json.id}/images/original`);
    const bytes = new Uint8Array(await response.arrayBuffer());
    const sent = await app.call('POST', `/api/cards/${wrong.id}/photos?name=oops.jpg&finish=before`, bytes);
    expect((await app.call('GET', `/api/photos/${sent.json.id}`)).json.finish).toBe('before');
    expect((await app.call('POST', `/api/cards/${wrong.id}/photos?finish=never`, bytes)).status).toBe(422);
    await app.ctx.readings.idle();
    const seen = await app.call('GET', `/api/photos/${sent.json.id}`);
    expect(seen.json).toMatchObject({ status: 'other-card', otherCards: [{ id: right.id, code: right.code }] });
    // The right card has this very photo already: moving it there adds nothing.
    expect((await app.call('POST', `/api/photos/${sent.json.id}/move`, { cardId: right.id })).json).toEqual({
      id: taken.json.id,
      cardId: right.id,
    });
    expect((await app.call('POST', `/api/photos/${sent.json.id}/move`, { cardId: 99999 })).json.code).toBe('not-found');
    const corners = points([1e9, 0], [1e9, 1], [0, 1], [0, 0]);
    expect((await app.call('PUT', `/api/photos/${sent.json.id}/corners`, { corners })).json.code).toBe('invalid-input');
    expect((await app.call('GET', `/api/photos/${sent.json.id}/images/straightened`)).json.code).toBe('not-found');
  });

  it('stands in the logbook with both times', async () => {
    const { json } = await app.call('GET', '/api/burns');
    const done = json.rows.find((entry: { status: string }) => entry.status === 'done');
    expect(done.actualS).toBeGreaterThan(0);
    expect(done.estimatedS).toBeGreaterThan(0);
    expect(done.cardCode).toMatch(/^CD/);
    expect(json.total).toBe(json.rows.length);
    expect((await app.call('GET', '/api/burns?page=2')).json.rows).toEqual([]);
  });
});

describe('facts', () => {
  it('kept at the same moment get two numbers, and one cell is kept without a photo when it was judged by eye', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'mdf');
    const card = await makeCard(app, pairingId);
    const keep = (cellIndex: number, key?: string) =>
      app.call(
        'POST',
        '/api/facts',
        { cardId: card.id, wish: null, choice: { cellIndex }, note: '' },
        key ? { 'idempotency-key': key } : {},
      );
    const kept = await Promise.all([keep(0), keep(1), keep(2)]);
    expect(kept.map(({ json }) => json.facts[0].version).sort()).toEqual([1, 2, 3]);
    const { json } = await app.call('GET', `/api/facts/${kept[0].json.facts[0].factId}`);
    expect(json.versions[0]).toMatchObject({ photoId: null, value: { lightness: null, confidence: null } });
    const [one, two] = await Promise.all([keep(1, 'keep-this-once-0001'), keep(1, 'keep-this-once-0001')]);
    expect(two.json).toEqual(one.json);
    expect((await keep(300)).json.code).toBe('nothing-to-keep');
    expect((await app.call('GET', '/api/facts/99999')).json.code).toBe('not-found');
  });
  it('of a record are versions too: readings of a sheet, a measured spot, watts by command', async () => {
    const { stockId, machineId, lensId } = await makePairing(app, 'marl', 'birch');
    const facts = await query(
      app.databaseUrl,
      `select f.name, v.version, v.value, v.origin from fact f join fact_version v on v.fact_id = f.id
       where f.stock_id = ${stockId} or f.machine_id = ${machineId} or f.lens_id = ${lensId}`,
    );
    expect(facts.map((fact) => fact['name'])).toEqual(expect.arrayContaining(['thickness', 'watts']));
    const { json: stock } = await app.call('GET', `/api/stock/${stockId}`);
    const { id: _id, retired: _retired, remarks: _remarks, byMachine: _byMachine, ...record } = stock;
    const thickness = () =>
      query(
        app.databaseUrl,
        `select v.version, v.value from fact_version v join fact f on f.id = v.fact_id where f.stock_id = ${stockId} order by v.version`,
      );
    await app.call('PUT', `/api/stock/${stockId}`, { ...record, name: 'Renamed' });
    expect(await thickness()).toHaveLength(1);
    await app.call('PUT', `/api/stock/${stockId}`, { ...record, thicknessReadingsMm: [3, 3.2] });
    expect((await thickness()).at(-1)).toMatchObject({ version: 2, value: { meanMm: 3.1 } });
  });
});

describe('answers', () => {
  it('are taken back, replaced, kept by repeat, and refused where nothing asks for them', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch');
    const { id } = await makeCard(app, pairingId);
    await answerCard(app, id, 'grade', 0, '3');
    expect((await answerCard(app, id, 'grade', 0, '5')).json).toEqual([
      { field: 'grade', cellIndex: 0, repeat: 0, value: '5' },
    ]);
    expect((await answerCard(app, id, 'note', 0, 'soft edge')).json).toHaveLength(2);
    expect((await answerCard(app, id, 'grade', 0, null)).json).toEqual([
      { field: 'note', cellIndex: 0, repeat: 0, value: 'soft edge' },
    ]);
    expect((await answerCard(app, id, 'grade', 0, '6')).json.code).toBe('invalid-input');
    expect((await answerCard(app, id, 'moon', 0, '1')).json.code).toBe('invalid-input');
    expect((await answerCard(app, id, 'grade', 0, 'good', 1)).json.code).toBe('invalid-input');
    expect((await answerCard(app, id, 'grade', 400, '1')).json.code).toBe('not-found');
  });
  it('of a piece tell nothing of the next one that is burned of the card, and come back with none of it', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch');
    const { id } = await makeCard(app, pairingId);
    const grades = async () =>
      ((await app.call('GET', `/api/cards/${id}`)).json.answers as { cellIndex: number; value: string }[]).map(
        ({ cellIndex, value }) => [cellIndex, value],
      );
    // Told before the burn was noted, as on a machine that stands elsewhere.
    await answerCard(app, id, 'grade', 0, '3');
    await burnCard(app, id);
    expect(await grades()).toEqual([[0, '3']]);
    await answerCard(app, id, 'grade', 0, '4');
    await answerCard(app, id, 'grade', 1, '5');
    // One cell burned over: what was said of the others still holds.
    await burnCard(app, id, [1]);
    expect(await grades()).toEqual([[0, '4']]);
    await answerCard(app, id, 'grade', 1, '1');
    expect(await grades()).toEqual(tuples([0, '4'], [1, '1']));
    const last = await burnCard(app, id);
    expect(await grades()).toEqual([]);
    // A burn of which no line was taken made no other piece.
    await query(app.databaseUrl, `update burn set lines_done = 0 where id = ${last}`);
    expect(await grades()).toHaveLength(2);
    await query(app.databaseUrl, `update burn set lines_done = lines_total where id = ${last}`);
    // Nothing is lost, and what is said of the new piece counts.
    expect(await query(app.databaseUrl, `select cell_index from answer where card_id = ${id}`)).toHaveLength(2);
    expect((await answerCard(app, id, 'grade', 1, '2')).json).toEqual([
      { field: 'grade', cellIndex: 1, repeat: 0, value: '2' },
    ]);
  });
});

describe('the database itself', () => {
  it.each([
    ['a machine of no power', 'update machine set rated_power_w = 0'],
    ['a cap below the firing command', 'update machine set power_cap = lowest_firing_command'],
    ['stock of no thickness', 'update stock set nominal_thickness_mm = 0'],
    ['a burn without an end that has ended', "update burn set ended_at = null where status = 'done'"],
    ['a card of a pairing that is not', 'update card set pairing_id = 99999'],
    [
      'an answer that is both word and number',
      "insert into answer (card_id, field, repeat, word, number) select id, 'x', 0, 'a', 1 from card limit 1",
    ],
    ['a fact of nobody', "insert into fact (name, owner, at, at_key) values ('floor', 'pairing', '{}', '{}')"],
    [
      'two facts of one name for one pairing',
      'insert into fact (name, owner, pairing_id, at, at_key) select name, owner, pairing_id, at, at_key from fact where pairing_id is not null limit 1',
    ],
    ['the deletion of stock that has history', 'delete from stock'],
    ['two cards of one number', 'update card set number = 1'],
  ])('refuses %s', async (_name, statement) => {
    await expect(query(app.databaseUrl, statement)).rejects.toThrow(/violates/);
  });
});
