import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Answer } from '../../core/card/asks';
import { deliveredBy } from '../../core/card/energy';
import { layCard, planProblems } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { deliveredPowerW } from '../../core/machine/machine';
import { DROP, EDGE } from '../../core/card/usual-asks';
import { thicknessOf } from '../../core/stock/stock';
import { kerf } from '../kerf';
import { cutContour } from './contour';
import { findCut, USUAL_CUT_WISH, type CutWish } from './find';
import { cut } from './index';
import type { CutPlan } from './plan';
import { withRows } from './propose';
import { tuples } from '../../../tests/support/tuples';

const alder = demoPairing('marl', 'alder');
const known = { pairing: alder, facts: [] };
let plan: CutPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = cut.propose(known));
  layout = layCard(cut, plan, alder, { cardNumber: 9 });
});
const thickness = thicknessOf(alder.stock).meanMm;
const settingsOf = (index: number, of: Layout = layout) => mainBurn(of.cells[index]!).settings;
/** J/mm for each mm, by hand. */
const energyOf = (index: number, of: Layout = layout): number => {
  const { powerFraction, speedMmPerS, passes } = settingsOf(index, of);
  return (deliveredPowerW(alder.machine, powerFraction) * passes) / speedMmPerS / thickness;
};
const said = (field: string, cellIndex: number, value: string): Answer => ({ field, cellIndex, repeat: 0, value });
const tap = (least: number, of: Layout = layout): Answer[] =>
  of.order.map((index) => said(DROP.field, index, energyOf(index, of) > least ? 'clean' : 'not-through'));
const found = (answers: readonly Answer[], wish: Partial<CutWish> = {}, of: Layout = layout) =>
  findCut(of, { readings: [], answers }, known, { ...USUAL_CUT_WISH, ...wish });

describe('a card of cut squares', () => {
  it('gives every square an energy of its own, evenly apart in their logarithm, about what should come through', () => {
    const energies = layout.cells.map(({ index }) => energyOf(index)).sort((a, b) => a - b);
    expect(energies).toHaveLength(36);
    const steps = energies.slice(1).map((energy, at) => Math.log(energy / energies[at]!));
    const even = Math.log(energies.at(-1)! / energies[0]!) / 35;
    // Speeds are told to a whole mm/s, powers to a tenth of a per cent.
    for (const step of steps) expect(Math.abs(step - even)).toBeLessThan(0.6 * even);
    // Solid wood comes through at about 1 J/mm for each mm (common practice); a table is good to a factor of two.
    expect(energies[0]!).toBeLessThan(0.6);
    expect(energies.at(-1)!).toBeGreaterThan(2);
  });
  it('cuts squares of its size, each closed, the riskiest last', () => {
    for (const { box, burns } of layout.cells) {
      const { shape } = burns[0]!;
      if (shape.do !== 'follow') throw new Error('no line is followed');
      const [line] = shape.lines;
      expect(line![0]).toEqual(line!.at(-1));
      expect(line!.map(({ x, y }) => [x - box.x, y - box.y])).toEqual(
        expect.arrayContaining(
          tuples([0, 0], [6, 0], [6, 6], [0, 6]).map(([x, y]) => [expect.closeTo(x, 3), expect.closeTo(y, 3)]),
        ),
      );
    }
    expect(settingsOf(layout.order.at(-1)!)).toMatchObject({
      speedMmPerS: plan.speed.from,
      powerFraction: plan.rows.to,
    });
  });
  it('is lettered in what its edges vary', () => {
    const passes = withRows({ ...plan, rows: { ...plan.rows, channel: 'passes' } }, alder);
    expect([plan, passes].map((one) => cut.draw(one, alder).units)).toEqual(['MM/S / %', 'MM/S / PASSES']);
  });
  it('has rows of power again: four, from 79 in 100 of the cut’s own up to it', () => {
    const own = {
      ...plan,
      cut: { ...plan.cut, powerFraction: 0.5 },
      rows: { ...plan.rows, channel: 'power' as const },
    };
    expect(withRows(own, alder).rows).toEqual({ channel: 'power', from: 0.395, to: 0.5, count: 4, spacing: 'ratio' });
  });
  it('has rows of passes instead, each as many as its letter says', () => {
    const passes = withRows({ ...plan, rows: { ...plan.rows, channel: 'passes' } }, alder);
    expect(planProblems(cut, passes, alder)).toEqual([]);
    const laid = layCard(cut, passes, alder, { cardNumber: 9 });
    const ofRow = (row: number) => settingsOf(row * passes.speed.count, laid).passes;
    expect([0, 1, 2, 3].map(ofRow)).toEqual([4, 3, 2, 1]);
    expect(laid.cells[0]!.levels).toMatchObject({ passes: 4 });
    const words = (change: Partial<CutPlan['rows']>) =>
      planProblems(cut, { ...passes, rows: { ...passes.rows, ...change } }, alder);
    expect(words({ count: 6 })).toMatchObject([
      { field: 'rows.count', message: expect.stringContaining('whole passes') as string },
    ]);
    expect(words({ to: 30, count: 10 })[0]).toMatchObject({ field: 'rows.to' });
    expect(planProblems(cut, { ...plan, speed: { ...plan.speed, to: 9000 } }, alder)[0]).toMatchObject({
      field: 'speed.to',
    });
    expect(planProblems(cut, { ...plan, sizeMm: 1 }, alder)[0]).toMatchObject({ field: 'sizeMm' });
  });
  it('is laid closer about a cut that was kept, and not proposed for what is not cut', () => {
    const settings = { ...plan.cut, speedMmPerS: 14, passes: 2 };
    const value = {
      settings,
      certainty: 0.98,
      outlineMm: 19,
      thicknessMm: { from: 2.5, to: 3.1 },
      comesThrough: 0.85,
      laidDown: 1.2,
      edge: null,
    };
    const fact = factNow('cut', value);
    const closer = layCard(cut, cut.propose({ pairing: alder, facts: [fact] }).plan, alder, { cardNumber: 9 });
    const energies = closer.cells.map(({ index }) => energyOf(index, closer));
    expect(Math.min(...energies)).toBeCloseTo(0.85 * 0.85, 1);
    expect(Math.max(...energies)).toBeCloseTo(1.25 * 1.2, 1);
    expect(() => cut.propose({ pairing: demoPairing('marl', 'slate'), facts: [] })).toThrow(/not cut through/);
    // Kerf squares are cut as was kept, not by a table.
    const kept = kerf.propose({ pairing: alder, facts: [fact] });
    expect(kept.plan.cut).toEqual(settings);
    expect(kept.reasons['cut.speedMmPerS']).toBe('as kept: what drops 98 of 100 parts');
    const old = factNow('cut', value, { stale: ['another batch'] });
    // What may hold no longer narrows nothing.
    expect(cut.propose({ pairing: alder, facts: [old] }).plan).toEqual(plan);
    expect(kerf.propose({ pairing: alder, facts: [old] }).plan.cut).not.toEqual(settings);
  });
});

