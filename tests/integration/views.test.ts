import { parse as parseCsv } from 'csv-parse/sync';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as views from '../../src/app/bench-views';
import { bookView, factView } from '../../src/app/book-views';
import { bringView } from '../../src/app/brought';
import { benchBurnOf } from '../../src/app/bench-pieces';
import { cardByCode, defaultSheetOnBed, getCard } from '../../src/app/cards';
import { renewLadders } from '../../src/app/ladders';
import { getPairing } from '../../src/app/pairings';
import { DEMO_MACHINES, DEMO_STOCKS } from '../../src/demo/world';
import { query, testApp, type TestApp } from '../support/context';
import { answerCard, burnCard, makeCard, makeCardOf, makePairing, tickedOf } from '../support/records';
import { tuples } from '../support/tuples';

let app: TestApp;
beforeAll(async () => void (app = await testApp()));
afterAll(() => app.close());

/** Burned elsewhere, and looked at by eye. */
async function burnedElsewhere(cardId: number, more: object = {}) {
  const ticked = await tickedOf(app, cardId);
  return app.call('POST', '/api/burns', { cardId, place: 'own-machine', ticked, cells: null, ...more });
}
const keep = (cardId: number, choice: object, note = '') =>
  app.call('POST', '/api/facts', { cardId, wish: null, choice, note });
const benches = async () =>
  (await app.call('GET', '/api/pairings')).json.rows as { pairingId: number; next: { action: string; cost: string } }[];

describe('the list of benches', () => {
  it('has what burns first, then what is to be looked at, then what is to be planned, with its cost', async () => {
    const planned = await makePairing(app, 'heron', 'birch', 'List one');
    const looked = await makePairing(app, 'heron', 'leather', 'List two');
    const card = await makeCard(app, looked.pairingId);
    await burnedElsewhere(card.id);
    const burning = await makePairing(app, 'heron', 'cork', 'List three');
    const { id } = await makeCard(app, burning.pairingId);
    expect((await burnedElsewhere(id, { clock: true })).status).toBe(201);
    // Worked out for those that have changed, and found again as it was kept.
    await benches();
    const rows = await benches();
    expect(rows.map(({ pairingId }) => pairingId)).toEqual([burning.pairingId, looked.pairingId, planned.pairingId]);
    expect(rows.map(({ next }) => next.action)).toEqual(['go-on', 'go-on', 'plan']);
    expect(rows[2]!.next.cost).toMatch(/^\d+ (s|min)( \d+ s)?, \d+(\.\d)? × \d+(\.\d)? mm$/);
    const page = await views.benchListView(app.ctx, 2);
    expect(page.benches).toMatchObject({ rows: [], limit: views.BENCHES_A_PAGE, offset: views.BENCHES_A_PAGE });
    expect((await views.benchListView(app.ctx)).benches).toMatchObject({ total: 3, offset: 0 });
  });
  it('is worked out in the background where something has changed, a few at a time', async () => {
    expect(await renewLadders(app.ctx, 10)).toBe(0);
    const { stockId } = await makePairing(app, 'marl', 'alder', 'List four');
    const { json: stock } = await app.call('GET', `/api/stock/${stockId}`);
    const { id: _id, retired: _retired, remarks: _remarks, byMachine: _byMachine, ...record } = stock;
    await app.call('PUT', `/api/stock/${stockId}`, { ...record, batch: 'later' });
    expect(await renewLadders(app.ctx, 10)).toBe(1);
    expect(await renewLadders(app.ctx, 10)).toBe(0);
  });
  it('offers machines and stock in use, and no others', async () => {
    const { machineId, stockId } = await makePairing(app, 'heron', 'mdf', 'List five');
    const offered = async () => {
      const { machines, stocks } = await views.pairingChoices(app.ctx);
      return [machines.some(({ id }) => id === machineId), stocks.some(({ id }) => id === stockId)];
    };
    expect(await offered()).toEqual([true, true]);
    await app.call('PUT', `/api/machines/${machineId}/retired`, { retired: true });
    expect(await offered()).toEqual([false, true]);
    const { json: told } = await app.call('GET', `/api/stock/${stockId}`);
    expect(told.byMachine.some((one: { machineId: number }) => one.machineId === machineId)).toBe(false);
    expect(told.byMachine.length).toBeGreaterThan(0);
    await app.call('PUT', `/api/stock/${stockId}/retired`, { retired: true });
    expect(await offered()).toEqual([false, false]);
    expect(await views.whyNotPlanned(app.ctx, (await getPairingOf(machineId)).id, 'grid')).toMatch(/is retired/);
  });
});

