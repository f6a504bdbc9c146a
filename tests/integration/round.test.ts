import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { rectsOverlap } from '../../src/core/geometry/point';
import { timedBurnsOfMachine } from '../../src/db/burns';
import { testApp, type TestApp } from '../support/context';
import { armedMoves } from '../support/program';
import { answerCard, burnCard, makeCard, makePairing, tickedOf } from '../support/records';

let app: TestApp;
let pairingId: number;
let machineId: number;
let round: { id: number; cards: { id: number; code: string }[] };
const RUNGS = ['threshold', 'line', 'interval'];
/** Far longer than any burn takes here. */
const PATIENCE = { timeout: 120_000, interval: 50 };

beforeAll(async () => {
  app = await testApp();
  const made = await makePairing(app, 'heron', 'leather');
  ({ pairingId, machineId } = made);
  // Each of its files counts from its own card: where the cards lie on the bed, only their places say.
  const { id, lenses, retired, ...machine } = (await app.call('GET', `/api/machines/${made.machineId}`)).json;
  const changed = await app.call('PUT', `/api/machines/${made.machineId}`, { ...machine, zero: 'card-corner' });
  if (changed.status !== 200) throw new Error(JSON.stringify(changed.json));
});
afterAll(() => app.close());

const offers = async () => (await app.call('GET', `/api/pairings/${pairingId}/round`)).json;
const make = (rungs: readonly string[], key?: string) =>
  app.call('POST', `/api/pairings/${pairingId}/rounds`, { rungs }, key === undefined ? {} : { 'idempotency-key': key });
const view = async (id: number) => (await app.call('GET', `/api/cards/${id}`)).json;
const stages = async (): Promise<string[]> =>
  (await view(round.cards[0]!.id)).round.cards.map(({ stage }: { stage: string }) => stage);
/** What programs burn, whichever way and in whatever order: how many lit moves of each power and speed, and their ends in the mean. */
async function burnedBy(...paths: string[]): Promise<Map<string, { count: number; x: number; y: number }>> {
  const found = new Map<string, { count: number; x: number; y: number }>();
  for (const path of paths)
    for (const { x0, y0, x1, y1, s, armed, feedMmPerMin } of armedMoves((await app.call('GET', path)).json as string)) {
      if (!armed || s === 0) continue;
      const key = `${s} ${feedMmPerMin}`;
      const { count, x, y } = found.get(key) ?? { count: 0, x: 0, y: 0 };
      found.set(key, { count: count + 1, x: x + (x0 + x1) / 2, y: y + (y0 + y1) / 2 });
    }
  return new Map([...found].map(([key, { count, x, y }]) => [key, { count, x: x / count, y: y / count }]));
}