describe('what dropped', () => {
  const LEAST = 0.9;
  it('gives a setting that lays down more than what just came through, and no more than is needed', () => {
    const { chosen, missing, says, window } = found(tap(LEAST));
    expect(missing).toEqual([]);
    expect(window!.comesThrough(2).low).toBeLessThan(LEAST);
    expect(window!.comesThrough(2).high).toBeGreaterThan(LEAST);
    const laid = deliveredBy(chosen!.settings, alder).lineJPerMm / thickness;
    expect(chosen!.energy).toBeCloseTo(laid, 9);
    expect(laid).toBeGreaterThan(LEAST);
    expect(laid).toBeLessThan(1.7 * LEAST);
    expect(chosen!.chance.chance).toBeGreaterThanOrEqual(0.98);
    expect(says).toMatch(/^90 %, \d+ mm\/s, 2 passes: 98 of 100 squares like these drop, all doubt included\.$/);
    // By hand: two passes of a metre.
    expect(chosen!.secondsPerMetre).toBeCloseTo(2000 / chosen!.settings.speedMmPerS, 9);
  });
  it('asks for more energy for a longer outline, for more certainty, and where a square held up inside', () => {
    const energy = (answers: Answer[], wish: Partial<CutWish> = {}) => found(answers, wish).chosen!.energy;
    const plain = energy(tap(LEAST));
    expect(energy(tap(LEAST), { outlineMm: 60 })).toBeGreaterThan(1.1 * plain);
    expect(energy(tap(LEAST), { certainty: 0.9 })).toBeLessThan(plain);
    const stuck = layout.order.filter((index) => energyOf(index) > 1.4 && energyOf(index) < 1.6)[0]!;
    const held = found(
      tap(LEAST).map((one) => (one.cellIndex === stuck ? { ...one, value: 'hangs' } : one)),
      { certainty: 0.95 },
    );
    expect(held.heldUp).toEqual([stuck]);
    expect(held.chosen!.energy).toBeGreaterThan(energy(tap(LEAST), { certainty: 0.95 }));
    expect(held.says).toContain('One square held up where sound stock was through: a knot or glue inside.');
  });
  it('is not told by squares for which the source did not fire', () => {
    const low = alder.machine.lowestFiringCommand;
    const weak = layCard(cut, { ...plan, rows: { ...plan.rows, from: low / 4 } }, alder, { cardNumber: 9 });
    expect(weak.cells.some(({ index }) => energyOf(index, weak) === 0)).toBe(true);
    const { squares, missing, chosen } = found(tap(LEAST, weak), {}, weak);
    for (const { energy, drops } of squares) expect(drops === null).toBe(energy === 0);
    expect(missing).toEqual([]);
    expect(chosen!.energy).toBeGreaterThan(LEAST);
  });
  it('counts what a knife frees only where that will do, and a flare-up neither way', () => {
    const between = (index: number): boolean => energyOf(index) > 0.7 && energyOf(index) < 0.95;
    const answers = tap(0.95).map((one) => (between(one.cellIndex!) ? { ...one, value: 'knife' } : one));
    expect(found(answers, { knife: true }).chosen!.energy).toBeLessThan(found(answers).chosen!.energy);
    const hottest = layout.order.at(-1)!;
    const flared = found(tap(LEAST).map((one) => (one.cellIndex === hottest ? { ...one, value: 'flare' } : one)));
    expect(flared.squares.find(({ cellIndex }) => cellIndex === hottest)!.drops).toBeNull();
    expect(flared.missing).toEqual([]);
  });
  it('offers the faster, the cooler and the cleaner one of those that drop as surely', () => {
    // Slow squares came out black, quick ones pale.
    const edges = layout.order.map((index) =>
      said(EDGE.field, index, settingsOf(index).speedMmPerS > 11 ? 'pale' : 'black'),
    );
    const answers = [...tap(LEAST), ...edges];
    const { choices } = found(answers);
    const of = (want: CutWish['want']) => choices.find(({ wants }) => wants.includes(want))!;
    expect(of('faster').settings.powerFraction).toBe(plan.rows.to);
    expect(of('cooler').settings.powerFraction).toBe(plan.rows.from);
    expect(of('cooler').settings.speedMmPerS).toBeLessThan(of('faster').settings.speedMmPerS);
    for (const { energy } of choices) expect(energy / of('faster').energy).toBeCloseTo(1, 0);
    expect(of('cleaner').edge).toBe('pale');
    // As the squares look on the average that were cut most like it, and not as any other.
    expect(of('cooler').edge).toBe('brown');
    expect(of('faster').edge).toBe('pale');
    expect(found(answers, { want: 'cooler' }).chosen).toEqual(of('cooler'));
    // All black: none is pale enough, and that is said.
    const black = [...tap(LEAST), ...layout.order.map((index) => said(EDGE.field, index, 'black'))];
    expect(found(black, { edge: 'pale' }).missing[0]).toMatch(/leaves its edge so pale/);
    expect(found(tap(LEAST), { edge: 'pale' }).missing[0]).toMatch(/leaves its edge so pale/);
    expect(found(black, { edge: 'any' }).chosen!.edge).toBe('black');
  });
  it('counts charred squares as dropped, with black edges unless somebody said otherwise, and no edge of what did not drop', () => {
    const charred = tap(LEAST).map((one) => (one.value === 'clean' ? { ...one, value: 'charred' } : one));
    expect(found(charred).chosen).toEqual({
      ...found(tap(LEAST)).chosen!,
      edge: 'black',
      wants: expect.anything() as never,
    });
    const pale = layout.order.map((index) => said(EDGE.field, index, 'pale'));
    expect(found([...charred, ...pale]).chosen!.edge).toBe('pale');
    const stuck = layout.order
      .filter((index) => energyOf(index) <= LEAST)
      .map((index) => said(EDGE.field, index, 'black'));
    expect(found([...tap(LEAST), ...stuck]).chosen!.edge).toBeNull();
  });
  it('is never above the cap, which may have come down since', () => {
    const careful = { ...alder, machine: { ...alder.machine, powerCap: 0.75 } };
    const { choices } = findCut(
      layout,
      { readings: [], answers: tap(LEAST) },
      { pairing: careful, facts: [] },
      USUAL_CUT_WISH,
    );
    expect(choices.length).toBeGreaterThan(0);
    for (const { settings } of choices) expect(settings.powerFraction).toBeLessThanOrEqual(0.75);
  });
  it('is kept with what it drops, of which sheets, and how sure', () => {
    const finding = found(tap(LEAST));
    const [fact] = cut.settle(finding);
    expect(fact).toMatchObject({ name: 'cut', at: { shade: 'faster' }, cellIndex: finding.chosen!.cellIndex });
    if (fact?.name !== 'cut') throw new Error('no cut is kept');
    const { certainty, outlineMm, thicknessMm, laidDown, comesThrough } = fact.value;
    expect(certainty).toBeGreaterThanOrEqual(0.98);
    expect(outlineMm).toBeCloseTo(24, 6);
    expect(thicknessMm.from).toBeCloseTo(0.85 * thickness, 6);
    expect(thicknessMm.to).toBeGreaterThan(thickness);
    expect(laidDown).toBeGreaterThan(comesThrough);
    expect(cut.settle(found([]))).toEqual([]);
  });
});

