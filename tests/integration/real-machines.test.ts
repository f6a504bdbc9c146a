import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest';
import { PLAIN_FILL } from '../support/settings';
import { jpegOf } from '../../src/bench/bench';
import { benchMachineOf } from '../../src/bench/of-records';
import { recover } from '../../src/server/recover';
import { burnOnBench, photoOf } from '../../stand-ins/burn';
import { DEMO_STOCKS } from '../../src/demo/world';
import { demoPairing } from '../../stand-ins/demo';
import { testApp, type TestApp } from '../support/context';
import { burnCard, makeCard, makePairing, tickedOf } from '../support/records';

let app: TestApp;
beforeAll(async () => void (app = await testApp()));
afterAll(() => app.close());

const own = async (cardId: number, more: object) =>
  app.call('POST', '/api/burns', { cardId, place: 'own-machine', ticked: await tickedOf(app, cardId), ...more });
/** Names of the machines made here, by id. */
const names = new Map<number, string>();
const paceOf = async (machineId: number) => {
  const { json } = await app.call('GET', '/api/facts?search=pace');
  return json.rows.find(
    (row: { machine: string; name: string }) => row.name === 'pace' && row.machine === names.get(machineId),
  );
};

describe('a burn on a machine of one’s own', () => {
  it('is timed by a clock that runs until it is stopped, and the machine is busy meanwhile', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Clocked');
    const { id } = await makeCard(app, pairingId);
    const { json: burn, status } = await own(id, { clock: true });
    expect(status).toBe(201);
    expect(burn).toMatchObject({ status: 'running', place: 'own-machine', endedAt: null, actualS: null });
    expect((await app.call('GET', `/api/cards/${id}`)).json.burnedCells).toEqual([]);
    expect((await own(id, { clock: true })).json.code).toBe('machine-busy');
    // A server that starts again interrupts what the bench burned, and leaves this clock alone.
    await recover(app.ctx);
    expect((await app.call('GET', `/api/burns/${burn.id}`)).json.status).toBe('running');
    const ended = await app.call('POST', `/api/burns/${burn.id}/end`, {});
    expect(ended.json.status).toBe('done');
    expect(ended.json.actualS).toBeGreaterThanOrEqual(0);
    expect(ended.json.actualS).toBeLessThan(120);
    expect((await app.call('POST', `/api/burns/${burn.id}/end`, {})).json.code).toBe('burn-not-open');
    expect((await app.call('GET', `/api/cards/${id}`)).json.burnedCells.length).toBeGreaterThan(0);
  });

  it('takes the time that a stopwatch showed, lets it be corrected, and refuses what is no time', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Typed');
    const { id } = await makeCard(app, pairingId);
    const { json: burn } = await own(id, { tookS: 706 });
    expect(burn).toMatchObject({ status: 'done', actualS: 706 });
    expect((await app.call('PUT', `/api/burns/${burn.id}/time`, { tookS: 606 })).json.actualS).toBe(606);
    const log = (await app.call('GET', '/api/burns')).json.rows.find(
      (row: { burnId: number }) => row.burnId === burn.id,
    );
    expect(log).toMatchObject({ actualS: 606, place: 'own-machine' });
    expect(log.estimatedS).toBeGreaterThan(0);
    for (const tookS of [0, -5, '11:46']) expect((await own(id, { tookS })).status).toBe(422);
    const bench = { cardId: id, place: 'bench', ticked: await tickedOf(app, id), tookS: 50 };
    expect((await app.call('POST', '/api/burns', bench)).status).toBe(422);
    // The simulated bench keeps its own time: it is not stopped by a hand’s clock, and a burn that is none is not there.
    const { json: onBench } = await app.call('POST', '/api/burns', { ...bench, tookS: undefined });
    const refused = await app.call('POST', `/api/burns/${onBench.id}/end`, { tookS: 50 });
    expect(refused.json).toMatchObject({
      code: 'burn-not-open',
      detail: expect.stringContaining('keeps its own time'),
    });
    const none = await app.call('POST', '/api/burns/987654/end', { tookS: 50 });
    expect([none.status, none.json.detail]).toEqual([404, 'There is no burn 987654.']);
  });

  it('calibrates that machine’s estimates from the third on, and goes back when a time is taken back', async () => {
    const { pairingId, machineId } = await makePairing(app, 'heron', 'leather', 'Slow one');
    names.set(machineId, 'Slow one');
    const burns: { id: number; estimatedS: number }[] = [];
    for (let turn = 0; turn < 3; turn++) {
      const { id } = await makeCard(app, pairingId);
      const { json } = await own(id, {});
      await app.call('PUT', `/api/burns/${json.id}/time`, { tookS: json.estimatedS * 1.25 });
      burns.push(json);
    }
    expect(await paceOf(machineId)).toMatchObject({ version: 1, origin: 'logs' });
    const next = await makeCard(app, pairingId);
    const { json: card } = await app.call('GET', `/api/cards/${next.id}`);
    expect(card.card.estimatedS / burns[0]!.estimatedS).toBeCloseTo(1.25, 1);
    expect(card.known.facts.find((fact: { name: string }) => fact.name === 'pace').value).toMatchObject({
      by: 'scale',
      logs: 3,
    });
    await app.call('PUT', `/api/burns/${burns[0]!.id}/time`, { tookS: null });
    expect((await paceOf(machineId)).version).toBe(2);
    const back = await makeCard(app, pairingId);
    const { json: later } = await app.call('GET', `/api/cards/${back.id}`);
    expect(later.card.estimatedS / burns[0]!.estimatedS).toBeCloseTo(1, 1);
  });
});

