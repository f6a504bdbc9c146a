import { afterAll, beforeAll, expect, it, describe } from 'vitest';
import { photographCard } from '../../src/app/burns';
import { query, testApp, type TestApp } from '../support/context';
import { burnCard, makeCardOf, makePairing } from '../support/records';

let app: TestApp;
let pairingId: number;
let cardId: number;
const WIDE = { from: -3, to: 3, count: 13, spacing: 'even' };
beforeAll(async () => {
  app = await testApp();
  ({ pairingId } = await makePairing(app, 'heron', 'leather'));
  ({ id: cardId } = await makeCardOf(app, pairingId, 'focus', () => ({ way: 'tilt', focus: WIDE, spacerMm: 12 })));
});
afterAll(() => app.close());

describe('a focus card over a tilted board', () => {
  it('is refused on a spacer that would stand under it', async () => {
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/focus`)).json;
    const { status, json } = await app.call('POST', '/api/cards', {
      pairingId,
      kind: 'focus',
      plan: { ...plan, way: 'tilt', focus: WIDE, spacerMm: 4 },
      sheetPlace: null,
      sheetOnBed: { leftMm: 40, rearMm: 40 },
    });
    expect([status, JSON.stringify(json)]).toEqual([422, expect.stringMatching(/spacerMm.*the board tip over/)]);
  });
  it('asks for the tilt before the burn and once in it, burns in one go and is found', async () => {
    const cautions = (await app.call('GET', `/api/cards/${cardId}/cautions`)).json as { text: string }[];
    expect(
      cautions.filter(({ text }) => /^Tilt the board: .* spacer of 12 mm .* from the card’s left edge\.$/.test(text)),
    ).toHaveLength(1);
    const burnId = await burnCard(app, cardId);
    const [row] = await query(app.databaseUrl, `select hands from burn where id = ${burnId}`);
    expect(row!['hands']).toHaveLength(1);
    await photographCard({ ...app.ctx, cameraScale: 0.7 }, cardId, { shotSeed: 'tilted' });
    await app.ctx.readings.idle();
    const { reading } = (await app.call('GET', `/api/cards/${cardId}`)).json;
    const strongest = reading.cells.reduce((best: any, cell: any) =>
      (cell.lines?.visibility ?? 0) > (best.lines?.visibility ?? 0) ? cell : best,
    );
    // Lines show most near the middle, and next to not at the ends.
    expect(strongest.cellIndex).toBeGreaterThan(4);
    expect(strongest.cellIndex).toBeLessThan(8);
    const kept = await app.call('POST', '/api/facts', { cardId, wish: {}, choice: {}, note: '' });
    expect(kept.status).toBe(201);
    const { factId } = kept.json.facts.find(({ name }: { name: string }) => name === 'waist');
    const [waist] = await query(app.databaseUrl, `select value, sigma from fact_version where fact_id = ${factId}`);
    expect(Math.abs((waist!['value'] as { offsetMm: number }).offsetMm)).toBeLessThan(2 * Number(waist!['sigma']));
  });
});
