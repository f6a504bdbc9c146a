import { compareView, NO_TONE } from '../../src/app/compare';
import { sumsView } from '../../src/app/sums';
import { afterAll, beforeAll, describe, expect, it, onTestFinished, vi } from 'vitest';
import { SimulatedLaser } from '../../src/bench/laser';
import { query, testApp, type TestApp } from '../support/context';
import { answerCard, burnCard, makeCard, makeCardOf, makePairing, tickedOf } from '../support/records';
import { listed } from '../support/listed';
import { tuples } from '../support/tuples';

let app: TestApp;
beforeAll(async () => void (app = await testApp()));
afterAll(() => app.close());

describe('the whole job over the endpoints', () => {
  it('goes from a machine to a kept setting with its origin', async () => {
    const { pairingId, stockId } = await makePairing(app, 'marl', 'slate');
    const { id: cardId, code } = await makeCard(app, pairingId);
    const bench = await app.call('GET', `/api/pairings/${pairingId}`);
    expect(bench.json.ladder.map((rung: { rung: string; state: string }) => `${rung.rung} ${rung.state}`)).toEqual(
      listed(
        'stock measured; safety measured; grid empty; threshold empty; ceiling empty; line empty; ' +
          'interval empty; tone empty; picture empty; focus empty; showpiece empty; ways empty; run-up empty; ' +
          'bed empty',
      ),
    );
    expect(bench.json.next).toMatchObject({ action: 'go-on', rung: 'grid', href: `/cards/${cardId}` });
    expect(bench.json.usedAreas).toHaveLength(1);

    const burnId = await burnCard(app, cardId);
    const burn = await app.call('GET', `/api/burns/${burnId}`);
    expect(burn.json).toMatchObject({ status: 'done', place: 'bench' });
    expect(burn.json.actualS).toBeGreaterThan(burn.json.estimatedS * 0.9);

    const photo = await app.call('POST', `/api/cards/${cardId}/photograph`);
    expect(photo.status).toBe(201);
    await app.ctx.readings.idle();
    const seen = await app.call('GET', `/api/cards/${cardId}`);
    expect(seen.json.photos[0].status).toBe('read');
    expect(seen.json.reading.cells).toHaveLength(9);

    const cell = seen.json.reading.cells[4];
    await answerCard(app, cardId, 'grade', 4, '4');
    const answers = await answerCard(app, cardId, 'outcome', 4, 'good');
    expect(answers.json).toEqual([
      { field: 'grade', cellIndex: 4, repeat: 0, value: '4' },
      { field: 'outcome', cellIndex: 4, repeat: 0, value: 'good' },
    ]);
    const wish = { lightness: cell.lightness, powerCap: 0.9, pace: 'slow-and-low' };
    const finding = await app.call('POST', `/api/cards/${cardId}/finding`, { wish });
    expect(finding.json.candidates.find((c: { cellIndex: number }) => c.cellIndex === 4).meets).toBe(true);

    const keep = (cellIndex: number, note: string) =>
      app.call('POST', '/api/facts', { cardId, wish, choice: { cellIndex }, note });
    const kept = await keep(4, 'first');
    expect(kept.json.facts).toMatchObject([{ name: 'engrave', version: 1 }]);
    const { factId } = kept.json.facts[0];
    expect((await keep(5, 'second')).json.facts).toEqual([{ factId, name: 'engrave', version: 2 }]);
    const fact = await app.call('GET', `/api/facts/${factId}`);
    const [second, first] = fact.json.versions;
    expect(first).toMatchObject({ version: 1, cardCode: code, cellIndex: 4, photoId: photo.json.id, note: 'first' });
    expect(first.value).toEqual({
      settings: seen.json.card.layout.cells[4].burns[0].settings,
      lightness: cell.lightness,
      lightnessSigma: cell.lightnessSigma,
      confidence: cell.confidence,
    });
    expect(second.changes).toContainEqual(expect.stringMatching(/^Power: [\d.]+ % → [\d.]+ %$/));
    expect(second.changes.filter((change: string) => /^(Speed|Line interval|Passes|Air)/.test(change))).toEqual([]);
    // The finding is kept as it was computed, with the wish.
    const findings = await query(
      app.databaseUrl,
      `select wish, value, method_version from finding where card_id = ${cardId}`,
    );
    expect(findings).toHaveLength(2);
    expect(findings[0]!['wish']).toEqual(wish);

    // Worked out again it says the same; a cell called spoiled changes that, and not what was kept.
    const again = async () => (await app.call('GET', `/api/facts/${factId}`)).json;
    // The newest first: what was kept second is the newest version's.
    const { says: said } = findings[0]!['value'] as { says: string };
    const { again: same } = await again();
    expect(same).toEqual({ cardId, then: said, now: said });
    expect(same.then).not.toBe('');
    const { proposal: proposed } = finding.json;
    await answerCard(app, cardId, 'outcome', proposed.cellIndex, 'charred');
    const changed = await again();
    expect(changed.again.then).toBe(same.then);
    expect(changed.again.now).not.toBe(same.then);
    expect(changed.versions).toEqual(fact.json.versions);
    await answerCard(app, cardId, 'outcome', proposed.cellIndex, proposed.cellIndex === 4 ? 'good' : null);

    // The next grid starts from it.
    const proposal = await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`);
    expect(proposal.json.reasons['across.from']).toMatch(/kept/);

    // A new batch of the stock makes both stale; the versions stay as they were.
    const stock = await app.call('GET', `/api/stock/${stockId}`);
    const { id: _id, retired: _retired, remarks: _remarks, byMachine: _byMachine, ...record } = stock.json;
    await app.call('PUT', `/api/stock/${stockId}`, { ...record, batch: 'B-2' });
    const later = await app.call('GET', `/api/pairings/${pairingId}`);
    const grid = later.json.ladder.find((rung: { rung: string }) => rung.rung === 'grid');
    expect(grid).toMatchObject({ state: 'stale', reason: 'new batch B-2', href: `/book/${factId}` });
    // Half a minute of burning settles it, and is what is asked for.
    expect(later.json.next).toMatchObject({
      action: 'plan',
      rung: 'grid',
      text: 'Sheet check',
      href: `/bench/${pairingId}/plan/sheet-check`,
      cost: expect.stringMatching(/^\d+(\.\d)? s, /),
    });
    const { id: checkId } = await makeCardOf(app, pairingId, 'sheet-check');
    await burnCard(app, checkId);
    const waiting = await app.call('GET', `/api/pairings/${pairingId}`);
    expect(waiting.json.next).toMatchObject({ action: 'go-on', rung: 'grid', href: `/cards/${checkId}` });
    await app.call('POST', `/api/cards/${checkId}/photograph`);
    await app.ctx.readings.idle();
    const check = await app.call('POST', `/api/cards/${checkId}/finding`, { wish: null });
    expect(check.json).toMatchObject({ verdict: 'holds', missing: [], wanted: { lightness: second.value.lightness } });
    const renewed = await app.call('POST', '/api/facts', { cardId: checkId, wish: {}, choice: {}, note: 'on B-2' });
    expect(renewed.json.facts).toEqual([{ factId, name: 'engrave', version: 3 }]);
    const { json: after } = await app.call('GET', `/api/pairings/${pairingId}`);
    expect(after.ladder.find((rung: { rung: string }) => rung.rung === 'grid')).toMatchObject({ state: 'measured' });
    const book = await app.call('GET', '/api/facts?search=slate%20b-2%20engrave');
    expect(book.json.rows).toHaveLength(1);
    expect((await app.call('GET', '/api/facts?search=granite')).json.rows).toEqual([]);
  });

  it('takes a setting from between the cells, which the next card is to prove', async () => {
    const { pairingId, stockId } = await makePairing(app, 'marl', 'alder', 'Between');
    const { id: cardId } = await makeCard(app, pairingId);
    await burnCard(app, cardId);
    await app.call('POST', `/api/cards/${cardId}/photograph`);
    await app.ctx.readings.idle();
    const { surface } = (await app.call('POST', `/api/cards/${cardId}/finding`, { wish: null })).json;
    expect(surface).toMatchObject({ trusted: true, across: 'power', down: 'speed' });
    const { across, down, lightness } = surface.foretold;
    const keep = (choice: object) => app.call('POST', '/api/facts', { cardId, wish: null, choice, note: '' });
    // A place is kept, or a cell, never both or none.
    for (const choice of [{}, { at: { across, down }, cellIndex: 1 }, { at: { across } }])
      expect((await keep(choice)).status).toBe(422);
    expect((await keep({ at: { across: 0.99, down } })).json.code).toBe('nothing-to-keep');
    const kept = await keep({ at: { across, down } });
    expect(kept.json).toMatchObject({ facts: [{ name: 'engrave', version: 1 }] });
    const { factId } = kept.json.facts[0];
    const fact = (await app.call('GET', `/api/facts/${factId}`)).json.versions[0];
    expect(fact).toMatchObject({ origin: 'predicted', cardId, cellIndex: null });
    expect(fact.value).toMatchObject({ settings: { powerFraction: across, speedMmPerS: down }, lightness });
    const bench = (await app.call('GET', `/api/pairings/${pairingId}`)).json;
    expect(bench.ladder.find((rung: { rung: string }) => rung.rung === 'grid')).toMatchObject({
      state: 'predicted',
      reason: 'foretold between cells, not burned yet',
    });
    expect(bench.next).toMatchObject({ action: 'plan', rung: 'grid', text: 'Prove the foretold setting' });
    // Its tone, and any other, is matched on the benches that it is compared with.
    const other = await makePairing(app, 'heron', 'birch', 'Nothing burned');
    const compared = await compareView(app.ctx, [pairingId, other.pairingId], null, {
      ...NO_TONE,
      lightness: Math.round(lightness),
    });
    const rows = compared.rows.filter(({ title }) => title.startsWith('To match'));
    expect(rows.map(({ title }) => title)).toEqual([
      'To match a tone',
      expect.stringMatching(/^To match .* on Between$/),
    ]);
    expect(rows[0]!.cells[0]).toMatchObject({
      sure: expect.stringMatching(/^foretold: L\* /),
      href: `/cards/${cardId}?lightness=${Math.round(lightness)}#find`,
    });
    expect(rows[0]!.cells[1]).toEqual({ text: 'not measured' });
    expect(rows[0]!.cells[0]!.stale).toEqual([]);
    const beyond = await compareView(app.ctx, [pairingId], null, { ...NO_TONE, lightness: 99 });
    expect(beyond.rows.find(({ title }) => title === 'To match a tone')!.cells[0]!.text).toBe('out of its reach');
    const { plan } = (await app.call('GET', `/api/pairings/${pairingId}/proposals/grid?prove=${factId}`)).json;
    expect(plan.across.count * plan.down.count).toBe(9);
    expect(Math.sqrt(plan.across.from * plan.across.to)).toBeCloseTo(across, 6);
    // What an older batch's card foretells says that it is.
    const { json: stock } = await app.call('GET', `/api/stock/${stockId}`);
    const { id: _id, retired: _retired, remarks: _remarks, byMachine: _byMachine, ...record } = stock;
    await app.call('PUT', `/api/stock/${stockId}`, { ...record, batch: 'B-9' });
    const later = await compareView(app.ctx, [pairingId], null, { ...NO_TONE, lightness: Math.round(lightness) });
    expect(later.rows.find(({ title }) => title === 'To match a tone')!.cells[0]!.stale).toEqual(['new batch B-9']);
  });

  it('never changes or deletes a kept version', async () => {
    for (const statement of [
      "update fact_version set note = 'other'",
      'delete from fact_version',
      "update finding set kind = 'other'",
      'delete from finding',
    ])
      await expect(query(app.databaseUrl, statement), statement).rejects.toThrow(/never changed/);
  });
});