async function getPairingOf(machineId: number) {
  const [row] = await query(app.databaseUrl, `select id from pairing where machine_id = ${machineId}`);
  return getPairing(app.ctx, Number(row!['id']));
}

describe('a bench', () => {
  it('tells of each card what was kept from it, each shade in its newest version', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Bench one');
    const card = await makeCard(app, pairingId);
    await burnedElsewhere(card.id);
    for (const [cellIndex, shade] of tuples([2, 'strong'], [4, 'strong'], [6, 'weak'], [8, ''])) {
      await answerCard(app, card.id, 'grade', cellIndex, '5');
      expect((await keep(card.id, { cellIndex, shade })).status).toBe(201);
    }
    const bench = await views.benchView(app.ctx, pairingId);
    const { layout } = (await app.call('GET', `/api/cards/${card.id}`)).json.card;
    const words = (cellIndex: number): string => {
      const { power, speed } = layout.cells[cellIndex].levels as { power: number; speed: number };
      return `${Number((power * 100).toPrecision(4))} %, ${Math.round(speed * 60)} mm/min`;
    };
    expect(bench.keptWords[card.id]).toEqual([words(8), `weak, ${words(6)}`, `strong, ${words(4)}`]);
    expect(bench.cards[0]).toMatchObject({ id: card.id, kept: 4, stage: 'seen' });
    expect(bench.newest).toBeNull();
    const { json: seen } = await app.call('GET', `/api/cards/${card.id}`);
    expect(
      seen.kept.map(({ name, version, cellIndex }: Record<string, unknown>) => [name, version, cellIndex]),
    ).toEqual(tuples(['engrave', 1, 8], ['engrave', 1, 6], ['engrave', 2, 4], ['engrave', 1, 2]));
    for (const { factId } of seen.kept) expect((await app.call('GET', `/api/facts/${factId}`)).status).toBe(200);
    // A card that something was kept from waits for nothing.
    expect(bench.ladder.find(({ rung }) => rung === 'grid')).toMatchObject({ state: 'measured' });
    expect(bench.next.rung).not.toBe('grid');
  });
  it('has no rung that nothing can answer there, unless something was kept of it', async () => {
    const rungsOf = async (pairingId: number): Promise<string[]> =>
      (await views.benchView(app.ctx, pairingId)).ladder.map(({ rung }) => rung);
    const mirrors = await makePairing(app, 'tern', 'twoLayer', 'Bench five');
    expect(await rungsOf(mirrors.pairingId)).toContain('ways');
    expect(await rungsOf(mirrors.pairingId)).not.toContain('run-up');
    const linen = await makePairing(app, 'marl', 'linen', 'Bench six');
    const asked = await rungsOf(linen.pairingId);
    expect(asked).toContain('kerf');
    expect(asked).not.toContain('cut-focus');
    // A card that waits keeps its rung, whatever becomes of the sheet.
    const thinned = await makePairing(app, 'marl', 'alder', 'Bench eight');
    await makeCardOf(app, thinned.pairingId, 'cut-focus');
    const { json: stock } = await app.call('GET', `/api/stock/${thinned.stockId}`);
    const { id: _id, retired: _retired, remarks: _remarks, byMachine: _byMachine, ...record } = stock;
    await app.call('PUT', `/api/stock/${thinned.stockId}`, { ...record, thicknessReadingsMm: [1.2] });
    expect(await views.whyNotPlanned(app.ctx, thinned.pairingId, 'cut-focus')).toMatch(/under 1.5 mm/);
    expect(await rungsOf(thinned.pairingId)).toContain('cut-focus');
    // What may not be burned shows all that is stopped.
    const banned = await makePairing(app, 'heron', 'acrylic', 'Bench seven');
    expect(await rungsOf(banned.pairingId)).toContain('run-up');
    await query(
      app.databaseUrl,
      `with made as (insert into fact (name, owner, pairing_id, at, at_key) values ('cutFocus', 'pairing', ${linen.pairingId}, '{}', '{}') returning id)
       insert into fact_version (fact_id, version, value, origin, made_for, note) select id, 1, '{"way":"top","focusOffsetMm":0,"taperMm":null}', 'brought', '{}', '' from made`,
    );
    await query(
      app.databaseUrl,
      `update pairing_state set revision = revision + 1 where pairing_id = ${linen.pairingId}`,
    );
    expect(await rungsOf(linen.pairingId)).toContain('cut-focus');
  });
  it('says why a kind of card cannot be planned, and nothing where it can, or is none', async () => {
    const { pairingId } = await makePairing(app, 'tern', 'twoLayer', 'Bench two');
    expect(await views.whyNotPlanned(app.ctx, pairingId, 'kerf')).toMatch(/not cut through/);
    expect(await views.whyNotPlanned(app.ctx, pairingId, 'grid')).toBeNull();
    expect(await views.whyNotPlanned(app.ctx, pairingId, 'mystery')).toBeNull();
    await expect(views.whyNotPlanned(app.ctx, 987_654, 'grid')).resolves.toMatch(/no pairing 987654/);
  });
  it('is planned on with the newest card of the kind, favourites and the sheet’s usual place', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather', 'Bench three');
    expect((await views.planView(app.ctx, pairingId, 'grid')).before).toBeNull();
    const { code } = await makeCard(app, pairingId);
    await makeCardOf(app, pairingId, 'focus');
    const view = await views.planView(app.ctx, pairingId, 'grid');
    expect(view).toMatchObject({ kind: 'grid', before: { code }, favourites: [] });
    expect(view.usedAreas).toHaveLength(2);
    // By hand: 200 × 150 mm of stock on a bed of 400 × 400, twenty from its left and its front.
    expect(view.sheetOnBed).toEqual({ leftMm: 20, rearMm: 400 - 150 - 20 });
  });
  it('lays sheets where they fit: at the edge of a bed that is hardly larger, under the lens of a galvo head', async () => {
    const { pairingId } = await makePairing(app, 'tern', 'twoLayer', 'Bench four');
    const galvo = await getPairing(app.ctx, pairingId);
    expect(defaultSheetOnBed(galvo)).toEqual({ leftMm: 35, rearMm: 35 });
    const gantry = { ...galvo, machine: { ...galvo.machine, head: 'gantry' as const } };
    const sheet = (sheetWidthMm: number, sheetDepthMm: number) =>
      defaultSheetOnBed({ ...gantry, stock: { ...gantry.stock, sheetWidthMm, sheetDepthMm } });
    expect(sheet(100, 100)).toEqual({ leftMm: 20, rearMm: 60 });
    expect(sheet(175, 175)).toEqual({ leftMm: 5, rearMm: 0 });
    expect(sheet(300, 300)).toEqual({ leftMm: 0, rearMm: 0 });
  });
});