describe('several cards in one go', () => {
  it('are offered where none of them starts from another: before the first grid there are none', async () => {
    const { offers: first, others } = await offers();
    expect(first.map(({ rung }: { rung: string }) => rung)).toEqual(['grid']);
    expect(others).toContainEqual({ name: 'Line', why: 'it starts from Grid, which is not measured' });
    expect((await make(['grid', 'line'])).json).toMatchObject({
      code: 'nothing-to-propose',
      detail: expect.stringContaining('starts from Grid'),
    });
    expect((await make(['grid'])).json).toMatchObject({ code: 'invalid-input', fields: [{ field: 'rungs' }] });
    expect((await make(['grid', 'moon'])).status).toBe(422);
    expect((await app.call('GET', `/api/pairings/${pairingId}`)).json.cards).toEqual([]);
  });

  it('are made all at once beside each other, once for a form, with numbers of their own', async () => {
    const grid = await makeCard(app, pairingId);
    await burnCard(app, grid.id);
    await answerCard(app, grid.id, 'grade', 4, '5');
    const choice = { cellIndex: 4 };
    await app.call('POST', '/api/facts', { cardId: grid.id, wish: null, choice, note: '' });
    expect((await app.call('GET', `/api/pairings/${pairingId}`)).json.together).toBe(5);
    const made = await make(RUNGS, 'a round of a test');
    expect(made.status).toBe(201);
    round = made.json;
    expect((await make(RUNGS, 'a round of a test')).json).toEqual(round);
    const cards = await Promise.all(round.cards.map(async ({ id }) => (await view(id)).card));
    expect(cards.map(({ kind }) => kind)).toEqual(['threshold', 'line-width', 'interval']);
    const areas = cards.map(({ sheetXMm, sheetYMm, layout }) => ({
      x: sheetXMm,
      y: sheetYMm,
      width: layout.widthMm,
      height: layout.heightMm,
    }));
    areas.forEach((a, i) => areas.slice(i + 1).forEach((b) => expect(rectsOverlap(a, b)).toBe(false)));
    for (const { piece, roundId } of cards) expect({ piece, roundId }).toEqual({ piece: 1, roundId: round.id });
    // What waits already is not offered again.
    expect((await make(['line', 'ways'])).json.detail).toContain('waits already');
  });

  it('go to the machine as one file, which burns what each of them burns, where it lies', async () => {
    const whole = await burnedBy(`/api/rounds/${round.id}/export/gcode?zero=bed-front-left`);
    const parts = await burnedBy(...round.cards.map(({ id }) => `/api/cards/${id}/export/gcode?zero=bed-front-left`));
    expect([...whole.keys()].sort()).toEqual([...parts.keys()].sort());
    expect(whole.size).toBeGreaterThan(5);
    for (const [key, { count, x, y }] of whole) {
      const part = parts.get(key)!;
      expect(count, key).toBe(part.count);
      // To a micrometre, which programs round to.
      expect(Math.hypot(x - part.x, y - part.y), key).toBeLessThan(0.0015);
    }
  });

  it('are burned on the bench one after the other, once the check is made for all of them', async () => {
    const [first] = round.cards;
    const burn = (ticked: readonly string[]) =>
      app.call('POST', `/api/rounds/${round.id}/burns`, { place: 'bench', ticked });
    expect((await burn([])).json.code).toBe('cautions-unticked');
    const ticked = (await view(first!.id)).round.cautions.map(({ code }: { code: string }) => code);
    for (const { id } of round.cards) expect(ticked).toEqual(expect.arrayContaining(await tickedOf(app, id)));
    expect((await burn(ticked)).status).toBe(201);
    await vi.waitFor(async () => expect(await stages()).toEqual(['burned', 'burned', 'burned']), PATIENCE);
    expect((await burn(ticked)).json.code).toBe('nothing-to-propose');
    // Nothing is left to be burned: nothing is left to be ticked.
    expect((await view(first!.id)).round.cautions).toEqual([]);
  });

  it('lie on one piece, of which one photo is read for each of them', async () => {
    const [first] = round.cards;
    expect((await app.call('POST', `/api/cards/${first!.id}/photograph?sheet=a5`)).json.code).toBe('invalid-input');
    expect((await app.call('POST', `/api/cards/${first!.id}/photograph`)).status).toBe(201);
    await app.ctx.readings.idle();
    const shown = await Promise.all(round.cards.map(({ id }) => view(id)));
    for (const { photos, reading, card } of shown) {
      expect(photos.map(({ status }: { status: string }) => status)).toEqual(['read']);
      expect(photos[0].fileName).toBe(`bench-round-${round.id}.jpg`);
      expect(reading.cells).toHaveLength(card.layout.order.length);
    }
    // The strip of powers says which of its patches show: it is this card that was read, and no other.
    const finding = await app.call('POST', `/api/cards/${first!.id}/finding`, { wish: null });
    expect(finding.json.missing).toEqual([]);
  });

  it('get a photo that was taken in for one of them, and only those that it shows as they lie', async () => {
    const [first, second, third] = round.cards as unknown as [{ id: number }, { id: number }, { id: number }];
    // Burned once more: a fresh piece.
    await burnCard(app, third.id);
    const [{ id: photoId }] = (await view(first.id)).photos;
    const image = await app.call('GET', `/api/photos/${photoId}/images/original`);
    const bytes = Buffer.concat([Buffer.from(await image.response.arrayBuffer()), Buffer.from('of a phone')]);
    const sent = await app.call('POST', `/api/cards/${first.id}/photos?name=phone.jpg`, bytes);
    expect(sent.status).toBe(201);
    await app.ctx.readings.idle();
    const names = async ({ id }: { id: number }) =>
      (await view(id)).photos.map((photo: { fileName: string }) => photo.fileName);
    expect(await names(first)).toContain('phone.jpg');
    expect(await names(second)).toContain('phone.jpg');
    expect(await names(third)).not.toContain('phone.jpg');
    // By hand it is read for that one, too, once.
    const [photo] = (await view(first.id)).photos;
    expect(photo.otherCards).toMatchObject([{ id: third.id }]);
    const also = () => app.call('POST', `/api/photos/${photo.id}/also`, { cardId: third.id });
    const read = (await also()).json;
    expect((await also()).json).toEqual(read);
    await app.ctx.readings.idle();
    expect(await names(third)).toContain('phone.jpg');
    expect((await view(first.id)).photos[0].otherCards).toEqual([]);
    // The bench's camera shows the one that was burned again by itself, and one of the others from closer by.
    await app.call('POST', `/api/cards/${third.id}/photograph`);
    await app.call('POST', `/api/cards/${first.id}/photograph?closer=true`);
    await app.ctx.readings.idle();
    expect((await view(third.id)).photos[0].fileName).not.toContain('round');
    expect((await view(second.id)).photos[0].fileName).toBe('phone.jpg');
    const closer = await view(first.id);
    expect(closer.photos[0].fileName).toBe(`bench-${closer.card.layout.code}.jpg`);
    expect(closer.photos[0].status).toBe('read');
  });

  it('are noted as burned on an own machine, the time shared out as it was estimated', async () => {
    const made = (await make(['ways', 'run-up'])).json;
    const ids = made.cards.map(({ id }: { id: number }) => id);
    const ticked = (await view(ids[0])).round.cautions.map(({ code }: { code: string }) => code);
    const noted = await app.call('POST', `/api/rounds/${made.id}/burns`, { place: 'own-machine', ticked, tookS: 200 });
    expect(noted.status).toBe(201);
    const burns = noted.json as { cardId: number; actualS: number; estimatedS: number; status: string }[];
    expect(burns.map(({ cardId }) => cardId)).toEqual(ids);
    expect(burns.reduce((sum, burn) => sum + burn.actualS, 0)).toBeCloseTo(200, 6);
    expect(burns[0]!.actualS / burns[1]!.actualS).toBeCloseTo(burns[0]!.estimatedS / burns[1]!.estimatedS, 1);
    // One time shared out as it was estimated says nothing of the machine's pace that several would.
    expect(await timedBurnsOfMachine(app.ctx.db, machineId, 10)).toEqual([]);
    expect((await app.call('POST', `/api/rounds/4711/burns`, { place: 'bench', ticked })).status).toBe(404);
  });

  it('are weighed, like any test, against the pieces that are made after them', async () => {
    const say = (pieces: object | null) => app.call('PUT', `/api/pairings/${pairingId}/pieces`, { pieces });
    const bench = async () => (await app.call('GET', `/api/pairings/${pairingId}`)).json;
    expect(await bench()).toMatchObject({ pieces: null, worth: '' });
    const many = { count: 40, widthMm: 100, heightMm: 80 };
    for (const wrong of [{ ...many, count: 0 }, { ...many, count: 1.5 }, { ...many, widthMm: 0 }, { count: 3 }])
      expect((await say(wrong)).status).toBe(422);
    expect((await say(many)).json).toEqual(many);
    const other = (await makePairing(app, 'heron', 'mdf')).pairingId;
    await app.call('PUT', `/api/pairings/${other}/pieces`, { pieces: many });
    const { next, worth } = (await app.call('GET', `/api/pairings/${other}`)).json;
    // Before the first grid nobody knows how long a piece takes: stock is weighed, of which the card takes about a quarter of a piece.
    expect(next.burn.areaMm2 / 8000).toBeGreaterThan(0.15);
    expect(worth).toBe(
      `As much as ${(next.burn.areaMm2 / 8000).toPrecision(1)} of a piece: it pays if it saves one of your 40. Burn it.`,
    );
    expect((await say(null)).json).toBeNull();
    expect(await bench()).toMatchObject({ pieces: null, worth: '' });
  });
});