describe('the bench of the demo', () => {
  it('pauses, goes on, stops, and lets nobody burn two cards at once on one machine', async () => {
    const slow = await testApp({ paceFactor: 1 });
    onTestFinished(() => slow.close());
    const { pairingId } = await makePairing(slow, 'heron', 'birch');
    const first = await makeCard(slow, pairingId);
    const second = await makeCard(slow, pairingId);
    const ticked = await tickedOf(slow, first.id);
    expect(
      (await slow.call('POST', '/api/burns', { cardId: first.id, place: 'bench', ticked: ticked.slice(1) })).json,
    ).toMatchObject({ status: 409, code: 'cautions-unticked' });
    const burn = await slow.call('POST', '/api/burns', { cardId: first.id, place: 'bench', ticked });
    expect(burn.status).toBe(201);
    const busy = await slow.call('POST', '/api/burns', { cardId: second.id, place: 'bench', ticked });
    expect(busy.json).toMatchObject({ status: 409, code: 'machine-busy', whatIsSafe: 'That burn goes on.' });
    const control = (action: string) => slow.call('POST', `/api/burns/${burn.json.id}/control`, { action });
    const send = vi.spyOn(SimulatedLaser.prototype, 'send');
    expect((await control('pause')).json.status).toBe('paused');
    // The beam is disarmed by the last word that was sent, and armed dark when the burn goes on.
    expect(send.mock.lastCall).toEqual(['M5']);
    const before = (await slow.call('GET', `/api/burns/${burn.json.id}`)).json.progress.linesDone;
    await new Promise((done) => setTimeout(done, 350));
    expect((await slow.call('GET', `/api/burns/${burn.json.id}`)).json.progress.linesDone).toBe(before);
    send.mockClear();
    expect((await control('resume')).json.status).toBe('running');
    expect(send.mock.calls[0]![0]).toMatch(/^M[34] S0$/);
    expect((await slow.call('POST', `/api/cards/${first.id}/photograph`)).json.code).toBe('nothing-burned');
    expect((await control('stop')).json.status).toBe('stopped');
    expect(send.mock.lastCall).toEqual(['M5']);
    send.mockRestore();
    expect((await control('pause')).json.code).toBe('burn-not-open');
    // Burned elsewhere: nothing is sent to the bench, and the burn is over at once.
    const own = await slow.call('POST', '/api/burns', { cardId: second.id, place: 'own-machine', ticked });
    expect(own.json).toMatchObject({ status: 'done', place: 'own-machine', linesTotal: 0 });
  });
});

