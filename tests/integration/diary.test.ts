import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { benchView } from '../../src/app/bench-views';
import { bookView, factView } from '../../src/app/book-views';
import { dayOf } from '../../src/core/quantities/day';
import { query, testApp, type TestApp } from '../support/context';
import { answerCard, burnCard, makeCard, makePairing } from '../support/records';

let app: TestApp;
let made: Awaited<ReturnType<typeof makePairing>>;
let factId: number;
const note = (entry: object, key?: string) =>
  app.call(
    'POST',
    `/api/machines/${made.machineId}/diary`,
    { at: new Date().toISOString(), kind: 'note', note: '', reading: null, ...entry },
    key ? { 'idempotency-key': key } : {},
  );
const diary = async () => (await app.call('GET', `/api/machines/${made.machineId}/diary`)).json;
const gridRung = async () =>
  (await app.call('GET', `/api/pairings/${made.pairingId}`)).json.ladder.find(
    (rung: { rung: string }) => rung.rung === 'grid',
  );

beforeAll(async () => {
  app = await testApp();
  made = await makePairing(app, 'heron', 'leather', 'Diarist');
  const card = await makeCard(app, made.pairingId);
  await burnCard(app, card.id);
  await answerCard(app, card.id, 'grade', 4, '5');
  const kept = await app.call('POST', '/api/facts', {
    cardId: card.id,
    wish: null,
    choice: { cellIndex: 4 },
    note: '',
  });
  factId = kept.json.facts[0].factId;
});
afterAll(() => app.close());

describe('a machine’s diary', () => {
  it('counts the hours of what was burned, and those since its source was replaced', async () => {
    const [{ s }] = (await query(
      app.databaseUrl,
      `select sum(actual_s) as s from burn where machine_id = ${made.machineId}`,
    )) as [{ s: number }];
    const { entries, hours } = await diary();
    expect(entries).toEqual([]);
    expect(hours.all).toBeCloseTo(Number(s) / 3600, 9);
    expect(hours.all).toBeGreaterThan(0);
    expect(hours.ofSource).toBe(hours.all);
  });
  it('is beside what was spent on testing a pairing: burned cards alone, by their time and stock', async () => {
    await makeCard(app, made.pairingId);
    const { spent, cards } = await benchView(app.ctx, made.pairingId);
    expect(cards).toHaveLength(2);
    const { layout } = (await app.call('GET', `/api/cards/${cards[1]!.id}`)).json.card;
    expect(spent.cards).toBe(1);
    expect(spent.seconds).toBeCloseTo(3600 * (await diary()).hours.all, 9);
    expect(spent.areaMm2).toBeCloseTo(layout.widthMm * layout.heightMm, 6);
  });
  it('makes a kept setting stale on the ladder, in the book and on its page, until the entry is struck out', async () => {
    expect(await gridRung()).toMatchObject({ state: 'measured' });
    const { json, status } = await note({ kind: 'cleaned', note: 'lens wiped' }, 'diary-note-1');
    expect(status).toBe(201);
    // A form that is sent twice notes it once.
    expect((await note({ kind: 'cleaned', note: 'lens wiped' }, 'diary-note-1')).json).toEqual(json);
    expect((await diary()).entries).toMatchObject([
      { id: json.id, kind: 'cleaned', note: 'lens wiped', struck: false },
    ]);
    const reason = `optics cleaned on ${dayOf((await diary()).entries[0].at)}`;
    expect(await gridRung()).toMatchObject({ state: 'stale', reason });
    const [row] = (await bookView(app.ctx, 'Diarist engrave', 1)).rows;
    expect(row!.stale).toEqual([reason]);
    const page = await factView(app.ctx, factId);
    expect(page.stale).toEqual([reason]);
    // A grid stands on the common step alone.
    expect(page.standsOn.map(({ rung }) => rung)).toEqual(['stock', 'safety']);
    const strike = (struck: boolean) =>
      app.call('PUT', `/api/machines/${made.machineId}/diary/${json.id}/struck`, { struck });
    expect((await strike(true)).json.entries).toMatchObject([{ struck: true }]);
    expect(await gridRung()).toMatchObject({ state: 'measured', reason: '' });
    await strike(false);
    expect(await gridRung()).toMatchObject({ state: 'stale' });
    await strike(true);
  });
  it('is told by a card that was burned again that the machine gives less, from when that was burned on', async () => {
    const { json, status } = await note({ kind: 'inferred', note: 'by card CD001-4', share: 0.9 });
    expect(status).toBe(201);
    expect((await diary()).entries[0]).toMatchObject({ id: json.id, kind: 'inferred', share: 0.9, reading: null });
    expect((await gridRung()).reason).toMatch(/^10 % fewer watts inferred from a card on /);
    await app.call('PUT', `/api/machines/${made.machineId}/diary/${json.id}/struck`, { struck: true });
    expect(await gridRung()).toMatchObject({ state: 'measured' });
  });
  it('leaves what was kept after it alone', async () => {
    await note({ kind: 'fire', at: '2026-01-02T00:00:00.000Z' });
    expect(await gridRung()).toMatchObject({ state: 'measured' });
    const { hours } = await diary();
    await note({ kind: 'source' });
    expect((await diary()).hours).toEqual({ all: hours.all, ofSource: 0 });
    expect((await gridRung()).reason).toMatch(/^source replaced on/);
  });
  it('refuses what is still to come, a measurement without its watts, and watts of none', async () => {
    const later = new Date(Date.now() + 86_400_000).toISOString();
    const refused = async (entry: object): Promise<string[]> => {
      const { status, json } = await note(entry);
      expect(status).toBe(422);
      return json.fields.map(({ field }: { field: string }) => field);
    };
    expect(await refused({ at: later })).toEqual(['at']);
    expect(await refused({ kind: 'watts' })).toEqual(['reading']);
    expect(await refused({ kind: 'watts', reading: { command: 1.2, watts: 9 } })).toEqual(['reading.command']);
    expect(await refused({ kind: 'cleaned', reading: { command: 0.5, watts: 9 } })).toEqual(['reading']);
    expect(await refused({ kind: 'inferred' })).toEqual(['share']);
    expect(await refused({ kind: 'inferred', share: 0 })).toEqual(['share']);
    expect(await refused({ kind: 'cleaned', share: 0.9 })).toEqual(['share']);
    expect(await refused({ kind: 'vacuumed' })).toEqual(['kind']);
    expect((await app.call('GET', '/api/machines/99999/diary')).json.code).toBe('not-found');
    // Another machine's entry is none of this one's.
    const other = await makePairing(app, 'heron', 'cork', 'Not the diarist');
    const { json } = await note({ kind: 'note', note: 'mine' });
    const strange = await app.call('PUT', `/api/machines/${other.machineId}/diary/${json.id}/struck`, { struck: true });
    expect(strange.json.code).toBe('not-found');
    expect(
      (await app.call('PUT', `/api/machines/${made.machineId}/diary/99999/struck`, { struck: true })).json.code,
    ).toBe('not-found');
  });
});
