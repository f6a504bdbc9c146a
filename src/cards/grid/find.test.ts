import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { readingOf as plainReading } from '../../../stand-ins/made-up-reading';
import { SHOP } from '../../../scripts/proposals/shop';
import type { Answer, Seen } from '../../core/card/asks';
import { squareFillTimeS } from '../../core/card/fill-time';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { asksOn } from '../../core/card/usual-asks';
import type { CellReading } from '../../core/reading/observations';
import type { GridWish } from './find';
import type { GridPlan } from './plan';
import { grid } from '.';

const pairing = demoPairing('heron', 'birch');
const known = { pairing, facts: [] };
let plan: GridPlan;
beforeEach(() => {
  ({ plan } = grid.propose(known));
});

/** Sure readings of a card's cells in burn order, each so far from bare stock. */
const readingsBy = (card: Layout, bare: number, deltaOf: (place: number) => number, count = card.order.length) =>
  card.order.slice(0, count).map((cellIndex, place): CellReading => {
    const deltaLightness = deltaOf(place);
    return { ...plainReading(cellIndex), lightness: bare + deltaLightness, deltaLightness, lightnessSigma: 0.3 };
  });

describe('finding', () => {
  let layout: Layout;
  let cells: CellReading[];
  let seen: Seen;
  /** A made-up reading: darkness grows with energy. */
  const readingOf = (cell: Layout['cells'][number]): CellReading => {
    const lightness = 78 - 40 * (1 - Math.exp(-cell.risk));
    return { ...plainReading(cell.index), lightness, deltaLightness: lightness - 78 };
  };
  beforeEach(() => {
    layout = layCard(grid, plan, pairing, { cardNumber: 7 });
    cells = layout.cells.map(readingOf);
    seen = { readings: cells, answers: [] };
  });
  const wish: GridWish = { lightness: 60, powerCap: 0.8, pace: 'fast-and-strong' };

  it('says what is missing before there is a photo', () => {
    const finding = grid.find(layout, { readings: [], answers: [] }, known, wish);
    expect(finding.missing).toEqual(['No photo of this card has been read yet, and no cell was graded 4 or 5 by eye.']);
    expect(finding.proposal).toBeNull();
    expect(grid.find(layout, seen, known, wish).missing).toEqual([]);
  });
  it('aims its stops at tones that trusted cells have, however few there are', () => {
    // Three cells at 70, 45 and 20 of a bare 78: medium, six tenths of the way down, would be 43.2, where there is none.
    const few = cells.slice(0, 3).map((cell, place) => ({ ...cell, lightness: [70, 45, 20][place]! }));
    const { stops, proposal } = grid.find(layout, { readings: few, answers: [] }, known, { ...wish, lightness: null });
    expect(stops).toEqual({ weak: 70, medium: 45, strong: 20 });
    expect(proposal?.cellIndex).toBe(few[1]!.cellIndex);
    const doubted = few.map((cell, place) => (place === 1 ? { ...cell, confidence: 0.1 } : cell));
    const other = grid.find(layout, { readings: doubted, answers: [] }, known, { ...wish, lightness: null });
    expect(other.stops!.medium).not.toBe(45);
  });
  describe('with a photo on a light table', () => {
    const coatedPairing = demoPairing('marl', 'coated');
    const coated = { pairing: coatedPairing, facts: [] };
    /** Three cells that look alike in a lamp's light: coat left, clear, and clear at another time. */
    const looked = (layout: Layout, through: readonly number[]): Seen => {
      const chosen = layout.cells.filter(({ leftOut }) => !leftOut).slice(-3);
      return {
        readings: chosen.map((cell, place) => ({
          ...readingOf(cell),
          lightness: 78 + 0.1 * place,
          deltaLightness: 59,
        })),
        through: chosen.map(({ index }, place) => ({
          cellIndex: index,
          through: through[place]!,
          sigma: 0.02,
          ownSigma: 0.005,
          darkestTenth: through[place]!,
          doubts: [],
        })),
        answers: [],
      };
    };
    const clearWish: GridWish = { lightness: null, powerCap: 1, pace: 'fast-and-strong', cleared: true };
    it('proposes the fastest cell whose coat is off, whatever its tone', () => {
      const card = layCard(grid, grid.propose(coated).plan, coatedPairing, { cardNumber: 7 });
      const finding = grid.find(card, looked(card, [0.5, 0.91, 0.92]), coated, clearWish);
      expect(finding.candidates.map(({ cleared, meets }) => [cleared, meets])).toEqual([
        [false, false],
        [true, true],
        [true, true],
      ]);
      const times = finding.candidates.filter(({ meets }) => meets).map(({ timeS }) => timeS);
      const proposed = finding.candidates.find(({ cellIndex }) => cellIndex === finding.proposal!.cellIndex)!;
      expect(proposed.meets).toBe(true);
      expect(proposed.timeS).toBe(Math.min(...times));
      expect(finding.says).toContain('of 2 cells whose coat is off, within the 100 % cap');
      expect(finding.remark).toBeNull();
      // Where tone is wanted, all three are near.
      const tone = grid.find(card, looked(card, [0.5, 0.91, 0.92]), coated, { ...clearWish, cleared: false });
      expect(tone.candidates.every(({ meets }) => meets)).toBe(true);
    });
    it('says how clear the clearest is where none is, and what to take where there is no such photo', () => {
      const card = layCard(grid, grid.propose(coated).plan, coatedPairing, { cardNumber: 7 });
      const none = grid.find(card, looked(card, [0.5, 0.6, 0.62]), coated, clearWish);
      expect(none.proposal).toBeNull();
      expect(none.says).toContain('the clearest lets 62 % of the light through');
      const { through, ...untold } = looked(card, [0.5, 0.6, 0.62]);
      const without = grid.find(card, untold, coated, clearWish);
      expect(without.says).toContain('No photo on a light table');
      expect(without.remark).toContain('Tone does not tell whether the coat is off');
      const alone = grid.find(card, { readings: [], through: through!, answers: [] }, coated, clearWish);
      expect(alone.missing[0]).toContain('by a lamp or a window too');
    });
  });
  it('proposes the fastest cell that meets the wish, or the gentlest, by the school of pace', () => {
    const fast = grid.find(layout, seen, known, wish);
    const slow = grid.find(layout, seen, known, { ...wish, pace: 'slow-and-low' });
    const meeting = fast.candidates.filter((candidate) => candidate.meets);
    expect(meeting.length).toBeGreaterThan(1);
    for (const candidate of meeting) expect(Math.abs(candidate.lightness - 60)).toBeLessThanOrEqual(3);
    expect(fast.candidates.find((c) => c.cellIndex === fast.proposal!.cellIndex)!.timeS).toBe(
      Math.min(...meeting.map((c) => c.timeS)),
    );
    expect(slow.candidates.find((c) => c.cellIndex === slow.proposal!.cellIndex)!.powerFraction).toBe(
      Math.min(...meeting.map((c) => c.powerFraction)),
    );
  });
  it('takes the tone that is closest among cells that are equally fast, or equally weak', () => {
    // All cells alike but for their tone: the same settings, so the same time and power.
    const same = { ...layout, cells: layout.cells.map((cell) => ({ ...cell, burns: layout.cells[0]!.burns })) };
    const tones = cells.map((cell, index) => ({ ...cell, lightness: 62.5 - 0.1 * index }));
    const closest = tones.reduce((best, cell) =>
      Math.abs(cell.lightness - 60) < Math.abs(best.lightness - 60) ? cell : best,
    );
    for (const pace of ['fast-and-strong', 'slow-and-low'] as const) {
      const { proposal } = grid.find(same, { readings: tones, answers: [] }, known, { ...wish, pace });
      expect(proposal!.cellIndex).toBe(closest.cellIndex);
    }
  });
  it('says in words what it proposes, of how many, and how long that takes', () => {
    const { proposal, candidates } = grid.find(layout, seen, known, wish);
    const count = candidates.filter(({ meets }) => meets).length;
    expect(proposal!.reason).toMatch(
      new RegExp(
        `^[\\d.]+ % at \\d+ mm/min is the fastest of ${count} cells within reach of .* and the 80 % cap; 10 × 10 cm takes `,
      ),
    );
    const gentle = grid.find(layout, seen, known, { ...wish, pace: 'slow-and-low' });
    expect(gentle.proposal!.reason).toContain(`the lowest power of ${count} cells`);
    const only = grid.find(layout, { readings: cells.slice(0, 1), answers: [] }, known, {
      ...wish,
      lightness: cells[0]!.lightness,
    });
    expect(only.proposal!.reason).toContain('is the only cell within reach');
  });
  it('keeps to the power cap', () => {
    const capped = grid.find(layout, seen, known, { ...wish, powerCap: 0.4 });
    for (const candidate of capped.candidates.filter((c) => c.meets))
      expect(candidate.powerFraction).toBeLessThanOrEqual(0.4);
  });
  it('lets a cell burn at the very cap, and has no remark on what was to be expected', () => {
    const { powerFraction } = mainBurn(layout.cells[9]!).settings;
    const own = { ...wish, lightness: cells[9]!.lightness, powerCap: powerFraction };
    const { candidates, remark } = grid.find(layout, seen, known, own);
    expect(candidates.find(({ cellIndex }) => cellIndex === cells[9]!.cellIndex)!.meets).toBe(true);
    expect(remark).toBeNull();
    const below = grid.find(layout, seen, known, { ...own, powerCap: powerFraction - 0.001 });
    expect(below.candidates.find(({ cellIndex }) => cellIndex === cells[9]!.cellIndex)!.meets).toBe(false);
  });
  it('draws a frontier that no cell beats in both contrast and time', () => {
    const { frontier, candidates } = grid.find(layout, seen, known, wish);
    expect(frontier.length).toBeGreaterThan(2);
    for (const index of frontier) {
      const own = candidates.find((c) => c.cellIndex === index)!;
      expect(candidates.some((c) => c.lightness < own.lightness && c.timeS < own.timeS)).toBe(false);
    }
  });
  it('does not propose what the operator called spoiled, nor a doubtful cell that nobody graded', () => {
    const first = grid.find(layout, seen, known, wish).proposal!.cellIndex;
    const answers = (field: string, value: string): Seen['answers'] => [{ field, cellIndex: first, repeat: 0, value }];
    const proposed = (seenNow: Seen): number => grid.find(layout, seenNow, known, wish).proposal!.cellIndex;
    expect(proposed({ readings: cells, answers: answers('outcome', 'charred') })).not.toBe(first);
    const doubted = cells.map((cell) => (cell.cellIndex === first ? { ...cell, confidence: 0.5 } : cell));
    expect(proposed({ readings: doubted, answers: [] })).not.toBe(first);
    expect(proposed({ readings: doubted, answers: answers('grade', '5') })).toBe(first);
  });
  it('settles a burned cell with everything that was constant, and no other', () => {
    const finding = grid.find(layout, seen, known, wish);
    expect(grid.settle(finding, layout, seen, { cellIndex: 3 })).toEqual([
      {
        name: 'engrave',
        at: {},
        value: {
          settings: mainBurn(layout.cells[3]!).settings,
          lightness: cells[3]!.lightness,
          lightnessSigma: 0.5,
          confidence: 0.99,
        },
        sigma: 0.5,
        cellIndex: 3,
      },
    ]);
    expect(grid.settle(finding, layout, seen, { cellIndex: 9999 })).toEqual([]);
  });
  it('ignores readings of cells that are not there', () => {
    const odd: Seen = { readings: [...cells, { ...cells[0]!, cellIndex: 4711 }], answers: [] };
    expect(grid.find(layout, odd, known, wish).candidates).toHaveLength(cells.length);
  });
});

