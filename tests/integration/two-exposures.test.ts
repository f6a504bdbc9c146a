import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { photographCard } from '../../src/app/burns';
import { casualShot, exposedLess, jpegOf, photograph } from '../../src/bench/bench';
import type { Tones } from '../../src/core/reading/tone/tones';
import { photosOfCard } from '../../src/db/photos';
import { burnOnBench } from '../../stand-ins/burn';
import { demoPairing } from '../../stand-ins/demo';
import { query, testApp, type TestApp } from '../support/context';
import { burnCard, makeCard, makePairing } from '../support/records';

let app: TestApp;
let pairingId: number;
beforeAll(async () => {
  app = await testApp();
  ({ pairingId } = await makePairing(app, 'heron', 'leather'));
});
afterAll(() => app.close());

const readingOf = async (cardId: number) => (await app.call('GET', `/api/cards/${cardId}`)).json.reading;
const bytesOf = async (photoId: number): Promise<Buffer> => {
  const { response } = await app.call('GET', `/api/photos/${photoId}/images/original`);
  return Buffer.from(await response.arrayBuffer());
};
/** What the card is told by where this photo alone counts: photos that count are merged. */
async function toldBy(cardId: number, photoId: number) {
  await app.ctx.readings.idle();
  for (const { id } of await photosOfCard(app.ctx.db, cardId))
    await app.call('PUT', `/api/photos/${id}/counts`, { counts: id === photoId });
  return readingOf(cardId);
}

/** Burned once for all: a burn takes the bench longer than its photos do. */
let cardId: number;
beforeAll(async () => {
  cardId = (await makeCard(app, pairingId)).id;
  await burnCard(app, cardId);
});

describe('two photos of a card, one of them darker', () => {
  let plainId: number;
  beforeAll(async () => {
    const taken = await app.call('POST', `/api/cards/${cardId}/photograph?photos=2`);
    expect(taken.status).toBe(201);
    plainId = taken.json.id;
    await app.ctx.readings.idle();
  });
  it('are what the simulated camera takes when it is asked for two; for three it is not asked', async () => {
    expect((await app.call('POST', `/api/cards/${cardId}/photograph?photos=3`)).status).toBe(422);
    expect(await photosOfCard(app.ctx.db, cardId)).toHaveLength(2);
  });
  it('are told apart by what the camera wrote into them', async () => {
    const [plain, darker, ...more] = await photosOfCard(app.ctx.db, cardId);
    expect(more).toEqual([]);
    expect(plain!.id).toBe(plainId);
    expect(plain!.exposure!.camera).toBe('Saltgrass simulated camera');
    expect(plain!.exposure!.timeS / darker!.exposure!.timeS).toBeCloseTo(2 ** 1.5, 2);
  });
  it('tell together that the camera stores light as it is; the brighter one is what the card is told by', async () => {
    const [, darker] = await photosOfCard(app.ctx.db, cardId);
    const reading = await readingOf(cardId);
    expect(reading).toMatchObject({ photoId: plainId, secondPhotoId: darker!.id, tones: { told: 'by-two' } });
    expect(reading.tones.bentBy).toBeLessThan(0.25);
    const [camera] = await query(
      app.databaseUrl,
      `select c.bent_by, r.tones from camera c join reading r on r.id = c.reading_id`,
    );
    expect(camera).toEqual({
      bent_by: (camera!.tones as Tones & { told: 'by-two' }).bentBy,
      tones: expect.objectContaining({ told: 'by-two' }),
    });
  });
  it('change hardly anything where the camera stores light as it is', async () => {
    const byTwo = await readingOf(cardId);
    const { id } = await photographCard(app.ctx, cardId, { shotSeed: 'by itself' });
    const byOne = await toldBy(cardId, id);
    expect(byOne).toMatchObject({
      photoIds: [id],
      secondPhotoId: null,
      tones: { told: 'by-one-photo', cameraIsTrue: true },
    });
    byOne.cells.forEach(({ lightness }: { lightness: number }, index: number) =>
      expect(Math.abs(lightness - byTwo.cells[index].lightness)).toBeLessThan(1),
    );
  });
});

