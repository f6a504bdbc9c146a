import { parse as parseCsv } from 'csv-parse/sync';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { query, testApp, type TestApp } from '../support/context';
import { burnCard, makeCard, makePairing } from '../support/records';

let app: TestApp;
beforeAll(async () => void (app = await testApp()));
afterAll(() => app.close());

describe('the whole job over the endpoints', () => {
  it('goes from a machine to a kept setting with its origin', async () => {
    const { pairingId, stockId } = await makePairing(app, 'marl', 'slate');
    const { id: cardId, code } = await makeCard(app, pairingId);
    const bench = await app.call('GET', `/api/pairings/${pairingId}`);
    expect(bench.json.ladder.map((rung: { rung: string; state: string }) => `${rung.rung} ${rung.state}`)).toEqual([
      'stock measured',
      'safety measured',
      'range predicted',
      'grid empty',
      'book empty',
    ]);
    expect(bench.json.usedAreas).toHaveLength(1);

    const burnId = await burnCard(app, cardId);
    const burn = await app.call('GET', `/api/burns/${burnId}`);
    expect(burn.json).toMatchObject({ status: 'done', place: 'bench' });
    expect(burn.json.actualS).toBeGreaterThan(burn.json.estimatedS * 0.9);

    const photo = await app.call('POST', `/api/cards/${cardId}/photograph`);
    expect(photo.status).toBe(201);
    await app.ctx.readings.idle();
    const seen = await app.call('GET', `/api/cards/${cardId}`);
    expect(seen.json.photos[0].status).toBe('read');
    expect(seen.json.reading.cells).toHaveLength(9);

    const cell = seen.json.reading.cells[4];
    const graded = await app.call('PUT', `/api/cards/${cardId}/verdicts`, {
      cellIndex: 4,
      grade: 4,
      outcome: 'good',
      note: '',
    });
    expect(graded.json).toEqual([{ cellIndex: 4, grade: 4, outcome: 'good', note: '' }]);
    const finding = await app.call('GET', `/api/cards/${cardId}/finding?lightness=${cell.lightness}&pace=slow-and-low`);
    expect(finding.json.candidates.find((c: { cellIndex: number }) => c.cellIndex === 4).meets).toBe(true);

    const kept = await app.call('POST', '/api/settings', { cardId, cellIndex: 4, note: 'first' });
    expect(kept.json.version).toBe(1);
    const again = await app.call('POST', '/api/settings', { cardId, cellIndex: 5, note: 'second' });
    expect(again.json).toEqual({ settingId: kept.json.settingId, version: 2 });
    const setting = await app.call('GET', `/api/settings/${kept.json.settingId}`);
    const [second, first] = setting.json.versions;
    expect(first).toMatchObject({
      version: 1,
      cardCode: code,
      cellIndex: 4,
      photoId: photo.json.id,
      lightness: cell.lightness,
      confidence: cell.confidence,
    });
    expect(first.settings).toEqual(seen.json.card.layout.cells[4].settings);
    expect(second.differences.map((difference: { field: string }) => difference.field)).toEqual(['powerFraction']);

    // A new batch of the stock makes both stale; the versions stay as they were.
    const stock = await app.call('GET', `/api/stock/${stockId}`);
    const { id: _id, retired: _retired, remarks: _remarks, byMachine: _byMachine, ...record } = stock.json;
    await app.call('PUT', `/api/stock/${stockId}`, { ...record, batch: 'B-2' });
    const later = await app.call('GET', `/api/pairings/${pairingId}`);
    expect(
      later.json.ladder.slice(3).map((rung: { state: string; reason: string }) => [rung.state, rung.reason]),
    ).toEqual([
      ['stale', 'new batch B-2'],
      ['stale', 'new batch B-2'],
    ]);
    const book = await app.call('GET', '/api/settings?search=slate%20b-2');
    expect(book.json).toHaveLength(1);
    expect((await app.call('GET', '/api/settings?search=granite')).json).toEqual([]);
  }, 60_000);

  it('exports the book as CSV and JSON', async () => {
    const csv = await app.call('GET', '/api/settings/export.csv');
    const rows = parseCsv(csv.json as string, { columns: true }) as Record<string, string>[];
    expect(rows.map((row) => row['version'])).toEqual(['2', '1']);
    const json = await app.call('GET', '/api/settings/export.json');
    expect(json.json.settings).toHaveLength(2);
    expect(json.response.headers.get('content-disposition')).toContain('attachment');
  });

  it('never changes or deletes a kept version', async () => {
    await expect(query(app.databaseUrl, 'update setting_version set power_fraction = 0.1')).rejects.toThrow(
      /never changed/,
    );
    await expect(query(app.databaseUrl, 'delete from setting_version')).rejects.toThrow(/never changed/);
  });
});