const settings = { ...PLAIN_FILL, powerFraction: 0.4, speedMmPerS: 60, intervalMm: 0.12, air: 'on' };

describe('settings known from elsewhere', () => {
  it('are filed as unproven, each shade beside the others, and the bench asks to prove the newest', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'cork', 'Bringer');
    const { json, status } = await app.call('POST', `/api/pairings/${pairingId}/settings`, {
      settings: [
        { settings, shade: 'weak', note: 'old notebook' },
        { settings: { ...settings, speedMmPerS: 30 }, shade: 'strong' },
      ],
    });
    expect(status).toBe(201);
    expect(json.facts.map((fact: { version: number }) => fact.version)).toEqual([1, 1]);
    const { json: bench } = await app.call('GET', `/api/pairings/${pairingId}`);
    const rung = bench.ladder.find((one: { rung: string }) => one.rung === 'grid');
    expect(rung).toMatchObject({ state: 'predicted', reason: 'brought along, not proven here' });
    expect(rung.value).toContain('2 shades');
    const strong = json.facts[1].factId;
    expect(bench.next).toMatchObject({ action: 'plan', href: `/bench/${pairingId}/plan/grid?prove=${strong}` });
    const proof = await app.call('GET', `/api/pairings/${pairingId}/proposals/grid?prove=${strong}`);
    expect(proof.json.plan.across.count * proof.json.plan.down.count).toBe(9);
    expect(Math.sqrt(proof.json.plan.down.from * proof.json.plan.down.to)).toBeCloseTo(30, 6);
    const { json: fact } = await app.call('GET', `/api/facts/${strong}`);
    expect(fact.versions[0]).toMatchObject({ origin: 'brought', cardId: null, sigma: null });
  });

  it('are refused where the machine cannot burn them or the stock must not be, all of them', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'mdf', 'Refuser');
    const bad = await app.call('POST', `/api/pairings/${pairingId}/settings`, {
      settings: [{ settings }, { settings: { ...settings, powerFraction: 0.95 } }],
    });
    expect(bad.status).toBe(422);
    expect(bad.json.fields[0].field).toBe('settings.1.settings.powerFraction');
    const { json } = await app.call('GET', `/api/pairings/${pairingId}`);
    expect(json.ladder.find((one: { rung: string }) => one.rung === 'grid').state).toBe('empty');
  });

  it('come from a table whose columns are guessed, looked at and changed before anything is filed', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Tables');
    const text = 'Power;Speed;DPI;Depth\n45;3000;254;strong\n30;3000;254;weak\n95;3000;254;too much\n';
    const path = `/api/pairings/${pairingId}/settings/preview`;
    const guess = (await app.call('POST', path, { text })).json;
    expect(guess.columns.map((column: { means: string }) => column.means)).toEqual([
      'power',
      'speed-mm-s',
      'interval-dpi',
      'shade',
    ]);
    // 3000 mm/s is more than this head does: the guess is wrong, and nothing is taken over unseen.
    expect(guess.rows.map((row: { settings: unknown }) => row.settings)).toEqual([null, null, null]);
    const meanings = ['power', 'speed-mm-min', 'interval-dpi', 'shade'];
    const told = (await app.call('POST', path, { text, meanings })).json;
    expect(
      told.rows.map((row: { settings: { speedMmPerS: number } | null }) => row.settings?.speedMmPerS ?? null),
    ).toEqual([50, 50, null]);
    expect(told.rows[2].problems.join()).toContain('cap');
    expect((await app.call('GET', `/api/pairings/${pairingId}`)).json.ladder[2].state).toBe('empty');
    expect((await app.call('POST', path, { text: 'Power;Speed' })).status).toBe(422);
  });

  it('go to another bench as a marked prediction of the same energy', async () => {
    const one = await makePairing(app, 'heron', 'leather', 'Source');
    const two = await makePairing(app, 'marl', 'leather', 'Target');
    const filed = (
      await app.call('POST', `/api/pairings/${one.pairingId}/settings`, { settings: [{ settings, shade: 'medium' }] })
    ).json;
    const copied = await app.call('POST', `/api/facts/${filed.facts[0].factId}/copy`, { pairingId: two.pairingId });
    expect(copied.status).toBe(201);
    const { json } = await app.call('GET', `/api/facts/${copied.json.factId}`);
    expect(json.versions[0]).toMatchObject({ origin: 'copied' });
    expect(json.versions[0].note).toContain('Foretold from');
    expect(json.conditions).toBe('medium');
    const again = await app.call('POST', `/api/facts/${filed.facts[0].factId}/copy`, { pairingId: one.pairingId });
    expect(again.status).toBe(422);
  });
});