describe('what is missing', () => {
  it('is said of few, of all or none dropped, of contradictions, and of a card that does not reach far enough', () => {
    expect(found(tap(0.9).slice(0, 4)).missing[0]).toMatch(/^Tap the sheet and say of at least 6 squares/);
    expect(found(tap(0)).missing[0]).toMatch(/^Every square dropped/);
    expect(found(tap(99)).missing[0]).toMatch(/^No square dropped: burn a card with more energy/);
    const backwards = tap(0.9).map((one) => ({ ...one, value: one.value === 'clean' ? 'hangs' : 'clean' }));
    expect(found(backwards).missing[0]).toMatch(/^Squares with little energy dropped/);
    const most = Math.max(...layout.cells.map(({ index }) => energyOf(index)));
    const short = found(tap(most * 0.93));
    expect(short.missing[0]).toMatch(
      /^With the most energy of this card, \d+ of 100 squares like these would drop; 98 of 100 are wanted/,
    );
    expect(short.chosen).toBeNull();
    // Where the head is as slow as does not char, and none came through.
    const slow = layCard(cut, { ...plan, speed: { ...plan.speed, from: 4, to: 20 } }, alder, { cardNumber: 9 });
    expect(found(tap(99, slow), {}, slow).missing[0]).toMatch(/only for engraving on this machine/);
  });
});

