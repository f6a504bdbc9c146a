import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import type { Answer, Seen } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { CellReading } from '../../core/reading/observations';
import { MARK_FIELD } from './asks';
import type { ThresholdPlan } from './plan';
import { SEARCH_PLACES, searchBox } from './draw';
import { threshold } from '.';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'alder');
const known = { pairing, facts: [] };
let plan: ThresholdPlan;
let strip: Layout;
beforeEach(() => {
  ({ plan } = threshold.propose(known));
  strip = layCard(threshold, plan, pairing, { cardNumber: 8 });
});

/** What an eye says that sees marks from a power up. */
const eyeAbove = (layout: Layout, power: number, but: Readonly<Record<number, string>> = {}): Seen => ({
  readings: [],
  answers: layout.cells.map((cell): Answer =>
    said(
      MARK_FIELD,
      cell.index,
      but[cell.index] ?? (mainBurn(cell).settings.powerFraction >= power ? 'marked' : 'nothing'),
    ),
  ),
});

describe('the least power that marks, from a photo', () => {
  const powerOf = (index: number): number => mainBurn(strip.cells[index]!).settings.powerFraction;
  /** As a photo shows the strip: a mark of ten L* from a power up, sure to so many. */
  const shown = (from: number, lightnessSigma = 0.3, unsure: readonly number[] = []): CellReading[] =>
    strip.cells.map(({ index }) => ({
      cellIndex: index,
      deltaLightness: powerOf(index) >= from ? -10 : -0.2,
      lightnessSigma: unsure.includes(index) ? 5 : lightnessSigma,
    })) as unknown as CellReading[];
  const find = (readings: CellReading[], answers: Answer[] = []) => threshold.find(strip, { readings, answers }, known);
  it('is where its marks begin', () => {
    const finding = find(shown(powerOf(5)));
    expect(finding).toMatchObject({ floor: powerOf(4), missing: [], undecided: [] });
    expect(finding.patches.every(({ by }) => by === 'photo')).toBe(true);
  });
  it('goes by the eye where eye and photo differ', () => {
    const eye = { field: MARK_FIELD, cellIndex: 4, repeat: 0, value: 'marked' };
    const finding = find(shown(powerOf(5)), [eye]);
    expect(finding.floor).toBe(powerOf(3));
    expect(finding.patches.find(({ cellIndex }) => cellIndex === 4)).toMatchObject({ marked: true, by: 'eye' });
  });
  it('leaves open what the photo shows but not clear of its doubt, and says so', () => {
    const finding = find(shown(powerOf(5), 0.3, [7, 8]));
    expect([...finding.undecided].sort()).toEqual([7, 8]);
    // A patch that no photo shows is not undecided: nobody looked at it.
    expect(find(shown(powerOf(5)).filter(({ cellIndex }) => cellIndex !== 9)).undecided).toEqual([]);
    expect(finding.says).toMatch(/2 patches could not be told: look there by eye\.$/);
    expect(find(shown(powerOf(5), 0.3, [7])).says).toMatch(/One patch could not be told/);
  });
});