describe('favourites', () => {
  it('are plans under a name of their kind, laid on other stock, and can be dropped', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather', 'Favourer');
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const kept = await app.call('POST', '/api/favourites', { name: 'Small and quick', kind: 'grid', plan });
    expect(kept.status).toBe(201);
    expect(
      (await app.call('POST', '/api/favourites', { name: 'small and QUICK', kind: 'grid', plan })).json,
    ).toMatchObject({
      code: 'name-taken',
      fields: [{ field: 'name', message: 'This name is in use.' }],
    });
    expect(
      (await app.call('POST', '/api/favourites', { name: 'Broken', kind: 'grid', plan: { ...plan, cellMm: 'big' } }))
        .status,
    ).toBe(422);
    const { json } = await app.call('GET', '/api/favourites?kind=grid');
    expect(json).toHaveLength(1);
    expect(json[0].plan).toEqual(plan);
    expect((await app.call('GET', '/api/favourites?kind=kerf')).json).toEqual([]);
    await app.call('POST', `/api/favourites/${kept.json.id}/drop`);
    expect((await app.call('GET', '/api/favourites')).json).toEqual([]);
    expect((await app.call('POST', `/api/favourites/${kept.json.id}/drop`)).json.detail).toMatch(/favourite/);
  });
});

describe('a card’s set-up', () => {
  it('stands in its checklist, and the next card of the bench starts from it', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Jig');
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const setup = { ...plan.setup, masked: true, support: 'pins', heldBy: 'magnets', focusSetBy: 'ruler' };
    const { id } = await makeCard(app, pairingId, { setup });
    const texts = (await app.call('GET', `/api/cards/${id}/cautions`)).json.map(
      (caution: { text: string }) => caution.text,
    );
    expect(texts).toContain('The face is masked without bubbles.');
    expect(texts).toContain('The sheet lies on pins, held by magnets, focus set by a ruler.');
    const next = (await app.call('GET', `/api/pairings/${pairingId}/proposals/threshold`)).json;
    expect(next.plan.setup).toEqual(setup);
    expect(next.reasons['setup.support']).toMatch(/as for card CD/);
  });
});