describe('the bench of the demo', () => {
  it('pauses, goes on, stops, and lets nobody burn two cards at once on one machine', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch');
    const first = await makeCard(app, pairingId);
    const second = await makeCard(app, pairingId);
    const ticked = (await app.call('GET', `/api/cards/${first.id}/cautions`)).json.map(
      (caution: { code: string }) => caution.code,
    );
    expect(
      (await app.call('POST', '/api/burns', { cardId: first.id, place: 'bench', ticked: ticked.slice(1) })).json,
    ).toMatchObject({ status: 409, code: 'cautions-unticked' });
    const burn = await app.call('POST', '/api/burns', { cardId: first.id, place: 'bench', ticked });
    expect(burn.status).toBe(201);
    const busy = await app.call('POST', '/api/burns', { cardId: second.id, place: 'bench', ticked });
    expect(busy.json).toMatchObject({ status: 409, code: 'machine-busy', whatIsSafe: 'That burn goes on.' });
    const control = (action: string) => app.call('POST', `/api/burns/${burn.json.id}/control`, { action });
    expect((await control('pause')).json.status).toBe('paused');
    const before = (await app.call('GET', `/api/burns/${burn.json.id}`)).json.progress.linesDone;
    await new Promise((done) => setTimeout(done, 350));
    expect((await app.call('GET', `/api/burns/${burn.json.id}`)).json.progress.linesDone).toBe(before);
    expect((await control('resume')).json.status).toBe('running');
    expect((await app.call('POST', `/api/cards/${first.id}/photograph`)).json.code).toBe('nothing-burned');
    expect((await control('stop')).json.status).toBe('stopped');
    expect((await control('pause')).json.code).toBe('burn-not-open');
    // Burned elsewhere: nothing is sent to the bench, and the burn is over at once.
    const own = await app.call('POST', '/api/burns', { cardId: second.id, place: 'own-machine', ticked });
    expect(own.json).toMatchObject({ status: 'done', place: 'own-machine', linesTotal: 0 });
  });
});

describe('cards on a sheet', () => {
  it('never overlap, even when made at the same moment', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'cork');
    const made = await Promise.all([1, 2, 3, 4].map(() => makeCard(app, pairingId)));
    expect(new Set(made.map((card) => card.code)).size).toBe(4);
    const areas = (await app.call('GET', `/api/pairings/${pairingId}`)).json.usedAreas as {
      x: number;
      y: number;
      width: number;
      height: number;
    }[];
    areas.forEach((a, i) =>
      areas
        .slice(i + 1)
        .forEach((b) =>
          expect(a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y).toBe(
            true,
          ),
        ),
    );
  });
  it('are refused where one lies, off the sheet, and where run-up leaves the bed', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'mdf');
    await makeCard(app, pairingId);
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const at = (xMm: number, yMm: number, leftMm = 30) =>
      app.call('POST', '/api/cards', {
        pairingId,
        kind: 'grid',
        plan,
        sheetPlace: { xMm, yMm },
        sheetOnBed: { leftMm, rearMm: 30 },
      });
    expect((await at(5, 5)).json.code).toBe('does-not-fit');
    expect((await at(290, 5)).json.code).toBe('does-not-fit');
    expect((await at(100, 60, 290)).json).toMatchObject({ code: 'outside-bed' });
  });
  it('made twice by one form are one card', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'felt');
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const body = { pairingId, kind: 'grid', plan, sheetPlace: null, sheetOnBed: { leftMm: 30, rearMm: 30 } };
    const key = { 'idempotency-key': 'form-0001-of-a-test' };
    const [one, two] = await Promise.all([
      app.call('POST', '/api/cards', body, key),
      app.call('POST', '/api/cards', body, key),
    ]);
    expect(two.json).toEqual(one.json);
    expect((await app.call('GET', `/api/pairings/${pairingId}`)).json.cards).toHaveLength(1);
  });
});
