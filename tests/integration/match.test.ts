import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { benchBurnOf } from '../../src/app/bench-pieces';
import { getCard } from '../../src/app/cards';
import { compareView, NO_TONE } from '../../src/app/compare';
import { photographForMatch } from '../../src/app/matches';
import { burnPrograms } from '../../src/bench/bench';
import type { Piece } from '../../src/bench/piece';
import { luminance } from '../../src/core/color/srgb';
import type { Layout } from '../../src/core/card/layout';
import { project } from '../../src/core/geometry/homography';
import { findMarkersOfCard } from '../../src/core/reading/find-markers-of-card';
import { locateCard } from '../../src/core/reading/locate-card';
import { openPhoto } from '../../src/workers/open-photo';
import { lightnessOfLuminance, luminanceOfLightness } from '../../src/core/color/lab';
import { testApp, type TestApp } from '../support/context';
import { burnCard, makeCard, makePairing } from '../support/records';

let app: TestApp;
let pairingId: number;
let cardId: number;
beforeAll(async () => {
  app = await testApp();
  ({ pairingId } = await makePairing(app, 'heron', 'leather'));
  ({ id: cardId } = await makeCard(app, pairingId));
  await burnCard(app, cardId);
});
afterAll(() => app.close());

/** What the bench burned of the card, in the order the bench asks for it. */
const burnOf = async () => {
  const { programs, machine, sheet, place, burnSeed } = await benchBurnOf(app.ctx, await getCard(app.ctx, cardId));
  return [programs, machine, sheet, place, burnSeed] as const;
};
/** Mean luminance of a square of the piece, in card millimetres. */
function luminanceOf(piece: Piece, xMm: number, yMm: number, sideMm: number): number {
  const px = (mm: number): number => Math.round((mm + piece.marginMm) * piece.pxPerMm);
  let [sum, count] = [0, 0];
  for (let y = px(yMm - sideMm / 2); y < px(yMm + sideMm / 2); y++)
    for (let x = px(xMm - sideMm / 2); x < px(xMm + sideMm / 2); x++) {
      const [red, green, blue] = piece.after.subarray((y * piece.width + x) * 3) as unknown as [number, number, number];
      sum += luminance(red, green, blue);
      count++;
    }
  return sum / count;
}
const photograph = () => app.call('POST', '/api/matches/photograph', { cardId });