describe('a search', () => {
  it('grows its card cell by cell, asks before it goes on, stops by itself, and its floor starts the next card', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id: cardId } = await makeCardOf(app, pairingId, 'threshold', () => ({ way: 'search' }));
    const seenBy = new Map<number, number>();
    let why = '';
    for (let turn = 0; turn < 25; turn++) {
      const next = await app.call('POST', `/api/cards/${cardId}/next`);
      if (!next.json.go) {
        why = next.json.why;
        break;
      }
      const { cellIndex } = next.json;
      // Asked for again before the eye has spoken, it waits.
      expect((await app.call('GET', `/api/cards/${cardId}/next`)).json).toMatchObject({ go: false });
      await burnCard(app, cardId, [cellIndex]);
      const { json } = await app.call('GET', `/api/cards/${cardId}`);
      const power = json.card.layout.cells[cellIndex].levels.power as number;
      seenBy.set(cellIndex, power);
      await answerCard(app, cardId, 'mark', cellIndex, power >= 0.12 ? 'marked' : 'nothing');
    }
    expect(why).not.toBe('');
    const { json: view } = await app.call('GET', `/api/cards/${cardId}`);
    expect(view.burnedCells).toHaveLength(seenBy.size);
    // Its frame was burned once, with the first cell.
    const programs = await query(app.databaseUrl, `select program from burn where card_id = ${cardId} order by id`);
    expect(programs.filter((row) => String(row['program']).includes('(lettering)'))).toHaveLength(1);
    const kept = await app.call('POST', '/api/facts', { cardId, wish: null, choice: {}, note: '' });
    if (why.includes('enough')) {
      expect(kept.json.facts).toMatchObject([{ name: 'floor', version: 1 }]);
      const bench = await app.call('GET', `/api/pairings/${pairingId}`);
      expect(bench.json.ladder.find((rung: { rung: string }) => rung.rung === 'threshold')).toMatchObject({
        state: 'measured',
      });
    } else expect(kept.json.code).toBe('nothing-to-keep');
    // A whole grid asks for no cell.
    const grid = await makeCard(app, pairingId);
    expect((await app.call('POST', `/api/cards/${grid.id}/next`)).json.code).toBe('no-search');
  });
});