describe('the book', () => {
  it('tells whose each fact is, how sure it is, and leads to it', async () => {
    const made = await makePairing(app, 'marl', 'alder', 'Book one');
    const { rows } = await bookView(app.ctx, 'Book ONE', 1);
    expect(rows.map(({ name, owner, machine }) => [name, owner, machine]).toSorted()).toEqual([
      ['spot', 'lens', 'Book one'],
      ['watts', 'machine', 'Book one'],
    ]);
    const of = (name: string) => rows.find((row) => row.name === name)!;
    expect(of('watts')).toMatchObject({
      title: 'Watts per command',
      value: '6 points, 50 W at 90 %',
      sure: '',
      lens: '',
      stock: '',
      origin: 'record',
      version: 1,
    });
    expect(of('spot')).toMatchObject({ lens: '2 inch', value: 'X 0.13 mm, Y 0.13 mm' });
    const thickness = (await bookView(app.ctx, 'alder thickness', 1)).rows.at(-1)!;
    // Mean and standard deviation of 6.02, 6.05 and 5.98, by hand.
    expect(thickness).toMatchObject({
      owner: 'stock',
      stock: 'Alder board',
      batch: 'A-3',
      value: '6.02 mm',
      sure: '± 0.0351 mm',
      machine: '',
    });

    const watts = await factView(app.ctx, of('watts').factId);
    expect(watts).toMatchObject({
      subject: 'Book one',
      href: `/machines/${made.machineId}`,
      pairing: null,
      layout: null,
      stale: [],
      conditions: '',
    });
    const spot = await factView(app.ctx, of('spot').factId);
    expect(spot).toMatchObject({ subject: 'Lens 2 inch of Book one', href: `/machines/${made.machineId}` });
    expect(await factView(app.ctx, thickness.factId)).toMatchObject({
      subject: 'Alder board',
      href: expect.stringMatching(/^\/stock\/\d+$/),
    });
    await expect(factView(app.ctx, 987_654)).rejects.toMatchObject({ code: 'not-found' });
  });
  it('comes in pages', async () => {
    const first = await bookView(app.ctx, '', 1);
    expect(first).toMatchObject({ limit: 60, offset: 0 });
    expect(first.rows).toHaveLength(Math.min(60, first.total));
    expect(await bookView(app.ctx, '', 50)).toMatchObject({ rows: [], total: first.total, offset: 49 * 60 });
    // Signs that a search of the database would take for its own are looked for as they are.
    for (const odd of ['%', '_', '\\', '10%']) expect((await bookView(app.ctx, odd, 1)).rows).toEqual([]);
  });
  it('shows a setting with its cell, what changed since the version before, and its own units', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'leather', 'Book two');
    const card = await makeCard(app, pairingId);
    await burnedElsewhere(card.id);
    for (const cellIndex of [3, 4]) {
      await answerCard(app, card.id, 'grade', cellIndex, '4');
      await keep(card.id, { cellIndex }, `cell ${cellIndex}`);
    }
    const [row] = (await bookView(app.ctx, 'two engrave cell 4', 1)).rows;
    expect(row).toMatchObject({ note: 'cell 4', version: 2, photoId: null, sure: '', stale: [], conditions: '' });
    expect(row!.value).toMatch(/^\d+(\.\d+)? %, \d+ mm\/min$/);
    const view = await factView(app.ctx, row!.factId);
    const [second, first] = view.versions;
    expect(view.subject).toBe('Veg-tanned leather on Book two, lens fixed, batch hide 7');
    expect(view).toMatchObject({ title: 'Engraving', href: `/bench/${pairingId}`, likedUnits: { speed: 'mm/min' } });
    expect([second, first].map((one) => [one!.cardCode, one!.cell!.index])).toEqual([
      [card.code, 4],
      [card.code, 3],
    ]);
    expect(first!.changes).toEqual([]);
    expect(second!.changes).toEqual([expect.stringMatching(/^Power: [\d.]+ % → [\d.]+ %$/)]);
    expect(view.layout!.code).toBe(card.code);
  });
  it('is exported whole, each setting in columns of its own', async () => {
    const csv = await app.call('GET', '/api/facts/export.csv');
    expect(csv.response.headers.get('content-type')).toBe('text/csv; charset=utf-8');
    expect(csv.response.headers.get('content-disposition')).toBe('attachment; filename="settings-book.csv"');
    const rows = parseCsv<Record<string, string>>(csv.json as string, { columns: true });
    const json = await app.call('GET', '/api/facts/export.json');
    expect(json.response.headers.get('content-type')).toBe('application/json; charset=utf-8');
    expect(json.response.headers.get('content-disposition')).toMatch(/^attachment/);
    expect(json.json).toMatchObject({ format: 'glass-ladder-book', formatVersion: 2 });
    const facts = json.json.facts as Record<string, any>[];
    expect(rows.map((row) => `${row['fact']} ${row['version']}`)).toEqual(
      facts.map(({ fact, version }) => `${fact} ${version}`),
    );
    const kept = facts.find(({ note }) => note === 'cell 4')!;
    const line = rows.find(({ note }) => note === 'cell 4')!;
    const { settings } = kept['value'];
    expect(kept).toMatchObject({ name: 'engrave', owner: 'pairing', machine: 'Book two', cell: 4, origin: 'card' });
    expect(Number(line['power_percent'])).toBeCloseTo(settings.powerFraction * 100, 3);
    const columns = {
      speed_mm_per_s: 'speedMmPerS',
      interval_mm: 'intervalMm',
      passes: 'passes',
      focus_offset_mm: 'focusOffsetMm',
      air: 'air',
      direction: 'direction',
      both_ways: 'bothWays',
      run_up_mm: 'runUpMm',
      scan_offset_mm: 'scanOffsetMm',
      lengthen_mm: 'lengthenMm',
      line_angle_deg: 'lineAngleDeg',
      cross_hatch: 'crossHatch',
      frequency_khz: 'frequencyKHz',
    } as const;
    for (const [column, field] of Object.entries(columns)) {
      expect(kept[column], column).toEqual(settings[field]);
      const typed = typeof settings[field] === 'boolean' ? (settings[field] ? '1' : '') : String(settings[field] ?? '');
      expect([typed, String(settings[field])], column).toContain(line[column]);
    }
    expect(JSON.parse(line['value']!)).toEqual(kept['value']);
    const watts = facts.find(({ name }) => name === 'watts')!;
    expect(watts['power_percent']).toBeUndefined();
  });
});