describe('files of a card', () => {
  it('count from the machine’s zero or another, and come as a zip for machines without G-code', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'slate', 'Files');
    const { id } = await makeCard(app, pairingId);
    const file = async (path: string) => (await app.call('GET', `/api/cards/${id}/export/${path}`)).response;
    const zip = await file('zip');
    expect(zip.headers.get('content-type')).toBe('application/zip');
    expect(zip.headers.get('content-disposition')).toMatch(/card-CD\w+-\w\.zip/);
    expect(
      Buffer.from(await zip.arrayBuffer())
        .subarray(0, 2)
        .toString(),
    ).toBe('PK');
    const text = await (await file('gcode')).text();
    const head = await (await file('gcode?zero=head')).text();
    expect(text).not.toContain('G92');
    expect(head.split('\n').filter((line) => line.startsWith('G92'))).toEqual(['G92 X0 Y0', 'G92.1']);
    expect(await (await file('outline')).text()).not.toMatch(/S[1-9]/);
    expect((await app.call('GET', `/api/cards/${id}/export/gcode?zero=moon`)).status).toBe(422);
  });
});

describe('an old card', () => {
  it('is adopted, read from its photo with dragged corners, and kept with an origin that says so', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather', 'Adopter');
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const { powerFraction: _power, speedMmPerS: _speed, ...constants } = plan.constants;
    const old = {
      across: { channel: 'speed', values: [150, 90, 50] },
      down: { channel: 'power', values: [0.3, 0.5, 0.8] },
      cellMm: 3,
      gapMm: 2,
      constants: { ...constants, direction: 'horizontal' },
    };
    const twice = await app.call('POST', '/api/cards/adopt', { pairingId, old: { ...old, down: old.across } });
    expect(twice.status).toBe(422);
    const made = await app.call('POST', '/api/cards/adopt', { pairingId, old });
    expect(made.status).toBe(201);
    const { id } = made.json;
    const { card } = (await app.call('GET', `/api/cards/${id}`)).json;
    // What a next card would begin with lies in the middle of what was burned, by ratio.
    expect(card.plan.constants.powerFraction).toBeCloseTo(Math.sqrt(0.3 * 0.8), 9);
    expect(card.plan.constants.speedMmPerS).toBeCloseTo(Math.sqrt(50 * 150), 9);
    expect((await own(id, { clock: true })).status).toBe(422);
    // It lies on no sheet: the next card may lie where it would.
    expect((await app.call('GET', `/api/pairings/${pairingId}`)).json.usedAreas).toEqual([]);

    const pairing = demoPairing('heron', 'leather');
    const photo = photoOf(burnOnBench(card.layout, pairing, 'adopted'), 'adopted', {
      widthPx: 1600,
      heightPx: 1200,
    });
    const sent = await app.call('POST', `/api/cards/${id}/photos?name=old.jpg`, new Uint8Array(await jpegOf(photo)));
    await app.ctx.readings.idle();
    expect((await app.call('GET', `/api/photos/${sent.json.id}`)).json.status).toBe('needs-corners');
    const { x, y, width, height } = card.layout.inner;
    const corners = [
      [x - 0.5, y],
      [x + width, y + 0.5],
      [x + width, y + height],
      [x, y + height + 0.5],
    ].map(([cx, cy]) => photo.placeOf(cx, cy));
    await app.call('PUT', `/api/photos/${sent.json.id}/corners`, { corners });
    await app.ctx.readings.idle();
    const seen = (await app.call('GET', `/api/cards/${id}`)).json;
    expect(seen.reading.cells).toHaveLength(9);
    const choice = { cellIndex: 4, shade: 'medium' };
    const kept = await app.call('POST', '/api/facts', { cardId: id, wish: null, choice, note: 'from the wall' });
    expect(kept.status).toBe(201);
    const { versions, fact } = (await app.call('GET', `/api/facts/${kept.json.facts[0].factId}`)).json;
    expect(fact.at).toEqual({ shade: 'medium' });
    expect(versions[0]).toMatchObject({ origin: 'adopted', cardId: id, cellIndex: 4 });
    expect(versions[0].value.settings).toMatchObject({ powerFraction: 0.5, speedMmPerS: 90 });
  });
});

