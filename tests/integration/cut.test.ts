import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { photographCard } from '../../src/app/burns';
import { layOnLightTable } from '../../src/app/gauges';
import { rectRing } from '../../src/core/card/shape';
import { fitHomography, project } from '../../src/core/geometry/homography';
import { drawnPhoto } from '../support/drawn-card';
import { sumsView } from '../../src/app/sums';
import { up } from '../../src/db/migrations/0026-drop-words';
import { query, testApp, type TestApp } from '../support/context';
import { answerCard, burnCard, makeCard, makeCardOf, makePairing, tickedOf } from '../support/records';
import { points } from '../../tests/support/points';
import { tuples } from '../support/tuples';

let app: TestApp;
beforeAll(async () => void (app = await testApp()));
afterAll(() => app.close());

describe('squares that are cut out', () => {
  it('are tapped on the bench, which leaves what somebody said, and the cut that drops is kept for kerf squares to be cut with', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id } = await makeCardOf(app, pairingId, 'cut', (plan) => ({
      speed: { ...plan.speed, count: 4 },
      rows: { ...plan.rows, count: 3 },
    }));
    const tap = () => app.call('POST', `/api/cards/${id}/tap`);
    expect((await tap()).json.code).toBe('nothing-burned');
    await burnCard(app, id);
    // The slowest with the most power: whoever saw a flame there knows better than a tap.
    await answerCard(app, id, 'drop', 0, 'flare');
    expect((await tap()).json).toEqual({ tapped: 11 });
    expect((await tap()).json).toEqual({ tapped: 0 });
    const { json: view } = await app.call('GET', `/api/cards/${id}`);
    const of = (cellIndex: number, field: string): string | undefined =>
      view.answers.find((one: any) => one.cellIndex === cellIndex && one.field === field)?.value;
    expect(of(0, 'drop')).toBe('flare');
    // In its row the slowest drops and the fastest does not; only what dropped has an edge to look at.
    expect(of(4, 'drop')).toMatch(/clean|charred/);
    // On the light table what has dropped is not there any more, and the rest is.
    const { bytes } = await layOnLightTable(app.ctx, id);
    const { data, info } = await sharp(bytes).greyscale().raw().toBuffer({ resolveWithObject: true });
    const pxPerMm = info.width / (view.card.layout.widthMm + 14);
    const lightAt = (index: number): number => {
      const { x, y, width, height } = view.card.layout.cells[index].box;
      return data[Math.round((y + height / 2 + 7) * pxPerMm) * info.width + Math.round((x + width / 2 + 7) * pxPerMm)]!;
    };
    for (const [index, hole] of view.card.layout.cells.map((_: unknown, k: number) => [
      k,
      /clean|charred/.test(of(k, 'drop') ?? ''),
    ]))
      if (index > 0) expect(lightAt(index) > 200, `square ${index}`).toBe(hole);
    expect(of(4, 'edge')).toMatch(/brown|black/);
    expect(of(11, 'drop')).toBe('not-through');
    expect(of(11, 'edge')).toBeUndefined();
    const wish = { want: 'faster', edge: 'any', certainty: 0.9, outlineMm: null, knife: false };
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'cut', version: 1 }]);
    const { json: fact } = await app.call('GET', `/api/facts/${kept.json.facts[0].factId}`);
    const { settings, certainty } = fact.versions[0].value;
    expect(certainty).toBeGreaterThanOrEqual(0.9);
    const { json: kerf } = await app.call('GET', `/api/pairings/${pairingId}/proposals/kerf`);
    expect(kerf.plan.cut).toEqual(settings);
    // Another batch: three discs tell whether it still holds, and the book says so.
    const { pairing, ladder } = (await app.call('GET', `/api/pairings/${pairingId}`)).json;
    expect(ladder.find(({ rung }: any) => rung === 'cut')).toMatchObject({ state: 'measured' });
    await query(app.databaseUrl, `update stock set batch = 'another' where id = ${pairing.stock.id}`);
    const stale = (await app.call('GET', `/api/pairings/${pairingId}`)).json.ladder.find(
      ({ rung }: any) => rung === 'cut',
    );
    expect(stale.state).toBe('stale');
    const check = await makeCardOf(app, pairingId, 'cut-check');
    await burnCard(app, check.id);
    expect((await app.call('POST', `/api/cards/${check.id}/tap`)).json.tapped).toBe(3);
    const again = await app.call('POST', '/api/facts', { cardId: check.id, wish: {}, choice: {}, note: '' });
    expect(again.json.facts).toMatchObject([{ name: 'cut', version: 2, factId: kept.json.facts[0].factId }]);
    const renewed = (await app.call('GET', `/api/pairings/${pairingId}`)).json.ladder.find(
      ({ rung }: any) => rung === 'cut',
    );
    expect(renewed.state).toBe('measured');
    for (const wrong of [{ want: 'cheaper' }, { certainty: 1 }, { outlineMm: -4 }])
      expect(
        (await app.call('POST', '/api/facts', { cardId: id, wish: { ...wish, ...wrong }, choice: {}, note: '' }))
          .status,
      ).toBe(422);
  });

  it('are told by a photo on a light table, its corners set by hand, where nobody tapped', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id } = await makeCardOf(app, pairingId, 'cut', (plan) => ({
      speed: { ...plan.speed, count: 4 },
      rows: { ...plan.rows, count: 3 },
    }));
    await burnCard(app, id);
    const view = async () => (await app.call('GET', `/api/cards/${id}`)).json;
    const { layout } = (await view()).card;
    // The bench's own: what has come loose is not laid on the table.
    await photographCard(app.ctx, id, { litFrom: 'behind' });
    await app.ctx.readings.idle();
    expect((await view()).photos[0]).toMatchObject({ status: 'needs-corners', litFrom: 'behind' });
    expect((await app.call('POST', `/api/cards/${id}/photograph`)).json.code).toBe('invalid-input');
    // One whose corners are known: the slow half has dropped.
    const corners = points([200, 180], [800, 190], [790, 620], [210, 610]);
    const [widthPx, heightPx] = [1000, 800];
    const dropped = (index: number): boolean => index % 4 < 2;
    const { data } = drawnPhoto(
      layout,
      { bareLightness: 12, colour: '#303030' },
      {
        corners: corners.map(({ x, y }) => ({ x: x / widthPx, y: y / heightPx })),
        widthPx,
        heightPx,
        lightnessOf: (index) => (dropped(index) ? 100 : 12),
      },
    );
    const jpeg = await sharp(data, { raw: { width: widthPx, height: heightPx, channels: 3 } })
      .jpeg()
      .toBuffer();
    const sent = await app.call('POST', `/api/cards/${id}/photos?name=holes&lit=behind`, new Uint8Array(jpeg));
    await app.ctx.readings.idle();
    const whole = points([0, 0], [layout.widthMm, 0], [layout.widthMm, layout.heightMm], [0, layout.heightMm]);
    const { homography } = fitHomography(whole, corners);
    const set = rectRing(layout.inner).map(({ x, y }) => project(homography, x, y));
    await app.call('PUT', `/api/photos/${sent.json.id}/corners`, { corners: set });
    await app.ctx.readings.idle();
    const { through } = await view();
    expect(through.cells.map((cell: any) => cell.through > 0.6)).toEqual(
      layout.cells.map((_: unknown, k: number) => dropped(k)),
    );
    const wish = { want: 'faster', edge: 'any', certainty: 0.8, outlineMm: null, knife: false };
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'cut' }]);
  });

  it('have the same words as kerf squares, which had others once, and whose edges nobody asks about', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id } = await makeCardOf(app, pairingId, 'kerf', () => ({ count: 2, sizeMm: 10, smallMm: null }));
    await burnCard(app, id);
    await query(
      app.databaseUrl,
      `insert into answer (card_id, field, cell_index, repeat, word) values (${id}, 'drop', 0, 0, 'dropped')`,
    );
    await up(app.ctx.db);
    expect((await app.call('POST', `/api/cards/${id}/tap`)).json).toEqual({ tapped: 1 });
    const { json: view } = await app.call('GET', `/api/cards/${id}`);
    const words = view.answers.map(({ field, cellIndex, value }: any) => [field, cellIndex, value]);
    expect(words).toEqual(tuples(['drop', 0, 'clean'], ['drop', 1, expect.stringMatching(/clean|charred/)]));
  });

  it('push an offcut into each slot of a comb, and the fits are kept for the cut that they were felt at', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id } = await makeCardOf(app, pairingId, 'slots', () => ({}));
    const push = () => app.call('POST', `/api/cards/${id}/tap`);
    expect((await push()).json.code).toBe('nothing-burned');
    await burnCard(app, id);
    // Whoever tried one already knows better.
    await answerCard(app, id, 'fit', 0, 'no');
    const { json } = await push();
    expect(json.tapped).toBeGreaterThan(6);
    expect((await push()).json).toEqual({ tapped: 0 });
    const wish = { fit: 'snug', thicknessMm: null };
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'fit', version: 1 }]);
    const { value } = (await app.call('GET', `/api/facts/${kept.json.facts[0].factId}`)).json.versions[0];
    // The workshop's sums start from it, and say when it may hold no longer.
    const offered = async () =>
      (await sumsView(app.ctx)).fits.filter(({ factId }) => factId === kept.json.facts[0].factId);
    expect(await offered()).toMatchObject([{ value, stale: [] }]);
    const { pairing } = (await app.call('GET', `/api/pairings/${pairingId}`)).json;
    await query(app.databaseUrl, `update stock set batch = 'another' where id = ${pairing.stock.id}`);
    expect(await offered()).toMatchObject([{ stale: ['new batch another'] }]);
    // Tighter fits begin at narrower slots, and a slot comes out wider than it is drawn.
    expect(value.fromMm.press).toBeLessThan(value.fromMm.snug);
    expect(value.fromMm.snug).toBeLessThan(0);
    expect(value.fromMm.slip).toBeLessThan(value.fromMm.loose);
    expect(
      (await app.call('POST', '/api/facts', { cardId: id, wish: { ...wish, fit: 'loose' }, choice: {}, note: '' }))
        .status,
    ).toBe(422);
  });

  it('are a drawing of one’s own too: read from SVG, made up for, cut, measured, pushed into its slot, and kept with what it was cut with', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    // A plate of 30 by 18 mm with a round hole, in tenths of a millimetre, turned by a quarter; and words, which are no line.
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 400 400">
      <g transform="rotate(90)"><rect width="180" height="300"/><circle cx="90" cy="80" r="40"/></g><text>GATE</text></svg>`;
    const send = (text: string, type = 'image/svg+xml') =>
      app.call('POST', '/api/drawings?name=Gate', Buffer.from(text), { 'content-type': type });
    const read = await send(svg);
    expect(read.json).toMatchObject({
      drawing: { name: 'Gate', sizeSaidIn: 'lengths' },
      leftOut: ['text (turn it into paths to cut it)'],
    });
    expect((await send('<svg><path d="M0 0 L x"/></svg>')).json).toMatchObject({ code: 'invalid-input' });
    expect((await send(svg, 'text/plain')).json.code).toBe('wrong-media-type');
    expect((await send(' '.repeat(2_100_000))).json.code).toBe('body-too-large');
    const { id } = await makeCardOf(app, pairingId, 'part', () => ({ drawing: read.json.drawing }));
    await burnCard(app, id);
    expect((await app.call('POST', `/api/cards/${id}/tap`)).json.tapped).toBe(4);
    const measure = async (field: string, cellIndex: number): Promise<number> => {
      const { json } = await app.call('POST', `/api/cards/${id}/gauge`, { field, cellIndex, repeat: 0 });
      await answerCard(app, id, field, cellIndex, Number(json.text));
      return Number(json.text);
    };
    // The kerf is guessed from the spot: off by less than it would be without.
    expect(Math.abs((await measure('width-x', 0)) - 30)).toBeLessThan(0.12);
    expect(Math.abs((await measure('width-y', 0)) - 18)).toBeLessThan(0.12);
    expect(Math.abs((await measure('hole-x', 1)) - 8)).toBeLessThan(0.12);
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish: {}, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'part', version: 1 }]);
    const { json: fact } = await app.call('GET', `/api/facts/${kept.json.facts[0].factId}`);
    expect(fact.versions[0].value).toMatchObject({ settings: { air: 'on' }, goes: expect.any(String) });
    expect(fact.fact.at).toEqual({ part: 'Gate' });
  });

  it('get pass after pass on the bench, which counts those that dropped them', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'acrylic');
    const { id } = await makeCardOf(app, pairingId, 'pass-count', () => ({ sizeMm: 6 }));
    await burnCard(app, id);
    expect((await app.call('POST', `/api/cards/${id}/tap`)).json).toEqual({ tapped: 1 });
    expect((await app.call('POST', `/api/cards/${id}/tap`)).json).toEqual({ tapped: 0 });
    const { json: view } = await app.call('GET', `/api/cards/${id}`);
    // Half of what the family’s figure asks for, or up to twice as much.
    expect(view.answers).toEqual([
      { field: 'count', cellIndex: 0, repeat: 0, value: expect.stringMatching(/^[2-8]$/) },
    ]);
    const wish = { certainty: 0.9, outlineMm: null };
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'cut' }]);
    // With as many and no more it drops in the last one.
    const passes = Number(view.answers[0].value);
    const just = await makeCardOf(app, pairingId, 'pass-count', () => ({ sizeMm: 6, mostPasses: passes }));
    await burnCard(app, just.id);
    await app.call('POST', `/api/cards/${just.id}/tap`);
    expect((await app.call('GET', `/api/cards/${just.id}`)).json.answers).toMatchObject([{ value: String(passes) }]);
    // Too little in all passes together: it has not dropped, whatever the hand does.
    const weak = await makeCardOf(app, pairingId, 'pass-count', () => ({ sizeMm: 6, mostPasses: 2 }));
    await burnCard(app, weak.id);
    await app.call('POST', `/api/cards/${weak.id}/tap`);
    const { json: held } = await app.call('GET', `/api/cards/${weak.id}`);
    expect(held.answers).toMatchObject([{ value: 'none' }]);
  });

  it('are tapped at each stop between passes, until they drop', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'acrylic');
    const { id } = await makeCardOf(app, pairingId, 'pass-count', () => ({ sizeMm: 6 }));
    const burn = await app.call('POST', '/api/burns', {
      cardId: id,
      place: 'bench',
      ticked: await tickedOf(app, id),
      cells: null,
    });
    const control = (json: object) => app.call('POST', `/api/burns/${burn.json.id}/control`, json);
    const tap = () => app.call('POST', `/api/cards/${id}/tap`);
    let passes = 0;
    for (let tapped = 0; tapped === 0;) {
      const { json } = await app.call('GET', `/api/burns/${burn.json.id}`);
      expect(json.status).toBe('running');
      if (json.progress?.hand) {
        passes++;
        tapped = (await tap()).json.tapped;
        if (tapped === 0) await control({ action: 'proceed', focusOffsetMm: null });
      } else await new Promise((done) => setTimeout(done, 20));
    }
    await control({ action: 'stop' });
    const { json: view } = await app.call('GET', `/api/cards/${id}`);
    expect(passes).toBeGreaterThan(1);
    expect(view.answers).toEqual([{ field: 'count', cellIndex: 0, repeat: 0, value: String(passes) }]);
    expect(view.burns[0].status).toBe('stopped');
  });

  it('go into holes in every way, from one sheet or from two stocks, and where fits begin is kept', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'acrylic');
    const { id } = await makeCardOf(app, pairingId, 'knobs', () => ({ holes: 2, parts: 4 }));
    await burnCard(app, id);
    const say = (cellIndex: number, repeat: number, value: string | null) =>
      app.call('PUT', `/api/cards/${id}/answers`, { field: 'mate', cellIndex, repeat, value });
    expect((await say(1, 3, 'snug')).status).toBe(200);
    // A part is no hole, there is no fifth part, and no such word.
    for (const wrong of [await say(2, 0, 'snug'), await say(0, 4, 'snug'), await say(0, 0, 'stuck')])
      expect(wrong.status).toBe(422);
    expect((await app.call('POST', `/api/cards/${id}/tap`)).json).toEqual({ tapped: 7 });
    const { json: view } = await app.call('GET', `/api/cards/${id}`);
    expect(view.answers).toContainEqual({ field: 'mate', cellIndex: 1, repeat: 3, value: 'snug' });
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish: { fit: 'snug' }, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'mating' }]);
    const offered = (await sumsView(app.ctx)).joints.filter(({ factId }) => factId === kept.json.facts[0].factId);
    expect(offered).toMatchObject([{ stale: [], value: { holeKerfMm: expect.any(Number) } }]);

    const half = { holes: 2, parts: 2, stepMm: 0.05, fromMm: 0 };
    const holes = await makeCardOf(app, pairingId, 'knobs', () => ({ ...half, cutHere: 'holes', otherStock: 'alder' }));
    await burnCard(app, holes.id);
    const put = () => app.call('POST', `/api/cards/${holes.id}/tap`);
    expect((await put()).json).toMatchObject({
      code: 'cannot-measure',
      detail: expect.stringContaining('other half'),
    });
    const alder = await makePairing(app, 'marl', 'alder');
    const parts = await makeCardOf(app, alder.pairingId, 'knobs', () => ({
      ...half,
      cutHere: 'parts',
      otherStock: 'acrylic',
    }));
    await burnCard(app, parts.id);
    expect((await put()).json).toEqual({ tapped: 4 });
  });

  it('that hang by a line are bent, and the one that tears clean is kept', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'acrylic');
    const { id } = await makeCardOf(app, pairingId, 'score');
    await burnCard(app, id);
    await answerCard(app, id, 'flap', 0, 'clean');
    expect((await app.call('POST', `/api/cards/${id}/tap`)).json).toEqual({ tapped: 11 });
    const stitches = { cardId: id, wish: { want: 'stitch' }, choice: {}, note: '' };
    expect((await app.call('POST', '/api/facts', stitches)).json.facts).toMatchObject([{ name: 'score' }]);
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish: { want: 'tear' }, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'score' }]);
    expect(
      (await app.call('POST', '/api/facts', { cardId: id, wish: { want: 'burst' }, choice: {}, note: '' })).status,
    ).toBe(422);
  });

  it('are measured at both faces, by whichever focus they were cut', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id } = await makeCardOf(app, pairingId, 'cut-focus', () => ({ repeats: 1 }));
    await burnCard(app, id);
    await app.call('POST', `/api/cards/${id}/tap`);
    const read = async (field: string, cellIndex: number): Promise<number> => {
      const { json } = await app.call('POST', `/api/cards/${id}/gauge`, { field, cellIndex, repeat: 0 });
      await answerCard(app, id, field, cellIndex, Number(json.text));
      return Number(json.text);
    };
    // A beam leaves more of a part below than where it comes in.
    for (const cellIndex of [0, 1, 2])
      expect(await read('width-x', cellIndex)).toBeGreaterThan(await read('top-x', cellIndex));
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish: {}, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'cutFocus' }]);
  });

  it('full of slits are bent until they break, which the finding takes as it is typed', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id } = await makeCardOf(app, pairingId, 'hinge');
    await burnCard(app, id);
    const bend = (cellIndex: number) =>
      app.call('POST', `/api/cards/${id}/gauge`, { field: 'radius', cellIndex, repeat: 0 });
    const radii: number[] = [];
    for (const cellIndex of [0, 1]) {
      radii.push(Number((await bend(cellIndex)).json.text));
      await answerCard(app, id, 'radius', cellIndex, radii[cellIndex]!);
    }
    // Tighter rows bend further.
    expect(radii[0]).toBeLessThan(radii[1]!);
    const wish = { radiusMm: 60, angleDeg: 90, widthMm: 40 };
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'hinge' }]);
    const wrong = { ...wish, angleDeg: 400 };
    expect((await app.call('POST', '/api/facts', { cardId: id, wish: wrong, choice: {}, note: '' })).status).toBe(422);
  });

  it('with sharp tips keep them where the same energy comes in more passes, and later cuts are proposed so', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id } = await makeCardOf(app, pairingId, 'passes', () => ({ most: 4, repeats: 2 }));
    const cautions = (await app.call('GET', `/api/cards/${id}/cautions`)).json as { text: string }[];
    expect(cautions.some(({ text }) => text.includes('watch every tip'))).toBe(true);
    await burnCard(app, id);
    expect((await app.call('POST', `/api/cards/${id}/tap`)).json.tapped).toBeGreaterThanOrEqual(8);
    const { json: view } = await app.call('GET', `/api/cards/${id}`);
    const drops = (passes: number): string[] =>
      view.card.layout.cells
        .filter(({ levels }: any) => levels.passes === passes)
        .map(
          ({ index }: any) => view.answers.find((one: any) => one.field === 'drop' && one.cellIndex === index).value,
        );
    expect(drops(1)).toEqual(['tip', 'tip']);
    expect(drops(4)).toEqual(['clean', 'clean']);
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish: {}, choice: {}, note: '' });
    expect(kept.json.facts).toMatchObject([{ name: 'passes' }]);
    const { value } = (await app.call('GET', `/api/facts/${kept.json.facts[0].factId}`)).json.versions[0];
    expect(value.settings.passes).toBeGreaterThan(1);
    const { json: cut } = await app.call('GET', `/api/pairings/${pairingId}/proposals/kerf`);
    expect(cut.plan.cut.passes).toBe(value.settings.passes);
  });

  it('are nothing that a card of engraved cells has', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'slate');
    const { id } = await makeCard(app, pairingId);
    await burnCard(app, id);
    expect((await app.call('POST', `/api/cards/${id}/tap`)).json.code).toBe('invalid-input');
  });
});