describe('what a card found', () => {
  it('is not kept where something is missing, with what it is, or where there is nothing to keep', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder', 'Keep one');
    const strip = await makeCardOf(app, pairingId, 'threshold');
    expect((await keep(strip.id, {})).json).toMatchObject({
      code: 'nothing-to-keep',
      status: 409,
      detail: 'Say of each patch whether it left a mark, or let a photo be read.',
    });
    const grid = await makeCard(app, pairingId, { leaveOutFailing: false });
    await burnedElsewhere(grid.id);
    await answerCard(app, grid.id, 'grade', 0, '5');
    expect((await keep(grid.id, { cellIndex: 999 })).json).toMatchObject({
      code: 'nothing-to-keep',
      detail: `Card ${grid.code} has nothing to keep for this choice.`,
    });
  });
  it('of another owner than the pairing goes to that owner', async () => {
    const made = await makePairing(app, 'marl', 'alder', 'Keep two');
    const [row] = await query(
      app.databaseUrl,
      `select pairing_id, machine_id, lens_id, stock_id from fact where name = 'watts' and machine_id = ${made.machineId}`,
    );
    expect(row).toEqual({ pairing_id: null, machine_id: made.machineId, lens_id: null, stock_id: null });
  });
});

describe('a search', () => {
  it('asked for its next patch twice at one moment adds one', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder', 'Search one');
    const { id } = await makeCardOf(app, pairingId, 'threshold', () => ({ way: 'search' }));
    const [one, two] = await Promise.all([1, 2].map(() => app.call('POST', `/api/cards/${id}/next`)));
    expect(one!.json).toMatchObject({ go: true, cellIndex: 0 });
    // Whoever comes second is told of the same patch, or to look at it first.
    if (two!.json.go) expect(two!.json).toEqual(one!.json);
    const { json } = await app.call('GET', `/api/cards/${id}`);
    expect(json.card.layout.cells).toHaveLength(1);
    expect(json.whys).toEqual({ 0: one!.json.why });
    expect(json.burnedCells).toEqual([]);
    expect((await app.call('GET', `/api/cards/${id}/next`)).status).toBe(200);
    expect((await app.call('GET', '/api/cards/987654/next')).status).toBe(404);
  });
  it('fails where the card is gone, rather than adding to nothing', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder', 'Search two');
    const { id } = await makeCardOf(app, pairingId, 'threshold', () => ({ way: 'search' }));
    await query(app.databaseUrl, 'alter table card_cell add constraint no_more check (false) not valid');
    try {
      expect((await app.call('POST', `/api/cards/${id}/next`)).status).toBe(500);
    } finally {
      await query(app.databaseUrl, 'alter table card_cell drop constraint no_more');
    }
  });
});