describe('the line of a certainty over the card', () => {
  it.each(['power', 'passes'] as const)('has what surely drops on its left, row by row of %s', (channel) => {
    const of = layCard(
      cut,
      channel === 'power' ? plan : withRows({ ...plan, rows: { ...plan.rows, channel } }, alder),
      alder,
      { cardNumber: 9 },
    );
    const { window, outlineMm } = found(tap(0.9, of), {}, of);
    const { line } = cutContour(of, window!, { certainty: 0.9, outlineMm }, alder);
    expect(line.length).toBeGreaterThan(4);
    for (let k = 0; k < line.length; k += 2) {
      const [{ x, y }, below] = [line[k]!, line[k + 1]!];
      const row = of.cells.filter(({ box }) => box.y === y);
      expect(below).toEqual({ x, y: y + row[0]!.box.height });
      // Squares whose middle lies left of it drop more surely than that, the others less.
      for (const { index, box } of row) {
        const { chance } = window!.chanceAt(energyOf(index, of), settingsOf(index, of).passes, outlineMm);
        expect(chance >= 0.9).toBe(box.x + box.width / 2 <= x);
      }
    }
  });
  it('stands halfway between two squares where its energy is the mean of their logarithms', () => {
    const [a, b] = layout.cells.slice(1, 3);
    const between = Math.sqrt(energyOf(a!.index) * energyOf(b!.index));
    const window = { ...found(tap(0.9)).window!, energyFor: () => between };
    const { line } = cutContour(layout, window, { certainty: 0.98, outlineMm: 24 }, alder);
    expect(line[0]!.x).toBeCloseTo((a!.box.x + b!.box.x + b!.box.width) / 2, 6);
  });
});

describe('a photo on a light table', () => {
  const through = () =>
    layout.order.map((cellIndex) => ({
      cellIndex,
      through: energyOf(cellIndex) > 0.9 ? 0.97 : 0.02,
      sigma: 0.1,
      ownSigma: 0.1,
      darkestTenth: 0,
      doubts: cellIndex === 4 ? (['half-open'] as const) : [],
    }));
  const find = (answers: readonly Answer[]) =>
    findCut(layout, { readings: [], through: through(), answers }, known, USUAL_CUT_WISH);

  it('tells what dropped as a tap does, but for what it doubts', () => {
    const { squares, missing, chosen } = find([]);
    expect(missing).toEqual([]);
    expect(squares).toHaveLength(35);
    expect(squares.every(({ byPhoto, edge }) => byPhoto && edge === null)).toBe(true);
    expect(chosen!.settings).toEqual(found(tap(0.9).filter(({ cellIndex }) => cellIndex !== 4)).chosen!.settings);
  });
  it('says nothing where somebody did', () => {
    const { squares } = find([said(DROP.field, 0, 'flare'), said(DROP.field, 4, 'hangs')]);
    const of = (index: number) => squares.find(({ cellIndex }) => cellIndex === index);
    expect(of(0)).toMatchObject({ drops: null, byPhoto: false });
    expect(of(4)).toMatchObject({ drops: false, byPhoto: false });
  });
});