describe('a card whose focus a hand sets', () => {
  it('waits at each stop until the hand is done, whatever else is asked of it, and burns at what was told', async () => {
    const { pairingId } = await makePairing(app, 'heron', 'birch');
    const { id: cardId } = await makeCardOf(app, pairingId, 'focus', () => ({ patchMm: 2 }));
    const burn = await app.call('POST', '/api/burns', {
      cardId,
      place: 'bench',
      ticked: await tickedOf(app, cardId),
      cells: null,
    });
    const { id } = burn.json;
    const control = (body: object) => app.call('POST', `/api/burns/${id}/control`, body);
    const stops: (number | null)[] = [];
    // As long as it takes: a busy machine's bench is slow, and the test's own limit ends one that hangs.
    for (;;) {
      const { json } = await app.call('GET', `/api/burns/${id}`);
      if (json.status === 'done') break;
      if (json.progress?.hand) {
        stops.push(json.progress.hand.focusOffsetMm);
        const before = json.progress.linesDone;
        await new Promise((done) => setTimeout(done, 60));
        expect((await app.call('GET', `/api/burns/${id}`)).json.progress.linesDone).toBe(before);
        expect((await control({ action: 'proceed', focusOffsetMm: json.progress.hand.focusOffsetMm })).status).toBe(
          200,
        );
      } else await new Promise((done) => setTimeout(done, 20));
    }
    const { json } = await app.call('GET', `/api/burns/${id}`);
    expect(json.status).toBe('done');
    const { json: view } = await app.call('GET', `/api/cards/${cardId}`);
    const offsets: number[] = view.card.layout.cells.map((cell: any) => cell.burns[0].settings.focusOffsetMm);
    for (const offset of offsets.filter((mm) => mm !== 0)) expect(stops).toContain(offset);
    expect((await control({ action: 'proceed', focusOffsetMm: 0 })).json.code).toBe('hand-not-awaited');
    const [row] = await query(app.databaseUrl, `select hands from burn where id = ${id}`);
    expect((row!['hands'] as object[]).length).toBe(stops.length);
  });
});