describe('two photos by one camera', () => {
  /** What a card is told by: one photo of a camera that stores light as it is, one of this camera, and two of it. */
  async function told(bends: (byte: number) => number) {
    const { id: cardId } = await makeCard(app, pairingId);
    const { layout } = (await app.call('GET', `/api/cards/${cardId}`)).json.card;
    const piece = burnOnBench(layout, demoPairing('heron', 'leather'), 'bent');
    const shot = { ...casualShot('bent'), widthPx: 1600, heightPx: 1200 };
    const take = (stopsLess: number, as: (byte: number) => number): Promise<Buffer> => {
      const photo = photograph(piece, exposedLess(shot, stopsLess));
      return jpegOf({ ...photo, data: photo.data.map((byte) => Math.round(as(byte))) });
    };
    const read = async (bytes: Buffer, name: string, insteadOf?: number) => {
      const { json } = await app.call('POST', `/api/cards/${cardId}/photos?name=${name}`, new Uint8Array(bytes));
      await app.ctx.readings.idle();
      // Photos that count are merged: what this one tells is told by leaving the other aside.
      if (insteadOf !== undefined) await app.call('PUT', `/api/photos/${insteadOf}/counts`, { counts: false });
      return { sentId: json.id as number, reading: await readingOf(cardId) };
    };
    // Without its word on the exposure it is nobody's second photo.
    const truth = await read(
      await sharp(await take(0, (byte) => byte))
        .jpeg({ quality: 95 })
        .toBuffer(),
      'truth.jpg',
    );
    const alone = await read(await take(0, bends), 'brighter.jpg', truth.sentId);
    const both = await read(await take(1.5, bends), 'darker.jpg');
    const off = ({ reading }: typeof alone): number =>
      Math.max(
        ...reading.cells.map(({ lightness }: { lightness: number }, index: number) =>
          Math.abs(lightness - truth.reading.cells[index].lightness),
        ),
      );
    return { alone, both, off };
  }
  it('are put right where it bends tones; one alone is off by many L*', async () => {
    const { alone, both, off } = await told((byte) => byte - 255 * 0.05 * Math.sin((2 * Math.PI * byte) / 255));
    expect(alone.reading).toMatchObject({
      photoId: alone.sentId,
      secondPhotoId: null,
      tones: { told: 'by-one-photo' },
    });
    expect(off(alone)).toBeGreaterThan(3);
    // The darker one came later; the brighter one was read again with it.
    expect(both.reading).toMatchObject({
      photoId: alone.sentId,
      secondPhotoId: both.sentId,
      tones: { told: 'by-two' },
    });
    expect(both.reading.tones.bentBy).toBeGreaterThan(0.3);
    expect(off(both)).toBeLessThan(1);
  });
});

describe('a camera', () => {
  const NAME = 'Saltgrass simulated camera';
  const markedOn = async (shotSeed: string): Promise<{ tones: object; unknown: number }> => {
    const { id } = await photographCard(app.ctx, cardId, { shotSeed });
    const { tones, cells } = await toldBy(cardId, id);
    return {
      tones,
      unknown: cells.filter(({ doubts }: { doubts: string[] }) => doubts.includes('tones-unknown')).length,
    };
  };
  it('is trusted with one photo where it was found true to light, and not where it was found to bend tones', async () => {
    await query(app.databaseUrl, `update camera set bent_by = 0.11 where name = '${NAME}'`);
    const trusted = await markedOn('nearly true');
    expect(trusted).toEqual({ tones: { told: 'by-one-photo', cameraIsTrue: true }, unknown: 0 });
    await query(app.databaseUrl, `update camera set bent_by = 0.13 where name = '${NAME}'`);
    const bent = await markedOn('bent');
    expect(bent.tones).toEqual({ told: 'by-one-photo', cameraIsTrue: false });
    expect(bent.unknown).toBeGreaterThan(3);
    await query(app.databaseUrl, `delete from camera where name = '${NAME}'`);
    const { tones, unknown } = await markedOn('never heard of');
    expect(tones).toEqual(bent.tones);
    expect(unknown).toBeGreaterThan(3);
  });
});

describe('a photo that says nothing of its exposure', () => {
  it('is read by itself', async () => {
    const taken = await photographCard(app.ctx, cardId, { shotSeed: 'says nothing' });
    const plain = await sharp(await bytesOf(taken.id))
      .jpeg({ quality: 90 })
      .toBuffer();
    const sent = await app.call('POST', `/api/cards/${cardId}/photos?name=plain.jpg`, new Uint8Array(plain));
    const reading = await toldBy(cardId, sent.json.id);
    expect((await photosOfCard(app.ctx.db, cardId)).find(({ id }) => id === sent.json.id)!.exposure).toBeNull();
    const tones = { told: 'by-one-photo', cameraIsTrue: false };
    expect(reading).toMatchObject({ photoId: sent.json.id, secondPhotoId: null, tones });
  });
});