describe('what the bench has burned of a card', () => {
  const programs = async (cardId: number) => (await benchBurnOf(app.ctx, await getCard(app.ctx, cardId))).programs;
  it('is its last whole burn and what came after: a card that is burned again lies on a fresh piece', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Pieces one');
    const { id } = await makeCard(app, pairingId);
    await expect(programs(id)).rejects.toMatchObject({ code: 'nothing-burned' });
    await burnCard(app, id);
    expect(await programs(id)).toHaveLength(1);
    await burnedElsewhere(id);
    await burnCard(app, id);
    const [only, ...none] = await programs(id);
    expect(none).toEqual([]);
    await burnCard(app, id, [4]);
    const both = await programs(id);
    expect(both).toHaveLength(2);
    expect(both[0]).toEqual(only);
    expect(both[1]!.lines).toBeLessThan(only!.lines);
  });
  it('is every part of one that is burned cell by cell', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Pieces two');
    const { id } = await makeCard(app, pairingId);
    for (const cell of [0, 4, 8]) await burnCard(app, id, [cell]);
    const parts = await programs(id);
    expect(parts).toHaveLength(3);
    // Markers and lettering are burned with the first.
    expect(parts.map(({ text }) => text.includes('(marker upper-left)'))).toEqual([true, false, false]);
  });
  it('is kept from while a burn goes on', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Pieces three');
    const { id } = await makeCard(app, pairingId);
    await burnCard(app, id);
    expect((await burnedElsewhere(id, { clock: true })).json.status).toBe('running');
    await expect(programs(id)).rejects.toMatchObject({ code: 'nothing-burned', safe: 'The burn goes on.' });
  });
});