describe('the least power that marks', () => {
  let powers: number[];
  beforeEach(() => {
    powers = strip.cells.map((cell) => mainBurn(cell).settings.powerFraction);
  });
  it('lies between the strongest bare patch, which is the floor, and the weakest marked one', () => {
    const finding = threshold.find(strip, eyeAbove(strip, powers[5]!), known);
    expect(finding.missing).toEqual([]);
    expect(finding.floor).toBe(powers[4]);
    expect(finding.half!.power).toBeGreaterThan(powers[4]!);
    expect(finding.half!.power).toBeLessThan(powers[5]!);
    expect(finding.half!.low!).toBeLessThan(finding.half!.power);
    expect(finding.half!.high!).toBeGreaterThan(finding.half!.power);
    const [draft] = threshold.settle(finding, strip);
    expect(draft).toMatchObject({
      name: 'floor',
      value: { powerFraction: powers[4] },
      at: { speed: plan.constants.speedMmPerS },
    });
  });
  it('is burned again in rows under one another, every one alike', () => {
    const pitch = plan.patchMm + plan.gapMm;
    const { widthMm, heightMm } = threshold.draw({ ...plan, repeats: 4 }, pairing);
    expect(widthMm).toBeCloseTo(powers.length * pitch - plan.gapMm, 3);
    expect(heightMm).toBeCloseTo(4 * pitch - plan.gapMm, 3);
    const rows = layCard(threshold, { ...plan, repeats: 4 }, pairing, { cardNumber: 5 });
    expect(rows.cells).toHaveLength(4 * powers.length);
    for (const [index, power] of powers.entries()) {
      const column = rows.cells.filter(({ levels }) => levels.power === power).map(({ box }) => box);
      expect(column.map(({ x }) => x)).toEqual(Array(4).fill(column[0]!.x));
      column.forEach(({ y }, row) => expect(y - column[0]!.y).toBeCloseTo(row * (plan.patchMm + plan.gapMm), 9));
      expect(column[0]!.x, String(index)).toBe(rows.cells[index]!.box.x);
    }
    expect(threshold.check({ ...plan, repeats: 7 }, pairing).map(({ field }) => field)).toEqual(['repeats']);
    const { repeats: _none, ...second } = { ...plan, version: 2 };
    expect(threshold.upgrade(second)).toEqual(plan);
  });
  it('is where one patch in fifty marks, from forty patches on and never above the step below the lowest mark', () => {
    const rows = layCard(threshold, { ...plan, repeats: 4 }, pairing, { cardNumber: 5 });
    // The sixth power marks twice in four, all above it do, none below.
    const sixth = rows.cells.filter(({ levels }) => levels.power === powers[5]).map(({ index }) => index);
    const seen = eyeAbove(rows, powers[5]!, { [sixth[0]!]: 'nothing', [sixth[1]!]: 'nothing' });
    const { faint, floor, half, says } = threshold.find(rows, seen, known);
    expect(faint!.power).toBeLessThan(half!.power);
    expect(faint!.low ?? 0).toBeLessThan(faint!.power);
    expect(floor).toBe(Math.min(powers[4]!, faint!.power));
    expect(floor).toBeLessThan(powers[4]! + 1e-9);
    expect(says).toMatch(/up to [\d.]+ % at most one patch in fifty marks\./);
    const [draft] = threshold.settle({ ...threshold.find(rows, seen, known) }, rows);
    const width = faint!.low === null || faint!.high === null ? null : faint!.high - faint!.low;
    expect(draft!.sigma).toBe(width === null ? null : width / 4);
    const fewer = threshold.find(rows, { ...seen, answers: seen.answers.slice(1) }, known);
    expect(fewer.faint).toBeNull();
    expect(fewer.floor).toBe(powers[4]);
    expect(fewer.says).toMatch(/white stays white/);
  });
  it('says nothing of how sure it is where few patches leave that open past the strongest of them', () => {
    const all = eyeAbove(strip, powers[3]!);
    const few = {
      ...all,
      answers: all.answers.filter(({ cellIndex }) =>
        [2, 3].includes(powers.indexOf(Number(strip.cells[cellIndex!]!.levels.power))),
      ),
    };
    const finding = threshold.find(strip, few, known);
    expect(finding.half!.high === null || finding.half!.high > powers[3]!).toBe(true);
    expect(threshold.settle(finding, strip)).toMatchObject([{ name: 'floor', sigma: null }]);
  });
  it('tells no floor where one in fifty would mark below all that was burned', () => {
    const rows = layCard(threshold, { ...plan, repeats: 4 }, pairing, { cardNumber: 5 });
    // The chance grows slowly: one more of each four for every third power, beginning low.
    const odd = Object.fromEntries(
      rows.cells.map(({ index, levels }) => {
        const step = powers.indexOf(Number(levels.power));
        const row = Math.floor(index / powers.length);
        return [index, step > 0 && row < Math.ceil(step / 3) ? 'marked' : 'nothing'];
      }),
    );
    const finding = threshold.find(rows, eyeAbove(rows, 2, odd), known);
    expect(finding).toMatchObject({ floor: null, missing: [expect.stringMatching(/below .*, where none was burned/)] });
    expect(finding.half).not.toBeNull();
    expect(threshold.settle(finding, rows)).toEqual([]);
  });
  it('has an open end where no patch stands against it', () => {
    const ends = (from: number) => threshold.find(strip, eyeAbove(strip, powers[from]!), known).half!;
    // One mark among ten bounds nothing; with five on either side both ends are told.
    expect([ends(9).low, ends(9).high]).toEqual([null, null]);
    expect(ends(5).low).toBeGreaterThan(powers[0]!);
    expect(ends(5).high).toBeLessThan(powers[9]!);
  });
  it('says where it is the source’s own: nothing marks below the least command that fires', () => {
    const firingAt = (lowestFiringCommand: number) =>
      threshold.find(strip, eyeAbove(strip, powers[5]!), {
        ...known,
        pairing: { ...pairing, machine: { ...pairing.machine, lowestFiringCommand } },
      });
    const words = 'That is where this source begins to fire.';
    expect(firingAt(powers[4]! + 0.001)).toMatchObject({ machineFloor: true, says: expect.stringContaining(words) });
    for (const below of [powers[4]!, powers[3]!]) {
      expect(firingAt(below).machineFloor).toBe(false);
      expect(firingAt(below).says).not.toContain(words);
    }
  });
  it('is told in words', () => {
    const { says, half } = threshold.find(strip, eyeAbove(strip, powers[5]!), known);
    const percent = (power: number): string => `${Number((100 * power).toPrecision(3))} %`;
    expect(says).toBe(
      `The first mark comes at about ${percent(half!.power)}; up to ${percent(powers[4]!)} white stays white. Once kept, the next strip is laid closer around it.`,
    );
    // One whose patches lie so close that they tell it well goes without.
    const close = layCard(threshold, { ...plan, power: { ...plan.power, from: 0.1, to: 0.12, count: 20 } }, pairing, {
      cardNumber: 9,
    });
    expect(threshold.find(close, eyeAbove(close, 0.11), known).says).toMatch(/white stays white\.$/);
  });
  it('asks for more speed where even the source’s least command marks, for less power elsewhere', () => {
    const firingAt = (lowestFiringCommand: number) =>
      threshold.find(strip, eyeAbove(strip, 0), {
        ...known,
        pairing: { ...pairing, machine: { ...pairing.machine, lowestFiringCommand } },
      });
    const least = Math.min(...powers);
    const own = firingAt(least / 1.1);
    expect(own.machineFloor).toBe(true);
    expect(own.missing[0]).toMatch(
      /^Even [\d.]+ %, about the lowest command that fires, marks: go faster to find the floor\.$/,
    );
    expect(firingAt(least / 1.11)).toMatchObject({
      machineFloor: false,
      missing: ['Even the weakest patch marked: burn a strip with less power.'],
    });
  });
  it('asks first to be looked at', () => {
    expect(threshold.find(strip, { readings: [], answers: [] }, known)).toMatchObject({
      missing: ['Say of each patch whether it left a mark, or let a photo be read.'],
      undecided: [],
      machineFloor: false,
      patches: [],
      says: '',
    });
  });
  it('keeps its floor under every mark and is less sure when patches contradict', () => {
    const clear = threshold.find(strip, eyeAbove(strip, powers[5]!), known);
    const mixed = threshold.find(strip, eyeAbove(strip, powers[5]!, { 3: 'marked' }), known);
    expect(mixed.floor).toBe(powers[2]);
    const width = ({ half }: typeof clear): number => (half!.high ?? Infinity) - (half!.low ?? 0);
    expect(width(mixed)).toBeGreaterThan(width(clear));
  });
  it.each([
    ['no patch marked', 2, {}, /No patch marked/],
    ['every patch marked', 0, {}, /marks|weakest/],
    ['only a weak one marked', 2, { 1: 'marked' }, /Weaker patches marked/],
  ])('says what is missing when %s', (_name, above, but, words) => {
    const finding = threshold.find(strip, eyeAbove(strip, above, but), known);
    expect(finding.missing.join(' ')).toMatch(words);
    expect(finding.half).toBeNull();
    expect(threshold.settle(finding, strip)).toEqual([]);
  });
});

