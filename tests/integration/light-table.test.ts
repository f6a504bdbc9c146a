import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cardView } from '../../src/app/card-view';
import type { ThroughRecord } from '../../src/records/photo';
import { query, testApp, type TestApp } from '../support/context';
import { burnCard, makeCard, makePairing } from '../support/records';

let app: TestApp;
let cardId: number;
beforeAll(async () => {
  app = await testApp();
  const { pairingId } = await makePairing(app, 'marl', 'coated');
  cardId = (await makeCard(app, pairingId)).id;
  await burnCard(app, cardId);
});
afterAll(() => app.close());

const through = async (id = cardId): Promise<ThroughRecord | null> =>
  (await app.call('GET', `/api/cards/${id}`)).json.through;
async function take(lit: 'front' | 'behind', id = cardId, face = 'front'): Promise<number> {
  const { status, json } = await app.call('POST', `/api/cards/${id}/photograph?lit=${lit}&face=${face}`);
  expect(status).toBe(201);
  await app.ctx.readings.idle();
  return json.id as number;
}

describe('a photo on a light table', () => {
  it('tells how much light comes through, and nothing of tone', async () => {
    expect(await through()).toBeNull();
    const id = await take('behind');
    const photo = (await app.call('GET', `/api/photos/${id}`)).json;
    expect(photo).toMatchObject({ status: 'read', litFrom: 'behind', fileName: expect.stringMatching(/^light-table/) });
    const { reading, card } = await cardView(app.ctx, cardId);
    expect(reading).toBeNull();
    const told = (await through())!;
    expect(told).toMatchObject({
      photoId: id,
      cardId,
      markers: 4,
      tones: { told: 'by-one-photo', cameraIsTrue: true },
    });
    expect(told.cells.map(({ cellIndex }) => cellIndex)).toEqual([...card.layout.order].sort((a, b) => a - b));
    expect(told.bareThrough).toBeLessThan(0.01);
    expect(Math.max(...told.cells.map((cell) => cell.through))).toBeGreaterThan(0.5);
    const picture = await app.ctx.db.selectFrom('photoImage').select('role').where('photoId', '=', id).execute();
    expect(picture.map(({ role }) => role).sort()).toEqual(['original', 'preview', 'straightened']);
  });
  it('stands beside photos in a lamp’s light, which do not count it', async () => {
    const front = await take('front');
    const view = await cardView(app.ctx, cardId);
    expect(view.reading!.photoIds).toEqual([front]);
    expect(view.reading!.secondPhotoId).toBeNull();
    expect(view.through).not.toBeNull();
    const wish = { lightness: null, powerCap: 1, pace: 'fast-and-strong', cleared: true };
    const found = (await app.call('POST', `/api/cards/${cardId}/finding`, { wish })).json;
    expect(found.candidates.some(({ cleared }: { cleared: boolean | null }) => cleared !== null)).toBe(true);
    const kept = await app.call('POST', '/api/facts', {
      cardId,
      wish,
      choice: { cellIndex: found.candidates[0].cellIndex },
      note: '',
    });
    expect(kept.status).toBe(201);
    const [finding] = await app.ctx.db
      .selectFrom('finding')
      .select('throughReadingId')
      .where('cardId', '=', cardId)
      .execute();
    expect(finding!.throughReadingId).toBe(view.through!.id);
  });
  it('does not count while it is left aside, or once the card was burned anew', async () => {
    const first = (await through())!;
    const second = await take('behind');
    const both = (await through())!;
    expect(both).toMatchObject({ photoId: second, photoIds: [second, first.photoId] });
    // Surer than either photo by itself, in what is each one's own.
    for (const cell of both.cells) {
      const alone = first.cells.find(({ cellIndex }) => cellIndex === cell.cellIndex)!;
      expect(cell.sigma).toBeLessThanOrEqual(alone.sigma * 1.5);
      expect(Math.abs(cell.through - alone.through)).toBeLessThan(4 * alone.sigma);
    }
    const own = (reading: ThroughRecord): number => reading.cells.reduce((sum, { ownSigma }) => sum + ownSigma, 0);
    expect(own(both)).toBeLessThan(0.95 * own(first));
    expect((await app.call('PUT', `/api/photos/${second}/counts`, { counts: false })).status).toBe(200);
    expect(await through()).toEqual(first);
    expect((await app.call('PUT', `/api/photos/${second}/counts`, { counts: true })).status).toBe(200);
    expect(await through()).toEqual(both);
    await burnCard(app, cardId);
    expect(await through()).toBeNull();
  });
  it('tells its card whichever face is up, by a lamp’s light too: photos of both are merged', async () => {
    const photoOf = async (id: number) => (await app.call('GET', `/api/photos/${id}`)).json;
    const [front, back] = [await take('front'), await take('front', cardId, 'back')];
    expect(await photoOf(front)).toMatchObject({ status: 'read', mirrored: false });
    expect(await photoOf(back)).toMatchObject({ status: 'read', mirrored: true });
    expect((await cardView(app.ctx, cardId)).reading!.photoIds).toEqual([back, front]);
    const upright = await take('behind');
    const alone = (await through())!;
    const faceDown = await take('behind', cardId, 'back');
    expect(await photoOf(upright)).toMatchObject({ mirrored: false });
    expect(await photoOf(faceDown)).toMatchObject({ status: 'read', mirrored: true });
    const both = (await through())!;
    expect(both.photoIds).toEqual([faceDown, upright]);
    for (const cell of both.cells) {
      const before = alone.cells.find(({ cellIndex }) => cellIndex === cell.cellIndex)!;
      expect(Math.abs(cell.through - before.through)).toBeLessThan(4 * before.sigma);
    }
  });
  it('is refused of a card that is not asked about it, on a frame sheet, or twice', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch');
    const other = await makeCard(app, pairingId);
    await burnCard(app, other.id);
    const refused = await app.call('POST', `/api/cards/${other.id}/photograph?lit=behind`);
    expect(refused.json).toMatchObject({
      code: 'invalid-input',
      detail: expect.stringContaining('light that comes through'),
    });
    for (const asked of ['lit=behind&sheet=a5', 'lit=behind&photos=2', 'lit=below'])
      expect((await app.call('POST', `/api/cards/${cardId}/photograph?${asked}`)).status, asked).toBe(422);
    const [{ count }] = (await query(
      app.databaseUrl,
      `select count(*)::int as count from photo where card_id = ${other.id}`,
    )) as [{ count: number }];
    expect(count).toBe(0);
    // Nothing is seen through a board: its back has no marks.
    const board = await take('front', other.id, 'back');
    expect((await app.call('GET', `/api/photos/${board}`)).json).toMatchObject({
      status: 'needs-corners',
      mirrored: false,
    });
  });
  it('cannot be stored with shares that nothing lets through', async () => {
    const change = app.ctx.db.updateTable('cellThrough').set({ through: -0.1 }).execute();
    await expect(change).rejects.toThrow(/check constraint/);
  });
});
