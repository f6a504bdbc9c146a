import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { photographCard } from '../../src/app/burns';
import { cardView } from '../../src/app/card-view';
import { readingsThatCount } from '../../src/db/readings';
import { query, testApp, type TestApp } from '../support/context';
import { burnCard, makeCard, makeCardOf, makePairing } from '../support/records';
import { lightnessUnderVeil } from '../../src/core/reading/light/under-veil';

let app: TestApp;
let pairingId: number;
beforeAll(async () => {
  app = await testApp();
  ({ pairingId } = await makePairing(app, 'heron', 'birch'));
});
afterAll(() => app.close());

interface Told {
  readonly id: number;
  readonly photoId: number;
  readonly photoIds: readonly number[];
  readonly cells: readonly {
    readonly lightness: number;
    readonly lightnessSigma: number;
    readonly sharedSigma: number;
  }[];
}
const told = async (cardId: number): Promise<Told> => (await app.call('GET', `/api/cards/${cardId}`)).json.reading;
const take = async (cardId: number, shotSeed: string, wiped = false): Promise<number> => {
  const { id } = await photographCard(app.ctx, cardId, { shotSeed, wiped });
  await app.ctx.readings.idle();
  return id;
};
const count = (photoId: number, counts: unknown) => app.call('PUT', `/api/photos/${photoId}/counts`, { counts });

describe('several photos of a card', () => {
  let cardId: number;
  let first: Told;
  let both: Told;
  beforeAll(async () => {
    cardId = (await makeCard(app, pairingId)).id;
    await burnCard(app, cardId);
    await take(cardId, 'one');
    first = await told(cardId);
    await take(cardId, 'two');
    both = await told(cardId);
  });
  it('are merged: it lies between what each shows, and is surer', async () => {
    const [second, again] = await readingsThatCount(app.ctx.db, cardId, true);
    expect(again!.id).toBe(first.id);
    expect(first.photoIds).toEqual([first.photoId]);
    expect(both).toMatchObject({ photoId: second!.photoId, photoIds: [second!.photoId, first.photoId] });
    both.cells.forEach((cell, index) => {
      const values = [first.cells[index]!.lightness, second!.cells[index]!.lightness];
      expect(cell.lightness).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
      expect(cell.lightness).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
      expect(cell.sharedSigma).toBeLessThanOrEqual(cell.lightnessSigma);
    });
    const mean = (cells: Told['cells']): number =>
      cells.reduce((sum, { lightnessSigma }) => sum + lightnessSigma / cells.length, 0);
    expect(mean(both.cells)).toBeLessThan(mean(first.cells));
  });
  it('count until they are left aside, and count again', async () => {
    const aside = await count(first.photoId, false);
    expect(aside.json).toMatchObject({ id: first.photoId, leftOut: true });
    const alone = await told(cardId);
    expect(alone).toMatchObject({ photoId: both.photoId, photoIds: [both.photoId] });
    // What was told stays as it was: it is told anew.
    expect(alone.id).toBeGreaterThan(both.id);
    const only = await count(both.photoId, false);
    expect(only.status).toBe(409);
    expect(only.json).toMatchObject({ code: 'only-photo', whatIsSafe: 'The photo counts as before.' });
    expect((await app.call('GET', `/api/photos/${both.photoId}`)).json.leftOut).toBe(false);
    expect((await told(cardId)).id).toBe(alone.id);
    expect((await count(first.photoId, true)).status).toBe(200);
    const again = await told(cardId);
    expect(again.photoIds).toEqual(both.photoIds);
    expect(again.cells).toEqual(both.cells);
  });
  it('say which of them has more light over it, and go by the other', async () => {
    const faultsOf = async (id: number) => (await app.call('GET', `/api/photos/${id}`)).json.faults;
    expect(await faultsOf(first.photoId)).toEqual([]);
    const own = (await readingsThatCount(app.ctx.db, cardId, true)).find(({ photoId }) => photoId === first.photoId)!;
    // What the first one would show under two hundredths of white.
    for (const { cellIndex, lightness, deltaLightness } of own.cells) {
      const bare = lightness - deltaLightness;
      const veiled = lightnessUnderVeil(lightness, bare, 0.02);
      await query(
        app.databaseUrl,
        `update cell_reading set lightness = ${veiled}, delta_lightness = ${veiled - bare} where reading_id = ${own.id} and cell_index = ${cellIndex}`,
      );
    }
    await count(first.photoId, false);
    const clear = await told(cardId);
    await count(first.photoId, true);
    const [fault, ...others] = await faultsOf(first.photoId);
    expect(fault).toMatchObject({ fault: 'more-light', area: null, cells: [] });
    expect(fault.amount / 0.02).toBeCloseTo(1, 0);
    expect([others, await faultsOf(both.photoId)]).toEqual([[], []]);
    const again = await told(cardId);
    expect(again.photoIds).toEqual(both.photoIds);
    again.cells.forEach(({ lightness, lightnessSigma }, index) => {
      expect(lightness).toBe(clear.cells[index]!.lightness);
      expect(lightnessSigma).toBeGreaterThan(clear.cells[index]!.lightnessSigma);
    });
  });
  it('are not asked to count in other words than yes and no', async () => {
    expect((await count(first.photoId, 'no')).status).toBe(422);
    expect((await count(987_654, false)).status).toBe(404);
  });
  it('are left behind when the card is burned again', async () => {
    await burnCard(app, cardId);
    const fresh = await take(cardId, 'three');
    expect(await told(cardId)).toMatchObject({ photoId: fresh, photoIds: [fresh] });
  });
});

