import { gunzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parseCardCode } from '../../src/core/card/code';
import { migrate } from '../../src/db/migrate';
import { recover } from '../../src/server/recover';
import { query, testApp, type TestApp } from '../support/context';

/** A database as the first slice of the program left it: three cards, one of them read, judged and kept. */
const DUMP = gunzipSync(readFileSync(new URL('../fixtures/first-slice.sql.gz', import.meta.url)));

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
  await query(app.databaseUrl, 'drop schema public cascade; create schema public');
  const restored = spawnSync('psql', ['-v', 'ON_ERROR_STOP=1', '-q', app.databaseUrl], { input: DUMP });
  if (restored.status !== 0) throw new Error(String(restored.stderr));
  await migrate(app.ctx.db);
});
afterAll(() => app.close());

const list = async (path: string) => (await app.call('GET', path)).json;

describe('a database of the first slice', () => {
  it('opens with every card, laid as it was and burnable by its settings', async () => {
    for (const id of [1, 2, 3]) {
      const { json, status } = await app.call('GET', `/api/cards/${id}`);
      expect(status).toBe(200);
      const { layout, plan, madeFor } = json.card;
      expect(layout).toMatchObject({ version: 4, kind: 'grid', together: [] });
      expect(plan).toMatchObject({
        version: 4,
        across: { channel: 'power' },
        down: { channel: 'speed' },
        sweeps: 'cells',
        setup: { focusSetBy: 'not-said' },
      });
      expect(layout.frame.settings.words).toBe('full');
      expect(plan.frame.marker.powerFraction).toBeGreaterThan(0);
      expect(plan.constants).toMatchObject({
        runUpMm: null,
        scanOffsetMm: 0,
        lengthenMm: 0,
        lineAngleDeg: 0,
        crossHatch: false,
      });
      expect(madeFor.machine).toMatchObject({
        rampPower: 'constant',
        addsRunUp: false,
        zero: 'bed-front-left',
        xPlus: 'right',
        yPlus: 'away',
        galvo: null,
      });
      for (const cell of layout.cells) {
        expect(cell.burns).toHaveLength(1);
        expect(cell.burns[0].settings.powerFraction).toBe(cell.levels.power);
        expect(cell.burns[0].settings.lengthenMm).toBe(0);
      }
      const gcode = await app.call('GET', `/api/cards/${id}/export/gcode`);
      expect(gcode.json).toMatch(/M2\n$/);
      // Older machines are taken to hold their power, so nothing may rely on laser mode.
      expect(gcode.json).toContain('M3 S0');
    }
    const { json } = await app.call('GET', '/api/cards/1');
    expect(json.card.plan.constants.focusOffsetMm).toBe(1.5);
  });
  it('still has what was judged, as answers', async () => {
    const { json } = await app.call('GET', '/api/cards/1');
    expect([...new Set(json.answers.map((answer: { cellIndex: number }) => answer.cellIndex))].sort()).toEqual([
      2, 4, 7, 9,
    ]);
    const fields = new Set(json.answers.map((answer: { field: string }) => answer.field));
    for (const field of fields) expect(['grade', 'outcome', 'note']).toContain(field);
    expect(json.reading.cells.length).toBeGreaterThan(9);
    const finding = await app.call('POST', '/api/cards/1/finding', { wish: null });
    expect(finding.json.candidates.length).toBeGreaterThan(9);
  });
  it('still reads a photo of an old card, by its code and its layout brought up', async () => {
    const { json } = await app.call('GET', '/api/cards/1');
    expect(parseCardCode(json.card.layout.code)).toBe(json.card.number);
    const { response } = await app.call('GET', `/api/photos/${json.reading.photoId}/images/original`);
    // A byte behind the picture's end makes it another file of the same picture.
    const bytes = Buffer.concat([Buffer.from(await response.arrayBuffer()), Buffer.from([0])]);
    const sent = await app.call('POST', '/api/cards/1/photos?name=again.jpg', new Uint8Array(bytes));
    await app.ctx.readings.idle();
    expect((await app.call('GET', `/api/photos/${sent.json.id}`)).json.status).toBe('read');
    const again = (await app.call('GET', '/api/cards/1')).json.reading;
    expect(again.photoId).toBe(sent.json.id);
    for (const cell of again.cells as { cellIndex: number; lightness: number }[]) {
      const before = json.reading.cells.find((one: { cellIndex: number }) => one.cellIndex === cell.cellIndex);
      expect(Math.abs(cell.lightness - before.lightness)).toBeLessThan(1);
    }
  });
  it('still has every kept version under its number, as facts', async () => {
    const { json } = await app.call('GET', '/api/facts/1');
    expect(json.fact.name).toBe('engrave');
    expect(json.versions.map((version: { version: number }) => version.version)).toEqual([2, 1]);
    expect(json.versions[1]).toMatchObject({ cellIndex: 4, cardId: 1 });
    expect(json.versions[1].note).toContain('covers');
    expect(json.versions[0].note).toContain('softer');
    expect(json.versions[1].value.settings).toMatchObject({ focusOffsetMm: 1.5, runUpMm: null });
    expect((await app.call('GET', '/api/facts/3')).json.versions[0].note).toContain('by eye');
    const book = await list('/api/facts?search=engrave');
    expect(book.rows.length).toBe(2);
  });
  it('has its measured thickness, spots and watts as facts, and stock of PVC that still stops', async () => {
    const names = await query(app.databaseUrl, 'select distinct name from fact order by name');
    expect(names.map((row) => row['name'])).toEqual(expect.arrayContaining(['engrave', 'thickness', 'watts']));
    const benches = await list('/api/pairings');
    for (const bench of benches.rows) expect(bench.ladder.length).toBeGreaterThan(3);
    const stocks = await list('/api/stock');
    expect(stocks.some((stock: { family: string }) => stock.family === 'pvc')).toBe(true);
  });
  it('works ladders out anew that a program of other rungs kept, and no others', async () => {
    const rungs = async () =>
      (await app.call('GET', '/api/pairings/1')).json.ladder.map((rung: { rung: string }) => rung.rung);
    const all = await rungs();
    expect(all).toContain('tone');
    const old = JSON.stringify([{ rung: 'stock', foot: 'common' }]);
    await query(app.databaseUrl, `update pairing_state set ladder = '${old}' where pairing_id = 1`);
    await recover(app.ctx);
    // As kept by this very program: it is not looked into.
    expect(await rungs()).toEqual(['stock']);
    await query(app.databaseUrl, `update pairing_state set made_by = 'another' where pairing_id = 1`);
    await recover(app.ctx);
    expect((await list('/api/pairings')).rows.find((row: { pairingId: number }) => row.pairingId === 1).fresh).toBe(
      false,
    );
    expect(await rungs()).toEqual(all);
    await recover(app.ctx);
    expect((await list('/api/pairings')).rows.find((row: { pairingId: number }) => row.pairingId === 1).fresh).toBe(
      true,
    );
  });
  it('goes on: a new fact gets the next number, and a second migration changes nothing', async () => {
    const kept = await app.call('POST', '/api/facts', {
      cardId: 1,
      wish: null,
      choice: { cellIndex: 2 },
      note: 'after',
    });
    expect(kept.json.facts[0]).toEqual({ factId: 1, name: 'engrave', version: 3 });
    await migrate(app.ctx.db);
    expect((await app.call('GET', '/api/facts/1')).json.versions).toHaveLength(3);
  });
});
