import { photographCard } from '../../src/app/burns';
import type { CellReading } from '../../src/core/reading/observations';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_STOCKS } from '../../src/demo/world';
import { testApp, type TestApp } from '../support/context';
import { burnCard, makeCardOf, makePairing } from '../support/records';

let app: TestApp;
beforeAll(async () => void (app = await testApp()));
afterAll(() => app.close());

describe('a card that is judged by its lines', () => {
  it('is told by a photo that is near enough, and the eye is asked for the rest', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id } = await makeCardOf(app, pairingId, 'interval');
    await burnCard(app, id);
    // The tests' two megapixels are too few for lines.
    await photographCard({ ...app.ctx, cameraScale: 0.9 }, id, { shotSeed: 'lines' });
    await app.ctx.readings.idle();
    const { json } = await app.call('GET', `/api/cards/${id}`);
    expect(json.photos[0].status).toBe('read');
    const told = json.reading.cells.filter(({ lines }: CellReading) => lines !== null);
    expect(told.length).toBeGreaterThanOrEqual(2);
    for (const { cellIndex, lines } of told) {
      const { intervalMm } = json.card.layout.cells[cellIndex].burns.at(-1).settings;
      expect(lines.visibilitySigma).toBeGreaterThan(0);
      if (lines.pitchMm !== null) expect(Math.abs(lines.pitchMm / intervalMm - 1)).toBeLessThan(0.01);
    }
    // Coarser strips show their lines more.
    const strength = told.map(({ lines }: CellReading) => lines!.visibility);
    expect(strength).toEqual([...strength].sort((a, b) => a - b));
    const finding = await app.call('POST', `/api/cards/${id}/finding`, { wish: {} });
    expect(finding.json.strips.every(({ by }: { by: string }) => by === 'photo')).toBe(true);
    expect(finding.json.strips.length + finding.json.undecided.length).toBe(6);
  });
  it('is told by single lines, whose widths are kept and come back as they were', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'slate');
    const { id } = await makeCardOf(app, pairingId, 'line-width');
    await burnCard(app, id);
    await photographCard({ ...app.ctx, cameraScale: 1 }, id, { shotSeed: 'single lines' });
    await app.ctx.readings.idle();
    const { json } = await app.call('GET', `/api/cards/${id}`);
    const told = (json.reading.cells as CellReading[]).flatMap(({ line }) => (line?.widthMm ? [line] : []));
    expect(told.length).toBeGreaterThan(10);
    for (const { widthMm, profile } of told) {
      expect(widthMm).toBeLessThan(0.2);
      expect(profile!.taken.length % 2).toBe(1);
    }
    const { strongest } = (await app.call('POST', `/api/cards/${id}/finding`, { wish: {} })).json;
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish: {}, choice: {}, note: '' });
    const fact = await app.call('GET', `/api/facts/${kept.json.facts[0].factId}`);
    expect(fact.json.versions[0]).toMatchObject({ value: { widthMm: strongest.widthMm }, sigma: strongest.sigmaMm });
    expect(fact.json.versions[0].value.direction).toBe('horizontal');
  });
  it('is told by bars of both ways: the offset and the length of dots are kept for the machine, and planned with on another of its stocks', async () => {
    const { pairingId, machineId, lensId } = await makePairing(app, 'heron', 'leather');
    const { id } = await makeCardOf(app, pairingId, 'scan-offset');
    await burnCard(app, id);
    await photographCard({ ...app.ctx, cameraScale: 0.5 }, id, { shotSeed: 'both ways' });
    await app.ctx.readings.idle();
    const { json } = await app.call('GET', `/api/cards/${id}`);
    const told = (json.reading.cells as CellReading[]).flatMap(({ bars }) => bars ?? []);
    expect(told.length).toBeGreaterThan(12);
    const { fastest } = (await app.call('POST', `/api/cards/${id}/finding`, { wish: {} })).json;
    expect(fastest.offsetMm).toBeLessThan(-0.01);
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish: {}, choice: {}, note: '' });
    const facts = await Promise.all(
      kept.json.facts.map(
        async ({ factId }: { factId: number }) => (await app.call('GET', `/api/facts/${factId}`)).json.fact,
      ),
    );
    const own = { owner: 'machine', machineId, at: { direction: 'horizontal' } };
    expect(facts).toMatchObject([
      { name: 'lag', ...own },
      { name: 'dotLength', ...own },
    ]);
    const { json: cork } = await app.call('POST', '/api/stock', { ...DEMO_STOCKS.cork, acquiredOn: null });
    const { json: other } = await app.call('POST', '/api/pairings', { machineId, lensId, stockId: cork.id });
    const { plan } = (await app.call('GET', `/api/pairings/${other.id}/proposals/interval`)).json;
    expect(plan.constants.scanOffsetMm).toBeLessThan(-0.005);
  });
});