/** A burned card on which so much is done after the burn. */
async function finishedBy(finish: 'none' | 'wiped'): Promise<number> {
  const { id } = await makeCardOf(app, pairingId, 'grid', (plan) => ({
    cellMm: 3,
    across: { ...plan.across, count: 3 },
    down: { ...plan.down, count: 3 },
    setup: { ...plan.setup, finish },
  }));
  await burnCard(app, id);
  return id;
}

describe('a card on which nothing is done between burn and photos', () => {
  let cardId: number;
  let ids: number[];
  beforeAll(async () => {
    cardId = await finishedBy('none');
    ids = [await take(cardId, 'four'), await take(cardId, 'five', true)];
  });
  it('is told by all its photos, whichever moment they name', async () => {
    expect((await told(cardId)).photoIds).toEqual([...ids].reverse());
    expect((await cardView(app.ctx, cardId)).before).toBeNull();
  });
  it('never shows a photo as read beside what older ones show', async () => {
    const meanwhile: Promise<number>[] = [];
    const readingQueries = new WeakSet<object>();
    const db = app.ctx.db.withPlugin({
      transformQuery: ({ node, queryId }) => {
        if (JSON.stringify(node).includes('"reading"')) readingQueries.add(queryId);
        return node;
      },
      // Once it is known what the card is told by, a further photo is taken and read before anything else is asked.
      transformResult: async ({ result, queryId }) => {
        if (!readingQueries.has(queryId)) return result;
        if (meanwhile.length === 0) meanwhile.push(take(cardId, 'eight'));
        await Promise.all(meanwhile);
        return result;
      },
    });
    const { photos, reading } = await cardView({ ...app.ctx, db }, cardId);
    expect(meanwhile).toHaveLength(1);
    for (const { id, status } of photos) if (status === 'read') expect(reading!.photoIds).toContain(id);
    expect((await told(cardId)).photoIds).toHaveLength(3);
  });
});

describe('photos before and after the finish', () => {
  it('are not merged: the newest moment counts', async () => {
    const cardId = await finishedBy('wiped');
    const before = await take(cardId, 'four');
    const beforeOf = async () => (await cardView(app.ctx, cardId)).before?.photoIds ?? null;
    // It is what the card is told by now.
    expect(await beforeOf()).toBeNull();
    const after = [await take(cardId, 'five', true), await take(cardId, 'six', true)];
    expect((await told(cardId)).photoIds).toEqual([...after].reverse());
    // What it showed then stands beside, unless its photo is left aside.
    expect(await beforeOf()).toEqual([before]);
    await count(before, false);
    expect(await beforeOf()).toBeNull();
    await count(before, true);
    expect(await beforeOf()).toEqual([before]);
    // Of a card that was burned once more it shows something else.
    await burnCard(app, cardId);
    await take(cardId, 'seven', true);
    expect(await beforeOf()).toBeNull();
  });
  it('go to the finding of a card that compares them, each as what it is', async () => {
    const { id } = await makeCardOf(app, pairingId, 'a-b', (plan) => ({
      what: 'cleaned',
      setup: { ...plan.setup, finish: 'wiped', lookedAt: 'both' },
    }));
    await burnCard(app, id);
    const found = async () => (await app.call('POST', `/api/cards/${id}/finding`, { wish: {} })).json;
    await take(id, 'nine');
    const { cells: before } = await told(id);
    expect(await found()).toMatchObject({ told: null, missing: [expect.stringMatching(/^Two photos tell/)] });
    await take(id, 'ten', true);
    const { missing, told: compared, cells } = await found();
    expect([missing, compared === null]).toEqual([[], false]);
    // What it was burned like is the older photo's.
    const [first] = cells as { cellIndex: number; side: string; lightness: number }[];
    expect(first).toMatchObject({ side: 'a', lightness: before[first!.cellIndex]!.lightness });
  });
});