describe('a form that is sent again', () => {
  const { machine, lenses } = DEMO_MACHINES.marl;
  const send = (name: string, key: string) =>
    app.call('POST', '/api/machines', { machine: { ...machine, name }, lens: lenses[0] }, { 'idempotency-key': key });
  it('gets the first answer, also when the second comes at the same moment', async () => {
    const [one, two] = await Promise.all([send('Once one', 'once-key-1'), send('Once one', 'once-key-1')]);
    expect([one.status, two.status]).toEqual([201, 201]);
    expect(two.json).toEqual(one.json);
    expect((await send('Once one', 'once-key-1')).json).toEqual(one.json);
  });
  it('is told its own fault each time, and keeps nothing of it', async () => {
    await send('Once two', 'once-key-2');
    for (const _ of [1, 2])
      expect((await send('Once two', 'once-key-3')).json).toMatchObject({
        code: 'name-taken',
        status: 409,
        fields: [{ field: 'name', message: 'This name is in use.' }],
      });
    expect(await query(app.databaseUrl, `select 1 from submission where key = 'once-key-3'`)).toEqual([]);
  });
  it('is refused where its key belongs to something else', async () => {
    await send('Once three', 'once-key-4');
    const other = await app.call(
      'POST',
      '/api/stock',
      { ...DEMO_STOCKS.birch, acquiredOn: null },
      { 'idempotency-key': 'once-key-4' },
    );
    expect(other.json).toMatchObject({ code: 'malformed-request', detail: expect.stringMatching(/another request/) });
  });
});

