import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { photographCard } from '../../src/app/burns';
import { casualShot, exposedLess, jpegOf, photograph } from '../../src/bench/bench';
import { printedSheet } from '../../src/bench/printed-sheet';
import { printOrder } from '../../src/app/print-order';
import { query, testApp, type TestApp } from '../support/context';
import type { Cell } from '../../src/core/card/layout';
import { burnCard, makeCard, makeCardOf, makePairing } from '../support/records';

let app: TestApp;
let cardId: number;
beforeAll(async () => {
  app = await testApp();
  const { pairingId } = await makePairing(app, 'heron', 'leather');
  cardId = (await makeCard(app, pairingId)).id;
  await burnCard(app, cardId);
});
afterAll(() => app.close());

const add = (change: object = {}) =>
  app.call('POST', '/api/frame-sheets', { name: 'Office', format: 'a5', ruleMm: 100, ...change });
const send = (id: number, bytes: Buffer) => app.call('POST', `/api/frame-sheets/${id}/photos`, new Uint8Array(bytes));
/** A photo of a sheet from the bench's printer, under the seed's light. */
const photoOf = (format: 'a5' | 'letter', stopsLess: number, seed = 'sheet'): Promise<Buffer> =>
  jpegOf(
    photograph(printedSheet(printOrder(format), null, 'p', '', 8), {
      ...exposedLess(casualShot(seed), stopsLess),
      widthPx: 1200,
      heightPx: 900,
    }),
  );
/** What the newest photo of the card tells by itself. */
async function told(shotSeed: string) {
  // A card's markers are small beside a sheet: the tests' two megapixels are too few.
  const { id } = await photographCard({ ...app.ctx, cameraScale: 0.8 }, cardId, { shotSeed, onSheet: 'a5' });
  await app.ctx.readings.idle();
  const [reading] = await query(
    app.databaseUrl,
    `select tones, frame_sheet_id from reading where photo_id = ${id} and merged_from is null`,
  );
  return reading!;
}

describe('a frame sheet', () => {
  it('comes as a PDF of each paper, and of no other', async () => {
    for (const format of ['a5', 'letter']) {
      const { response } = await app.call('GET', `/api/frame-sheets/print/${format}`);
      expect(response.headers.get('content-type')).toBe('application/pdf');
      expect(response.headers.get('content-disposition')).toContain(`frame-sheet-${format}.pdf`);
      expect(
        Buffer.from(await response.arrayBuffer())
          .subarray(0, 5)
          .toString(),
      ).toBe('%PDF-');
    }
    expect((await app.call('GET', '/api/frame-sheets/print/a3')).status).toBe(422);
  });
  it('is refused where it was not printed to scale, and by the database too', async () => {
    const shrunk = await add({ ruleMm: 97 });
    expect(shrunk).toMatchObject({
      status: 422,
      json: { code: 'print-scale', detail: expect.stringContaining('shrunk by 3.0 %') },
    });
    expect((await add({ ruleMm: 103 })).json.detail).toContain('enlarged by 3.0 %');
    expect((await add({ ruleMm: null })).status).toBe(422);
    expect((await add({ name: ' ' })).status).toBe(422);
    expect((await app.call('GET', '/api/frame-sheets')).json).toEqual([]);
    await expect(
      query(app.databaseUrl, `insert into frame_sheet (name, format, rule_mm) values ('x', 'a5', 97)`),
    ).rejects.toThrow(/rule_mm/);
  });
});

describe('photos of a card on a sheet', () => {
  it('are told by it from when its greys were measured on, and say by which', async () => {
    expect((await told('before')).tones).toMatchObject({ told: 'not-told', why: 'sheet-not-measured' });
    const { json: sheet } = await add();
    expect(sheet).toMatchObject({
      name: 'Office',
      format: 'a5',
      ruleMm: 100,
      greys: null,
      measuredAt: null,
      photos: 0,
    });
    const measured = await app.call('POST', `/api/frame-sheets/${sheet.id}/photograph`);
    expect(measured.status).toBe(201);
    expect(measured.json.photos).toBe(0);
    expect(measured.json.measuredAt).not.toBeNull();
    expect(measured.json.greys.reflectances).toHaveLength(9);
    const [darkest] = measured.json.greys.reflectances;
    // What the printer's ink has of its paper.
    expect(darkest[1]).toBeCloseTo(0.036 / 0.86, 2);
    // The photo that was taken on it before is read again, and tells more now.
    await app.ctx.readings.idle();
    const [before] = await query(
      app.databaseUrl,
      'select tones from reading where merged_from is null order by id desc limit 1',
    );
    expect(before!.tones).toMatchObject({ told: 'by-sheet', format: 'a5' });
    const by = await told('after');
    expect(by).toEqual({
      tones: { told: 'by-sheet', format: 'a5', bentBy: expect.any(Number) },
      frame_sheet_id: sheet.id,
    });
    // What it tells of the camera is kept, as what two exposures tell is.
    const [camera] = await query(app.databaseUrl, 'select bent_by from camera');
    expect(camera!.bent_by).toBe((by.tones as { bentBy: number }).bentBy);
    // Measured once: what was read by it stays as it was told.
    expect((await app.call('POST', `/api/frame-sheets/${sheet.id}/photograph`)).json.code).toBe('sheet-measured');
    expect((await send(sheet.id, await photoOf('a5', 0))).json.code).toBe('sheet-measured');
  });
});