describe('the search', () => {
  let search: ThresholdPlan;
  let empty: Layout;
  beforeEach(() => {
    search = { ...plan, way: 'search' };
    empty = layCard(threshold, search, pairing, { cardNumber: 9 });
  });

  /** Lets an eye that sees marks from a power up answer patch by patch until the search stops. */
  function searchFor(power: number): { layout: Layout; why: string } {
    let layout = empty;
    for (let turn = 0; turn < 60; turn++) {
      const next = threshold.next(layout, search, eyeAbove(layout, power), pairing)!;
      if (!next.go) return { layout, why: next.why };
      const cell = { ...next.cell, index: layout.cells.length };
      layout = { ...layout, cells: [...layout.cells, cell], order: [...layout.order, cell.index] };
    }
    throw new Error('the search does not stop');
  }
  it('begins with no cells, and a strip never asks for one', () => {
    expect(empty.cells).toEqual([]);
    expect(empty.frame).toMatchObject({ markers: [] });
    expect(threshold.draw(search, pairing)).toMatchObject({
      caption: 'MINIMUM POWER, ONE BY ONE',
      units: '%',
      markers: 'none',
    });
    expect(threshold.next(strip, plan, { readings: [], answers: [] }, pairing)).toBeNull();
  });
  it.each([0.3, 0.5, 0.8])(
    'stops by itself near a threshold at %f of its range, in fewer patches than places',
    (share) => {
      const { from, to } = search.power;
      const power = from * (to / from) ** share;
      const { layout, why } = searchFor(power);
      expect(why).toMatch(/enough/);
      const { half, missing } = threshold.find(layout, eyeAbove(layout, power), known);
      expect(missing).toEqual([]);
      expect(half!.power / power).toBeGreaterThan(0.9);
      expect(half!.power / power).toBeLessThan(1.11);
      expect(layout.cells.length).toBeLessThanOrEqual(16);
    },
  );
  it('says why each step is as wide as it is, and how often the answer turned', () => {
    const { from, to } = search.power;
    const power = from * (to / from) ** 0.62;
    const whys: string[] = [];
    let layout = empty;
    for (let turn = 0; turn < 60; turn++) {
      const next = threshold.next(layout, search, eyeAbove(layout, power), pairing)!;
      whys.push(next.why);
      if (!next.go) break;
      const cell = { ...next.cell, index: layout.cells.length };
      layout = { ...layout, cells: [...layout.cells, cell], order: [...layout.order, cell.index] };
    }
    expect(whys[0]).toMatch(/^The middle of the range/);
    expect(whys[1]).toBe('A wide step stronger, since the last one left nothing.');
    const turned = whys.filter((why) => /^A fine step/.test(why)).map((why) => /turned (.*)\.$/.exec(why)![1]);
    expect(turned[0]).toBe('once');
    expect([...new Set(turned)].slice(0, 3)).toEqual(['once', '2 times', '3 times']);
  });
  it('stops at the ends of its range with the reason', () => {
    const { from, to } = search.power;
    expect(searchFor(from / 2).why).toMatch(/low end/);
    expect(searchFor(to * 2).why).toMatch(/high end/);
  });
  it('waits for the eye before it goes on, and puts each patch on stock of its own', () => {
    const { from, to } = search.power;
    const { layout } = searchFor(Math.sqrt(from * to) * 1.1);
    const waits = threshold.next(layout, search, { readings: [], answers: [] }, pairing)!;
    expect(waits).toMatchObject({ go: false });
    expect(waits.why).toMatch(/waits/);
    const places = layout.cells.map(({ box }) => `${box.x} ${box.y}`);
    expect(new Set(places).size).toBe(places.length);
    // One after another to the right, inside the frame, and on in the next row.
    const [first, second] = layout.cells.map(({ box }) => box);
    expect(second!.x - first!.x).toBeCloseTo(search.patchMm + search.gapMm, 9);
    // And in rows as far apart, none of them used twice.
    const all = [...Array(SEARCH_PLACES).keys()].map((index) => searchBox(search, index, layout.inner));
    const rows = [...new Set(all.map(({ y }) => y))];
    expect(rows[0]).toBe(layout.inner.y);
    expect(rows[1]! - rows[0]!).toBeCloseTo(search.patchMm + search.gapMm, 9);
    expect(rows.map((at) => all.filter(({ y }) => y === at).length)).toEqual(
      rows.map(() => SEARCH_PLACES / rows.length),
    );
    const { inner } = layout;
    for (const { x, y, width, height } of [...Array(30).keys()].map((index) => searchBox(search, index, inner))) {
      expect(x).toBeGreaterThanOrEqual(inner.x);
      expect(x + width).toBeLessThanOrEqual(inner.x + inner.width + 1e-9);
      expect(y).toBeGreaterThanOrEqual(inner.y);
      expect(height).toBe(search.patchMm);
    }
  });
});