describe('finding by eye alone', () => {
  let layout: Layout;
  beforeEach(() => {
    layout = layCard(grid, plan, pairing, { cardNumber: 7 });
  });
  const wish: GridWish = { lightness: null, powerCap: 0.8, pace: 'fast-and-strong' };
  const answer = (field: string, cellIndex: number, value: string): Answer => ({ field, cellIndex, repeat: 0, value });
  const graded = (grades: Readonly<Record<number, number>>, spoiled: readonly number[] = []): Seen => ({
    readings: [],
    answers: [
      ...Object.entries(grades).map(([index, grade]) => answer('grade', Number(index), String(grade))),
      ...spoiled.map((index) => answer('outcome', index, 'charred')),
    ],
  });
  const found = (seen: Seen, change: Partial<GridWish> = {}) =>
    grid.find(layout, seen, known, { ...wish, ...change }).proposal?.cellIndex ?? null;
  /** Two cells that differ in power and time: the first is quicker and stronger. */
  const quickAndSlow = (): [number, number] => {
    const of = (index: number) => mainBurn(layout.cells[index]!).settings;
    const burned = layout.order.filter((index) => of(index).powerFraction < 0.8);
    const time = (index: number): number => squareFillTimeS(of(index), pairing.machine, 100);
    for (const a of burned)
      for (const b of burned) if (time(a) < time(b) && of(a).powerFraction > of(b).powerFraction) return [a, b];
    throw new Error('no such cells');
  };

  it('takes the best grade, from four up', () => {
    const [quick, slow] = quickAndSlow();
    expect(found(graded({ [quick]: 3, [slow]: 2 }))).toBeNull();
    expect(found(graded({ [quick]: 4, [slow]: 3 }))).toBe(quick);
    expect(found(graded({ [quick]: 4, [slow]: 5 }))).toBe(slow);
    expect(found(graded({ [quick]: 5, [slow]: 4 }), { pace: 'slow-and-low' })).toBe(quick);
  });
  it('takes of equals the quicker, or the weaker, by the school of pace', () => {
    const [quick, slow] = quickAndSlow();
    const seen = graded({ [quick]: 4, [slow]: 4 });
    // Whichever of them comes first on the card.
    for (const cells of [layout.cells, layout.cells.toReversed()]) {
      const proposed = (pace: GridWish['pace']) =>
        grid.find({ ...layout, cells }, seen, known, { ...wish, pace }).proposal!.cellIndex;
      expect([proposed('fast-and-strong'), proposed('slow-and-low')]).toEqual([quick, slow]);
    }
  });
  it('keeps to the cap, and off what is spoiled or was not burned', () => {
    const [quick, slow] = quickAndSlow();
    const { powerFraction } = mainBurn(layout.cells[quick]!).settings;
    const seen = graded({ [quick]: 5, [slow]: 4 });
    expect(found(seen, { powerCap: powerFraction })).toBe(quick);
    expect(found(seen, { powerCap: powerFraction - 0.001 })).toBe(slow);
    expect(found(graded({ [quick]: 5, [slow]: 4 }, [quick]))).toBe(slow);
    const cells = layout.cells.map((cell) => (cell.index === quick ? { ...cell, leftOut: true } : cell));
    expect(grid.find({ ...layout, cells }, seen, known, wish).proposal!.cellIndex).toBe(slow);
  });
  it('says so, in what was burned and how it was graded', () => {
    const [quick] = quickAndSlow();
    const { powerFraction, speedMmPerS } = mainBurn(layout.cells[quick]!).settings;
    const finding = grid.find(layout, graded({ [quick]: 5 }), known, wish);
    const percent = Number((powerFraction * 100).toFixed(1));
    expect(finding).toMatchObject({ missing: [], candidates: [], stops: null, range: null });
    expect(finding.proposal!.reason.startsWith(`${percent} % at `)).toBe(true);
    expect(finding.proposal!.reason).toContain(
      ` at ${Number((speedMmPerS * 60).toPrecision(4))} mm/min: graded 5 by eye, no photo was read.`,
    );
    expect(finding.says).toBe(finding.proposal!.reason);
  });
  it('speaks where the photo shows no mark at all, and asks for more energy where it cannot', () => {
    const [quick] = quickAndSlow();
    const blank = readingsBy(layout, 78, () => 0.1);
    const { answers } = graded({ [quick]: 4 });
    expect(grid.find(layout, { readings: blank, answers }, known, wish)).toMatchObject({
      proposal: { cellIndex: quick },
      missing: [],
    });
    const nothing = grid.find(layout, { readings: blank, answers: [] }, known, wish);
    expect(nothing).toMatchObject({ proposal: null, says: '', candidates: [] });
    expect(nothing.missing).toEqual([
      'Nothing marked: no cell stands off the bare stock by more than its own noise. Burn a card with more energy.',
    ]);
  });
  it('asks for less energy where every cell is spoiled', () => {
    const readings = layout.cells.map(({ index }) => ({ cellIndex: index }) as CellReading);
    const { answers } = graded({}, layout.order);
    const spoiled = grid.find(layout, { readings, answers: [...answers] }, known, wish);
    const left = layout.cells.filter(({ leftOut }) => !leftOut).length;
    expect(layout.order).toHaveLength(left);
    expect(spoiled).toMatchObject({
      missing: ['Every cell was called spoiled. Burn a card with less energy.'],
      proposal: null,
      says: '',
    });
  });
});

