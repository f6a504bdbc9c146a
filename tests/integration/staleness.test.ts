import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bookView, factView } from '../../src/app/book-views';
import { dayOf } from '../../src/core/quantities/day';
import { FROM_NO_CARD, insertFactVersion, type NewFactVersion } from '../../src/db/facts';
import { query, testApp, type TestApp } from '../support/context';
import { burnCard, makeCard, makePairing } from '../support/records';

let app: TestApp;
let pairingId: number;
let beside: number;
let machineId: number;
beforeAll(async () => {
  app = await testApp();
  ({ pairingId, machineId } = await makePairing(app, 'marl', 'alder', 'Ageing'));
  const { json: other } = await app.call('GET', `/api/pairings/${pairingId}`);
  const { pairing } = other;
  const sheet = await makePairing(app, 'heron', 'cork');
  ({
    json: { id: beside },
  } = await app.call('POST', '/api/pairings', { machineId, lensId: pairing.lens.id, stockId: sheet.stockId }));
});
afterAll(() => app.close());

const keep = (on: number, name: NewFactVersion['name'], value: object) =>
  app.ctx.db
    .transaction()
    .execute((tx) =>
      insertFactVersion(
        tx,
        { pairingId: on },
        { ...FROM_NO_CARD, name, at: {}, value: value as never, sigma: null, origin: 'brought', madeFor: {}, note: '' },
      ),
    );
const rungOf = async (on: number, rung: string) =>
  (await app.call('GET', `/api/pairings/${on}`)).json.ladder.find((one: { rung: string }) => one.rung === rung);

describe('what makes a rung stale', () => {
  it('is a rung below it that was done again and came out otherwise: on the ladder, in the book and on its page', async () => {
    await keep(pairingId, 'floor', { powerFraction: 0.05 });
    const { factId } = await keep(pairingId, 'ceiling', { powerFraction: 0.5 });
    expect((await rungOf(pairingId, 'ceiling')).reason).toBe('brought along, not proven here');
    await keep(pairingId, 'floor', { powerFraction: 0.051 });
    expect((await rungOf(pairingId, 'ceiling')).state).toBe('predicted');
    await keep(pairingId, 'floor', { powerFraction: 0.08 });
    const floor = (await bookView(app.ctx, 'Ageing floor', 1)).rows[0]!;
    const reason = `Threshold redone on ${dayOf(floor.keptAt)}: floor 8 %, was floor 5 %`;
    expect(await rungOf(pairingId, 'ceiling')).toMatchObject({ state: 'stale' });
    expect((await rungOf(pairingId, 'ceiling')).reason).toContain(reason);
    const { rows } = await bookView(app.ctx, 'Ageing ceiling', 1);
    expect(rows[0]!.stale).toEqual([reason]);
    expect((await factView(app.ctx, factId)).stale).toEqual([reason]);
    // Kept once more it stands on what is known now.
    await keep(pairingId, 'ceiling', { powerFraction: 0.5 });
    expect((await rungOf(pairingId, 'ceiling')).state).toBe('predicted');
  });

  it('are the hours that its source burned since, on every pairing of the machine', async () => {
    await keep(beside, 'floor', { powerFraction: 0.06 });
    const card = await makeCard(app, pairingId);
    const burnId = await burnCard(app, card.id);
    // The kept ladder of the other pairing is as fresh as can be.
    expect((await rungOf(beside, 'threshold')).state).toBe('predicted');
    const burned = (hours: number): Promise<unknown> =>
      query(
        app.databaseUrl,
        `update burn set actual_s = ${hours * 3600}, started_at = now() + interval '1 day', ended_at = now() + interval '2 days' where id = ${burnId}`,
      );
    await burned(199);
    expect((await rungOf(beside, 'threshold')).state).toBe('predicted');
    await burned(230);
    expect(await rungOf(beside, 'threshold')).toMatchObject({
      state: 'stale',
      reason: 'its source has burned 230 h since, brought along, not proven here',
    });
    const { rows } = await bookView(app.ctx, 'Ageing floor', 1);
    expect(rows.map(({ stale }) => stale)).toContainEqual(['its source has burned 230 h since']);
    await query(app.databaseUrl, `update burn set ended_at = null, status = 'paused' where id = ${burnId}`);
    expect((await rungOf(beside, 'threshold')).state).toBe('predicted');
  });
});