describe('a card', () => {
  it('is found by its code, however it was typed', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Code one');
    const { id, code } = await makeCard(app, pairingId);
    for (const typed of [code, code.toLowerCase(), code.replace('-', ' ')])
      expect(await cardByCode(app.ctx, typed), typed).toEqual({ id, isCode: true });
    expect(await cardByCode(app.ctx, 'birch')).toEqual({ id: null, isCode: false });
  });
  it('is set up as the last one of its bench, and says so', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Setup one');
    const fresh = await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`);
    expect(Object.values<string>(fresh.json.reasons).filter((words) => words.startsWith('as for card'))).toEqual([]);
    const setup = { ...fresh.json.plan.setup, support: 'pins' };
    const { code } = await makeCard(app, pairingId, { setup });
    const next = await app.call('GET', `/api/pairings/${pairingId}/proposals/focus`);
    expect(next.json.plan.setup).toEqual(setup);
    expect(next.json.reasons['setup.support']).toBe(`as for card ${code}`);
  });
  it('is refused where head or run-up leave the bed, and on blanks that are not there', async () => {
    const { pairingId, stockId } = await makePairing(app, 'heron', 'birch', 'Place one');
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`)).json;
    const make = (more: object) =>
      app.call('POST', '/api/cards', {
        pairingId,
        kind: 'grid',
        plan,
        sheetPlace: null,
        sheetOnBed: { leftMm: 30, rearMm: 30 },
        ...more,
      });
    const off = await make({ sheetOnBed: { leftMm: 395, rearMm: 30 } });
    expect(off.json).toMatchObject({ code: 'outside-bed', status: 409 });
    expect(off.json.detail).toMatch(/^Head or run-up would go beyond the bed: \d+(\.\d+)? mm at the right\.$/);
    const { json: stock } = await app.call('GET', `/api/stock/${stockId}`);
    const { id: _id, retired: _retired, remarks: _remarks, byMachine: _byMachine, ...record } = stock;
    await app.call('PUT', `/api/stock/${stockId}`, {
      ...record,
      sheetWidthMm: 60,
      sheetDepthMm: 60,
      blanks: { count: 2 },
    });
    expect((await make({ piece: 3 })).json.detail).toBe('There are 2 blanks of Birch ply: no 3 is not one of them.');
    const [one, two, three] = [await make({}), await make({}), await make({})];
    expect([one.status, two.status]).toEqual([201, 201]);
    expect(three.json).toMatchObject({
      code: 'does-not-fit',
      detail: expect.stringMatching(/^No free place of .* mm is left on the 2 blanks of Birch ply\.$/),
    });
    const pieces = await Promise.all(
      [one, two].map(async ({ json }) => (await app.call('GET', `/api/cards/${json.id}`)).json.card.piece),
    );
    expect(pieces).toEqual([1, 2]);
    expect((await make({ piece: 2, sheetPlace: { xMm: 2, yMm: 2 } })).json.detail).toMatch(/lie on an earlier card/);
  });
  it('burns the cells that are asked for, and no strange ones', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Cells one');
    const card = await makeCard(app, pairingId);
    for (const cells of [[99], [0, -1], []])
      expect((await burnedElsewhere(card.id, { cells })).json.code, String(cells)).toBe('invalid-input');
    expect((await burnedElsewhere(card.id, { cells: [4, 2] })).json).toMatchObject({ cells: [4, 2], status: 'done' });
    expect((await app.call('GET', `/api/cards/${card.id}`)).json.burnedCells).toEqual([2, 4]);
    const unticked = await app.call('POST', '/api/burns', {
      cardId: card.id,
      place: 'own-machine',
      ticked: [],
      cells: null,
    });
    const all = await tickedOf(app, card.id);
    expect(unticked.json).toMatchObject({ code: 'cautions-unticked', whatIsSafe: 'Nothing was burned.' });
    expect(unticked.json.fields.map(({ field }: { field: string }) => field)).toEqual(
      all.map((code) => `ticked.${code}`),
    );
  });
});