describe('marks that are lighter than the stock', () => {
  it('are stronger the lighter they are', () => {
    const slate = demoPairing('marl', 'slate');
    const card = layCard(grid, grid.propose({ pairing: slate, facts: [] }).plan, slate, { cardNumber: 4 });
    const bare = slate.stock.bareLightness;
    const readings = readingsBy(card, bare, (place) => [10, 30, 20][place]!, 3);
    const finding = grid.find(
      card,
      { readings, answers: [] },
      { pairing: slate, facts: [] },
      { lightness: null, powerCap: 1, pace: 'fast-and-strong' },
    );
    expect(finding.range).toEqual({ bare, strongest: bare + 30 });
    // Three, six and nine tenths of 30: the nearest tones there are.
    expect(finding.stops).toEqual({ weak: bare + 10, medium: bare + 20, strong: bare + 30 });
    expect(finding.frontier.at(-1)).toBe(readings[1]!.cellIndex);
    expect(finding.remark).toBeNull();
  });
  it('are told where the record has the stock turn darker, and the other way round', () => {
    const remark = (machine: 'heron' | 'marl', stock: 'birch' | 'slate', delta: number) => {
      const on = demoPairing(machine, stock);
      const card = layCard(grid, grid.propose({ pairing: on, facts: [] }).plan, on, { cardNumber: 4 });
      const readings = readingsBy(card, on.stock.bareLightness, () => delta);
      return grid.find(card, { readings, answers: [] }, { pairing: on, facts: [] }, grid.wish(on)).remark;
    };
    expect(remark('heron', 'birch', 12)).toMatch(
      /^The marks are brighter than the bare stock, where .+ is expected to turn darker\. Is it what its record says\? The card goes by what the photo shows\.$/,
    );
    expect(remark('marl', 'slate', -12)).toMatch(/^The marks are darker .+ is expected to turn brighter/);
    expect(remark('heron', 'birch', -12)).toBeNull();
  });
});