describe('a cut card', () => {
  it('is measured with the bench’s caliper once it was burned, and its kerf is kept', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id: cardId } = await makeCardOf(app, pairingId, 'kerf', () => ({ count: 1, sizeMm: 12, smallMm: null }));
    const gauge = (field: string, repeat = 0) =>
      app.call('POST', `/api/cards/${cardId}/gauge`, { field, cellIndex: 0, repeat });
    expect((await gauge('width-x')).json.code).toBe('nothing-burned');
    await burnCard(app, cardId);
    // The hole that it left is as much wider as it is narrower.
    expect(Number((await gauge('hole-x')).json.text)).toBeGreaterThan(12);
    for (const field of ['width-x', 'width-y'])
      for (const repeat of [0, 1, 2]) {
        const { json } = await gauge(field, repeat);
        expect(json.text).toMatch(/^\d+\.\d\d$/);
        expect(Number(json.text)).toBeLessThan(12);
        // A hand that presses harder along Y: the axes differ.
        const read = Number(json.text) - (field === 'width-y' ? 0.02 : 0);
        expect((await answerCard(app, cardId, field, 0, read, repeat)).status).toBe(200);
      }
    expect((await gauge('drop')).json).toMatchObject({
      code: 'invalid-input',
      detail: 'No gauge is asked for under “drop”.',
    });
    const light = await app.call('GET', `/api/cards/${cardId}/light-table`);
    expect(light.response.headers.get('content-type')).toBe('image/png');
    const kept = await app.call('POST', '/api/facts', { cardId, wish: null, choice: {}, note: 'first cut' });
    expect(kept.json.facts).toMatchObject([{ name: 'kerf', version: 1 }]);
    const fact = await app.call('GET', `/api/facts/${kept.json.facts[0].factId}`);
    expect(fact.json.versions[0].value.xMm).toBeGreaterThan(0.03);
    expect(fact.json.versions[0].value.xMm).toBeLessThan(0.4);
    expect(fact.json.versions[0].sigma).toBeGreaterThan(0.01);
    // The workshop's sums start from either axis.
    const { xMm, yMm } = fact.json.versions[0].value;
    expect(xMm).not.toBe(yMm);
    const offered = (await sumsView(app.ctx)).kerfs.filter(({ factId }) => factId === kept.json.facts[0].factId);
    expect(offered.map(({ axis, kerfMm }) => [axis, kerfMm])).toEqual(tuples(['X', xMm], ['Y', yMm]));
  });
});

describe('a part that has not come loose', () => {
  it('is not measured, and the gauge says why', async () => {
    const { pairingId } = await makePairing(app, 'marl', 'alder');
    const { id: cardId } = await makeCardOf(app, pairingId, 'kerf', (plan) => ({
      count: 1,
      sizeMm: 12,
      smallMm: null,
      cut: { ...plan.cut, speedMmPerS: 100, passes: 1 },
    }));
    await burnCard(app, cardId);
    const { json, status } = await app.call('POST', `/api/cards/${cardId}/gauge`, {
      field: 'width-x',
      cellIndex: 0,
      repeat: 0,
    });
    expect([status, json.code]).toEqual([409, 'cannot-measure']);
    expect(json.detail).toBe('The part has not come loose: it cannot be measured.');
  });
});
