import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { testApp, type TestApp } from '../support/context';
import { makeCard, makePairing } from '../support/records';

let app: TestApp;
beforeAll(async () => void (app = await testApp()));
afterAll(() => app.close());

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