describe('a card without markers', () => {
  it('is read lying on a sheet, found by its cells; elsewhere its corners are asked for', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather');
    const { id } = await makeCardOf(app, pairingId, 'grid', (plan) => ({
      across: { ...plan.across, count: 4 },
      down: { ...plan.down, count: 3 },
      leaveOutFailing: false,
      frame: { ...plan.frame, markers: 'on-sheet' },
    }));
    await burnCard(app, id);
    const view = async () => (await app.call('GET', `/api/cards/${id}`)).json;
    expect((await view()).card.layout.frame.markers).toEqual([]);
    await photographCard(app.ctx, id, { shotSeed: 'bare bench' });
    await app.ctx.readings.idle();
    expect((await view()).photos[0]).toMatchObject({ status: 'needs-corners', detail: { markers: 0 } });
    await photographCard({ ...app.ctx, cameraScale: 0.7 }, id, { shotSeed: 'on a sheet', onSheet: 'a5' });
    await app.ctx.readings.idle();
    const { photos, reading } = await view();
    expect(photos[0].status).toBe('read');
    expect(reading).toMatchObject({ markers: 0, tones: { told: 'by-sheet', format: 'a5' } });
    expect(reading.cells).toHaveLength(12);
    // More energy, darker: the cells are those that they are taken for.
    const risk = new Map((await view()).card.layout.cells.map((cell: Cell) => [cell.index, cell.risk]));
    const byRisk = [...reading.cells].sort((a, b) => Number(risk.get(a.cellIndex)) - Number(risk.get(b.cellIndex)));
    expect(byRisk.at(-1).deltaLightness).toBeLessThan(byRisk[0].deltaLightness - 5);
  });
});

describe('photos of a sheet', () => {
  it('are two of one light: one alone waits, with the other the greys are told', async () => {
    const { json: sheet } = await add({ name: 'By upload' });
    const darker = await photoOf('a5', 1.5);
    const once = await send(sheet.id, darker);
    expect(once).toMatchObject({ status: 201, json: { photos: 1, greys: null } });
    expect((await send(sheet.id, darker)).json.photos).toBe(1);
    const both = await send(sheet.id, await photoOf('a5', 0));
    expect(both.json).toMatchObject({ photos: 0, greys: { reflectances: expect.any(Array) } });
    expect((await app.call('GET', '/api/frame-sheets')).json[0]).toEqual(both.json);
    // From now on this print is in use.
    expect((await told('by the newer')).frame_sheet_id).toBe(sheet.id);
  });
  it('are refused with the reason where they tell nothing, and let go; the sheet is kept', async () => {
    const { json: sheet } = await add({ format: 'letter' });
    await send(sheet.id, await photoOf('a5', 1.5));
    const other = await send(sheet.id, await photoOf('a5', 0));
    expect(other).toMatchObject({
      status: 422,
      json: { code: 'sheet-not-measured', detail: expect.stringContaining('another format') },
    });
    const { json: all } = await app.call('GET', '/api/frame-sheets');
    expect(all.find(({ id }: { id: number }) => id === sheet.id)).toMatchObject({ greys: null, photos: 0 });
    const blank = (stops: number) =>
      sharp({ create: { width: 600, height: 400, channels: 3, background: '#bbb' } })
        .jpeg()
        .withExif({
          IFD0: { Make: 'A', Model: 'b' },
          IFD2: {
            ExposureTime: `1/${100 * 2 ** stops}`,
            ISOSpeedRatings: '100',
            FNumber: '18/10',
            ExposureBiasValue: `${-100 * stops}/100`,
          },
        })
        .toBuffer();
    await send(sheet.id, await blank(0));
    expect((await send(sheet.id, await blank(1))).json).toMatchObject({
      code: 'sheet-not-measured',
      detail: expect.stringContaining('corner markers'),
    });
  });
  it('must say how they were exposed, and be photos', async () => {
    const { json: sheet } = await add();
    const plain = await sharp(await photoOf('a5', 0))
      .jpeg()
      .toBuffer();
    expect((await send(sheet.id, plain)).json.code).toBe('photo-without-exposure');
    expect((await send(sheet.id, Buffer.from('no picture'))).json.code).toBe('photo-not-readable');
    expect((await send(987_654, plain)).status).toBe(404);
  });
});