describe('settings from elsewhere', () => {
  it('start from a plain fill and the shades that there are', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Bring one');
    const view = await bringView(app.ctx, pairingId);
    expect(view.shades).toEqual([]);
    expect(view.usual.powerFraction).toBeGreaterThan(0.02);
    expect(view.usual.powerFraction).toBeLessThanOrEqual(0.8);
    const settings = { settings: [{ settings: view.usual, shade: 'pale', note: 'from a scrap' }] };
    expect((await app.call('POST', `/api/pairings/${pairingId}/settings`, settings)).status).toBe(201);
    expect((await bringView(app.ctx, pairingId)).shades).toEqual(['pale']);
  });
  it('are refused as tables without rows, with too many, or that are none', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch', 'Bring two');
    const preview = (text: string) =>
      app.call('POST', `/api/pairings/${pairingId}/settings/preview`, { text, meanings: null });
    expect((await preview('power,speed')).json.detail).toMatch(/no rows under its line of titles/);
    const rows = (count: number) => ['power,speed', ...Array.from({ length: count }, () => '20,1200')].join('\n');
    expect((await preview(rows(500))).json.rows).toHaveLength(500);
    expect((await preview(rows(501))).json.detail).toMatch(/^At the most 500 rows of 40 columns/);
    const wide = (count: number) => `${Array.from({ length: count }, (_, index) => `c${index}`).join()}\n1`;
    expect((await preview(wide(40))).status).toBe(200);
    expect((await preview(wide(41))).json.detail).toMatch(/^At the most 500 rows of 40 columns/);
    expect((await preview('power,speed\n"20,1200')).json).toMatchObject({
      code: 'invalid-input',
      whatIsSafe: 'Nothing was filed.',
    });
    // The line of titles decides what parts the columns, whatever stands in the rows.
    const mixed = await preview('Power %;Note\n20;pale, from a scrap');
    expect(mixed.json.columns.map(({ samples }: { samples: string[] }) => samples[0])).toEqual([
      '20',
      'pale, from a scrap',
    ]);
    for (const sign of [',', ';', '\t']) {
      const { json } = await preview(`\uFEFFPower %${sign}Speed mm/min\n\n20${sign}1200\n`);
      expect(json.columns.map(({ title }: { title: string }) => title)).toEqual(['Power %', 'Speed mm/min']);
      expect(json.rows[0].settings).toMatchObject({ powerFraction: 0.2, speedMmPerS: 20 });
    }
  });
  it('are copied to another bench only, and only where they are settings', async () => {
    const from = await makePairing(app, 'heron', 'birch', 'Copy one');
    const to = await makePairing(app, 'marl', 'birch', 'Copy two');
    const { usual } = await bringView(app.ctx, from.pairingId);
    const brought = await app.call('POST', `/api/pairings/${from.pairingId}/settings`, {
      settings: [{ settings: usual, shade: '', note: '' }],
    });
    const { factId } = brought.json.facts[0];
    const copy = (fact: number, pairingId: number) => app.call('POST', `/api/facts/${fact}/copy`, { pairingId });
    expect((await copy(factId, from.pairingId)).json.detail).toMatch(/nothing to copy/);
    expect((await copy(987_654, to.pairingId)).json.code).toBe('not-found');
    const [watts] = (await bookView(app.ctx, 'Copy two watts', 1)).rows;
    expect((await copy(watts!.factId, from.pairingId)).json.detail).toMatch(
      /^Watts per command is no engraving setting/,
    );
    const copied = await copy(factId, to.pairingId);
    expect(copied.status).toBe(201);
    const view = await factView(app.ctx, copied.json.factId);
    expect(view.versions[0]).toMatchObject({ origin: 'copied', cardCode: null, cell: null });
    expect(view.versions[0]!.note).toMatch(/^Foretold from Birch ply on Copy one, v1: .* %, .* mm\/s\. /);
    // The setting of one bench proves nothing on another.
    expect((await app.call('GET', `/api/pairings/${to.pairingId}/proposals/grid?prove=${factId}`)).json.detail).toBe(
      `There is no setting of this bench ${factId}.`,
    );
    expect((await app.call('GET', `/api/pairings/${from.pairingId}/proposals/grid?prove=${factId}`)).status).toBe(200);
    expect(
      (await app.call('GET', `/api/pairings/${from.pairingId}/proposals/focus?prove=${factId}`)).json.detail,
    ).toMatch(/proves no setting/);
  });
});
