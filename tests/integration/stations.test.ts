import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { nextCardNumber } from '../../src/db/cards';
import { insertReading, readingsThatCount } from '../../src/db/readings';
import { tellAnew } from '../../src/app/card-reading';
import { query, testApp, type TestApp } from '../support/context';
import { burnCard, makeCard, makeCardOf, makePairing } from '../support/records';
import { tuples } from '../support/tuples';

let app: TestApp;
let pairingId: number;
let cardId: number;
beforeAll(async () => {
  app = await testApp();
  ({ pairingId } = await makePairing(app, 'marl', 'alder'));
  ({ id: cardId } = await makeCardOf(app, pairingId, 'bed', ({ constants }) => ({
    columns: 2,
    rows: 2,
    acrossMm: 90,
    downMm: 60,
    constants: { ...constants, intervalMm: 0.3 },
  })));
});
afterAll(() => app.close());

const card = async () => (await app.call('GET', `/api/cards/${cardId}`)).json;
const photograph = async (more = '') => {
  const answer = await app.call('POST', `/api/cards/${cardId}/photograph${more}`);
  await app.ctx.readings.idle();
  return answer;
};
const placesShown = async (): Promise<number[]> =>
  ((await card()).reading.shown as { station: number }[]).map(({ station }) => station).sort();

describe('a card that stands in several places of the bed', () => {
  it('takes a number for each of them, and no other card gets one of these', async () => {
    const { layout, number } = (await card()).card;
    const numbers = layout.stations.map((station: { cardNumber: number }) => station.cardNumber);
    expect(numbers).toEqual([number, number + 1, number + 2, number + 3]);
    expect(await nextCardNumber(app.ctx.db)).toBe(number + 4);
    // Several at once: each gets its numbers in a row, whoever asks between.
    const taken = await Promise.all(
      [3, 1, 5, 1, 2].map(async (count) => ({ count, first: await nextCardNumber(app.ctx.db, count) })),
    );
    const all = taken.flatMap(({ count, first }) => Array.from({ length: count }, (_, k) => first + k));
    expect(new Set(all).size).toBe(12);
    expect(Math.max(...all)).toBe(number + 4 + 12);
  });

  it('takes of its sheet the places and not what lies between, and counts as much stock as spent', async () => {
    const { usedAreas } = (await app.call('GET', `/api/pairings/${pairingId}`)).json;
    expect(usedAreas).toHaveLength(4);
    const { layout, sheetXMm, sheetYMm } = (await card()).card;
    expect(usedAreas[3]).toMatchObject({
      cardId,
      x: sheetXMm + layout.stations[3].box.x,
      y: sheetYMm + layout.stations[3].box.y,
      width: layout.stations[3].box.width,
    });
    const between = await makeCard(app, pairingId);
    const { json } = await app.call('GET', `/api/cards/${between.id}`);
    expect(json.card.sheetXMm).toBeLessThan(sheetXMm + layout.widthMm);
  });

  it('is photographed place by place, each told by its markers and merged with the others', async () => {
    await burnCard(app, cardId);
    expect((await photograph()).status).toBe(201);
    const { reading, photos } = await card();
    expect(photos.map(({ status }: { status: string }) => status)).toEqual(Array(4).fill('read'));
    expect(reading.cells.map(({ cellIndex }: { cellIndex: number }) => cellIndex)).toEqual(
      Array.from({ length: 12 }, (_, k) => k),
    );
    expect(await placesShown()).toEqual([0, 1, 2, 3]);
    // A patch may be blown out in its photo.
    const ripples = reading.cells.filter(({ ripple }: { ripple: object | null }) => ripple);
    expect(ripples.length).toBeGreaterThanOrEqual(10);
    const finding = await app.call('POST', `/api/cards/${cardId}/finding`, { wish: {} });
    expect(finding.json).toMatchObject({ missing: [], columns: 2, rows: 2 });
    const kept = await app.call('POST', '/api/facts', { cardId, wish: {}, choice: {}, note: '' });
    expect(kept.status).toBe(201);
    const [fact] = await query(app.databaseUrl, `select name, machine_id from fact where name = 'bed'`);
    expect(fact).toMatchObject({ name: 'bed' });
  });

  it('has a place taken anew where one is left aside, and all of them where none is left', async () => {
    const { photos } = await card();
    const last = photos[0];
    await app.call('PUT', `/api/photos/${last.id}/counts`, { counts: false });
    expect(await placesShown()).toHaveLength(3);
    await photograph();
    expect((await card()).photos).toHaveLength(5);
    expect((await card()).photos[0].station).toBe(last.station);
    await photograph();
    expect((await card()).photos).toHaveLength(9);
    expect(await placesShown()).toEqual([0, 1, 2, 3]);
  });

  it('keeps each place’s photos whose tones are known apart from those of which that is not said', async () => {
    await query(
      app.databaseUrl,
      `update reading set tones = '{"told":"by-one-photo","cameraIsTrue":false}' where card_id = ${cardId}`,
    );
    const counting = await readingsThatCount(app.ctx.db, cardId, false);
    const [newest] = counting;
    const { id, photoIds, createdAt, shown, ...reading } = newest!;
    await app.ctx.db.transaction().execute(async (tx) => {
      await insertReading(tx, { ...reading, tones: { told: 'by-two', bentBy: 0 } });
      await tellAnew(tx, cardId);
    });
    const told = (await card()).reading;
    expect(await placesShown()).toEqual([0, 1, 2, 3]);
    // Of its own place it alone counts; of the others all that did before.
    const others = counting.filter(({ station }) => station !== newest!.station).map(({ photoId }) => photoId);
    expect([...told.photoIds].sort()).toEqual([newest!.photoId, ...others].sort());
  });

  it('is found by any of its numbers when a photo of a place comes to another card', async () => {
    const other = await makeCard(app, pairingId);
    await burnCard(app, other.id);
    const { photos, card: own } = await card();
    const shows = photos.find(({ station }: { station: number }) => station === 2);
    const { response } = await app.call('GET', `/api/photos/${shows.id}/images/original`);
    await app.call(
      'POST',
      `/api/cards/${other.id}/photos?name=place.jpg`,
      new Uint8Array(await response.arrayBuffer()),
    );
    await app.ctx.readings.idle();
    const [photo] = (await app.call('GET', `/api/cards/${other.id}`)).json.photos;
    expect(photo).toMatchObject({ status: 'other-card', otherCards: [{ id: cardId, code: own.layout.code }] });
    const moved = await app.call('POST', `/api/photos/${photo.id}/move`, { cardId });
    // The same bytes are there already.
    expect(moved.json).toEqual({ id: shows.id, cardId });
  });

  it('is photographed on no frame sheet, and not twice at once', async () => {
    const before = (await card()).photos.length;
    for (const [query, field] of tuples(['photos=2', 'photos'], ['sheet=a5', 'sheet'])) {
      const { status, json } = await photograph(`?${query}`);
      expect([status, json.fields[0].field]).toEqual([422, field]);
    }
    expect((await card()).photos).toHaveLength(before);
  });

  it('does not lie on one light table', async () => {
    expect((await app.call('GET', `/api/cards/${cardId}/light-table`)).status).toBe(422);
  });
});