describe('a card of stock that is judged by its depth', () => {
  it('asks for a depth gauge, and others do not', () => {
    const fields = (family: string): string[] => asksOn(grid.asks, { family }).map(({ field }) => field);
    expect(fields('rubber')).toEqual(['tone', 'grade', 'outcome', 'better', 'depth']);
    expect(fields('solid-surface')).toContain('depth');
    expect(fields('plywood')).toEqual(['tone', 'grade', 'outcome', 'better']);
  });
});

describe('a finding on stock that is judged by depth', () => {
  it('says that no photo shows it, and what to do', () => {
    const rubber = SHOP.find(({ name }) => name.includes('rubber'))!.pairing;
    const card = layCard(grid, grid.propose({ pairing: rubber, facts: [] }).plan, rubber, { cardNumber: 4 });
    const find = (deltaOf: (place: number) => number) => {
      const readings = readingsBy(card, rubber.stock.bareLightness, deltaOf);
      return grid.find(card, { readings, answers: [] }, { pairing: rubber, facts: [] }, grid.wish(rubber));
    };
    const finding = find((place) => -20 + place * 0.1);
    expect(finding.remark).toMatch(
      /is judged by its depth, which no photo shows: measure the cell before you keep it\.|expected to turn/,
    );
    const either = [finding, find(() => 20)];
    expect(either.filter(({ remark }) => /judged by its depth/.test(remark ?? ''))).toHaveLength(1);
  });
});