describe('a piece beside a frame sheet', () => {
  it('is not taken in before the greys of a sheet were measured, nor without a sheet', async () => {
    expect((await photograph()).json).toMatchObject({
      code: 'no-tone',
      detail: expect.stringContaining('never measured'),
    });
    const { json: sheet } = await app.call('POST', '/api/frame-sheets', { name: 'A5', format: 'a5', ruleMm: 100 });
    expect((await app.call('POST', `/api/frame-sheets/${sheet.id}/photograph`)).status).toBe(201);
    await app.call('POST', `/api/cards/${cardId}/photograph`);
    await app.ctx.readings.idle();
    const [photo] = (await app.call('GET', `/api/cards/${cardId}`)).json.photos;
    const image = await app.call('GET', `/api/photos/${photo.id}/images/original`);
    const bytes = Buffer.from(await image.response.arrayBuffer());
    expect((await app.call('POST', '/api/matches', bytes)).json).toMatchObject({
      code: 'no-tone',
      detail: expect.stringContaining('shows no frame sheet'),
    });
    expect((await app.call('POST', '/api/matches', Buffer.from('a letter'))).json.code).toBe('photo-not-readable');
    expect((await app.call('GET', '/api/matches')).json).toEqual([]);
  });

  it('tells the tone of each place to what it says of itself, by the paper and beside bare stock', async () => {
    // Markers of a card are small beside a sheet: the tests' two megapixels are too few to say where its cells lie.
    const photo = await photographForMatch({ ...app.ctx, cameraScale: 0.8 }, cardId);
    const image = await app.call('GET', `/api/matches/${photo.id}/image`);
    expect(image.response.headers.get('content-type')).toBe('image/jpeg');
    const { card } = (await app.call('GET', `/api/cards/${cardId}`)).json;
    const { layout }: { layout: Layout } = card;
    const opened = await openPhoto(Buffer.from(await image.response.arrayBuffer()));
    if (!opened.opened) throw new Error(opened.reason);
    const located = locateCard(layout, findMarkersOfCard(opened.photo, layout));
    if (located.found !== 'card') throw new Error(located.found);
    const scale = photo.widthPx / opened.photo.width;
    const radiusPx = 0.9 * photo.pxPerMm;
    const at = (xMm: number, yMm: number) => {
      const { x, y } = project(located.toPhoto, xMm, yMm);
      return { x: x * scale, y: y * scale, radiusPx };
    };
    const piece = burnPrograms(...(await burnOf()));
    const tell = (place: object, bare: object | null) =>
      app.call('POST', `/api/matches/${photo.id}/tone`, { place, bare });
    const bareX = layout.cells[0]!.box.x - 1.3;
    for (const index of [0, 4, 8]) {
      const { x, y, width, height } = layout.cells[index]!.box;
      const [middleX, middleY] = [x + width / 2, y + height / 2];
      const { json: told } = await tell(at(middleX, middleY), at(bareX, middleY));
      const truth = luminanceOf(piece, middleX, middleY, 1.6) / luminanceOf(piece, bareX, middleY, 1.6);
      const off = Math.abs(Math.log(told.overBare.ratio / truth));
      expect(off, `cell ${index}`).toBeLessThan(2 * told.overBare.sigmaShare);
      // What is darker than the darkest grey is less sure.
      expect(told.overBare.sigmaShare).toBeLessThan(truth > 0.15 ? 0.1 : 0.4);
      // The printer’s paper sends back about what office paper is taken to.
      const lightness = lightnessOfLuminance(luminanceOf(piece, middleX, middleY, 1.6));
      expect(Math.abs(told.lightness - lightness), `cell ${index}`).toBeLessThan(3 * told.sigma);
      expect(told.sigma).toBeLessThan(6);
    }
    const middle = at(layout.widthMm / 2, layout.heightMm / 2);
    expect((await tell(middle, middle)).json.overBare.ratio).toBeCloseTo(1, 9);
    expect((await tell(middle, null)).json.overBare).toBeNull();
    expect((await tell({ x: 1, y: 1, radiusPx }, null)).json.code).toBe('no-tone');
    expect((await tell({ ...middle, radiusPx: 0 }, null)).status).toBe(422);
    expect((await app.call('POST', '/api/matches/4711/tone', { place: middle, bare: null })).status).toBe(404);
  });

  it('is matched on each bench by its tone, and beside bare stock by the bench’s own', async () => {
    const { stock } = (await app.call('GET', `/api/pairings/${pairingId}`)).json.pairing;
    const view = await compareView(app.ctx, [pairingId], null, { lightness: 40, sigma: 1.5, overBare: 0.3 });
    const byTone = view.rows.find(({ title }) => title === 'To match a tone')!;
    const byBare = view.rows.find(({ title }) => title === 'To match it beside bare stock')!;
    expect(byTone.hint).toContain('L* 40 ± 3');
    expect(byBare.hint).toContain('30 % of the light of bare stock');
    // The same as asking for that tone.
    const lightness = lightnessOfLuminance(0.3 * luminanceOfLightness(stock.bareLightness));
    const same = await compareView(app.ctx, [pairingId], null, { ...NO_TONE, lightness });
    expect(byBare.cells).toEqual(same.rows.find(({ title }) => title === 'To match a tone')!.cells);
    expect(byBare.cells).not.toEqual(byTone.cells);
    const none = await compareView(app.ctx, [pairingId], null);
    expect(none.rows.some(({ title }) => title.startsWith('To match'))).toBe(false);
    // Time at a darkness that no patch of its card has.
    const dark = await compareView(app.ctx, [pairingId], 98);
    expect(dark.rows.find(({ title }) => title.endsWith('equal darkness'))!.cells[0]!.text).toBe(
      'no patch came so far',
    );
  });
});