describe('counted blanks', () => {
  const plan = { cellMm: 5, gapMm: 2 };
  it('take a card each until none is free, or the one that is asked for', async () => {
    const { machineId, lensId } = await makePairing(app, 'heron', 'birch', 'Blank one');
    const sheet = {
      ...DEMO_STOCKS.birch,
      name: 'Coaster',
      blanks: { count: 4 },
      outline: { shape: 'ellipse', radiusMm: 0 },
      sheetWidthMm: 70,
      sheetDepthMm: 70,
      acquiredOn: null,
    };
    const stock = await app.call('POST', '/api/stock', sheet);
    const pairing = await app.call('POST', '/api/pairings', { machineId, lensId, stockId: stock.json.id });
    const proposal = await app.call('GET', `/api/pairings/${pairing.json.id}/proposals/grid`);
    const { across, down } = proposal.json.plan;
    const make = (more: object) =>
      app.call('POST', '/api/cards', {
        pairingId: pairing.json.id,
        kind: 'grid',
        plan: { ...proposal.json.plan, ...plan, across: { ...across, count: 4 }, down: { ...down, count: 4 } },
        sheetPlace: null,
        sheetOnBed: { leftMm: 100, rearMm: 100 },
        ...more,
      });
    const cardOf = async (made: { json: { id: number } }) =>
      (await app.call('GET', `/api/cards/${made.json.id}`)).json.card;
    const pieceOf = async (made: { json: { id: number } }) => (await cardOf(made)).piece;
    // One card of this size lies on each blank: two of them would leave its circle.
    const first = await cardOf(await make({}));
    expect(first.piece).toBe(1);
    expect(await pieceOf(await make({ piece: 3 }))).toBe(3);
    expect((await make({ piece: 3 })).json.code).toBe('does-not-fit');
    expect((await make({ piece: 5 })).json.detail).toContain('There are 4 blanks of Coaster');
    // Where the first one's card lies is free on another.
    expect(await pieceOf(await make({ piece: 4, sheetPlace: { xMm: first.sheetXMm, yMm: first.sheetYMm } }))).toBe(4);
    expect(await pieceOf(await make({}))).toBe(2);
    const full = await make({});
    expect(full.json).toMatchObject({ code: 'does-not-fit' });
    expect(full.json.detail).toContain('on the 4 blanks of Coaster');
    // Where it lies is looked at on its own blank only.
    expect((await make({ piece: 2, sheetPlace: { xMm: 0, yMm: 0 } })).json.detail).toContain('would leave the stock');
  });
  it('are told beside the next card’s time and size', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Priced');
    const { next } = (await app.call('GET', `/api/pairings/${pairingId}`)).json;
    expect(next).toMatchObject({ action: 'plan', rung: 'grid' });
    expect(next.cost).toMatch(/^\d+ min \d+ s, [\d.]+ × [\d.]+ mm/);
  });
});

describe('the bench behind a machine', () => {
  it('burns with mirrors from their rest in the middle of the field, and its photo is read', async () => {
    const { pairingId } = await makePairing(app, 'tern', 'twoLayer', 'Mirrors');
    const { id } = await makeCard(app, pairingId);
    await burnCard(app, id);
    await app.call('POST', `/api/cards/${id}/photograph?state=wiped`);
    await app.ctx.readings.idle();
    const { json: view } = await app.call('GET', `/api/cards/${id}`);
    expect(view.photos[0]).toMatchObject({ status: 'read', finish: 'after' });
    expect(view.reading.cells).toHaveLength(9);
  });

  it('says why it broke a burn off', async () => {
    const slow = await testApp({ paceFactor: 1 });
    onTestFinished(() => slow.close());
    const { pairingId } = await makePairing(slow, 'heron', 'birch', 'Breaker');
    const { id } = await makeCard(slow, pairingId);
    const burn = await slow.call('POST', '/api/burns', {
      cardId: id,
      place: 'bench',
      ticked: await tickedOf(slow, id),
    });
    const { card } = (await slow.call('GET', `/api/cards/${id}`)).json;
    const place = { leftMm: 30, rearMm: 30, widthMm: card.layout.widthMm, heightMm: card.layout.heightMm };
    const program = { text: 'G21\nG90\nG0 X9999 Y10', lines: 3, parts: [] };
    slow.ctx.burns.start(burn.json.id, program, benchMachineOf(card.madeFor.machine, card.madeFor.lens), place);
    await slow.ctx.burns.finishNow(burn.json.id);
    expect((await slow.call('GET', `/api/burns/${burn.json.id}`)).json).toMatchObject({
      status: 'interrupted',
      linesDone: 2,
      fault: 'line 3 was refused: X9999 Y10 is outside the bed',
    });
  });
});
