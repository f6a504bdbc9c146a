import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Seen } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { cardPath } from '../../core/card/path';
import { proposeFill } from '../../core/card/propose-fill';
import { boxOfShape } from '../../core/card/shape';
import type { CellReading } from '../../core/reading/observations';
import { grid } from '../grid';
import type { RunUpPlan } from './plan';
import { judgedWords } from './find';
import { runUp } from '.';

const pairing = demoPairing('heron', 'leather');
const known = { pairing, facts: [] };
let plan: RunUpPlan;
let reasons: Readonly<Record<string, string>>;
let layout: Layout;
let levels: number[];
const propose = (): void => {
  ({ plan, reasons } = runUp.propose(known));
  layout = layCard(runUp, plan, pairing, { cardNumber: 5 });
  levels = [...new Set(layout.cells.map(({ levels: { runUp: mm } }) => Number(mm)))].sort((a, b) => a - b);
};
// Once for the tables below, and anew for each test.
propose();
beforeEach(propose);
const find = (seen: Seen) => runUp.find(layout, seen, known);

describe('a card of run-up bars', () => {
  it('has bars that differ by nothing but their run-up, which the head is told', () => {
    expect(layout.cells).toHaveLength(plan.runUp.count * plan.repeats);
    expect(levels[0]).toBe(0);
    const { runUpMm: _first, ...rest } = mainBurn(layout.cells[0]!).settings;
    for (const cell of layout.cells) {
      const { runUpMm, ...others } = mainBurn(cell).settings;
      expect(others).toEqual(rest);
      expect(runUpMm).toBe(cell.levels.runUp);
      const drawn = boxOfShape(mainBurn(cell).shape);
      for (const side of ['x', 'y', 'width', 'height'] as const) expect(drawn[side]).toBeCloseTo(cell.box[side], 6);
    }
    const letters = (run: 'horizontal' | 'vertical') =>
      runUp.draw({ ...plan, constants: { ...plan.constants, direction: run } }, pairing).labels;
    expect(letters('horizontal').map(({ text, edge }) => [Number(text), edge])).toEqual(
      layout.cells.map(({ levels: { runUp: mm } }) => [expect.closeTo(Number(mm), 1), 'beside']),
    );
    expect([...new Set(letters('vertical').map(({ edge }) => edge))]).toEqual(['above']);
    let told: number | null = null;
    const sweeps = [...cardPath(layout, pairing.machine)].flatMap((step) => {
      if (step.step === 'part')
        told = step.cells.length === 1 ? Number(layout.cells[step.cells[0]!]!.levels.runUp) : null;
      return step.step === 'sweep' && told !== null ? [[step.runUpMm, told]] : [];
    });
    expect(sweeps.length).toBeGreaterThan(100);
    for (const [runs, level] of sweeps) expect(runs).toBe(level);
  });
  it('goes from none to more than the record asks for, on bars longer than both ramps, and burns the shortest last', () => {
    const { speedMmPerS } = plan.constants;
    // v² / 2a by hand.
    const needed = speedMmPerS ** 2 / (2 * pairing.machine.accelerationXMmPerS2);
    expect(plan.runUp.to / needed).toBeGreaterThan(1.3);
    expect(plan.runUp.to / needed).toBeLessThan(1.6);
    expect(plan.lengthMm).toBeGreaterThan(2 * needed + 5);
    expect(layout.cells[layout.order.at(-1)!]!.levels.runUp).toBe(0);
    expect(reasons['runUp.to']).toContain('recorded acceleration');
  });
  it('lies far apart from its repeat, along Y beside each other', () => {
    const same = layout.cells.filter(({ levels: { runUp: mm } }) => mm === levels[3]);
    expect(Math.abs(same[0]!.box.y - same[1]!.box.y)).toBeGreaterThan(layout.inner.height / 3);
    const down = layCard(
      runUp,
      { ...plan, constants: { ...plan.constants, direction: 'vertical', speedMmPerS: 120 } },
      pairing,
      { cardNumber: 5 },
    );
    for (const { box } of down.cells) expect([box.width, box.height]).toEqual([plan.barMm, plan.lengthMm]);
    expect(new Set(down.cells.map(({ box }) => box.y)).size).toBe(1);
  });
  it('is refused where nothing runs up, and with bars too short or too low', () => {
    const adds = { ...pairing, machine: { ...pairing.machine, addsRunUp: true } };
    expect(() => runUp.propose({ pairing: adds, facts: [] })).toThrow(/adds run-up by itself/);
    expect(() => runUp.propose({ pairing: demoPairing('tern', 'twoLayer'), facts: [] })).toThrow(/mirrors/);
    expect(runUp.check(plan, adds).map(({ field }) => field)).toEqual(['runUp.to']);
    const fields = (change: object) => runUp.check({ ...plan, ...change }, pairing).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    expect(fields({ lengthMm: 5 })).toEqual(['lengthMm']);
    expect(fields({ barMm: 0.5 })).toEqual(['barMm']);
    for (const repeats of [0, 5, 1.5]) expect(fields({ repeats })).toEqual(['repeats']);
    expect(fields({ runUp: { ...plan.runUp, from: -1 } })).toEqual(['runUp.from']);
    expect(fields({ runUp: { ...plan.runUp, to: 301 } })).toEqual(['runUp.to']);
  });
});

/** A reading of every bar: how much darker both ends are, by run-up. */
const shown = (darker: (mm: number) => number | null, sigma = 0.3, deltaLightness = -30): Seen => ({
  readings: layout.order.map((cellIndex) => {
    const by = darker(Number(layout.cells[cellIndex]!.levels.runUp));
    const way = Math.sign(deltaLightness);
    return {
      cellIndex,
      deltaLightness,
      ends: by === null ? null : { first: way * by, last: way * by, sigma },
    } as CellReading;
  }),
  answers: [],
});
const words = (word: (mm: number) => string | null): Seen => ({
  readings: [],
  answers: layout.order.flatMap((cellIndex) => {
    const value = word(Number(layout.cells[cellIndex]!.levels.runUp));
    return value === null ? [] : [{ field: 'ends', cellIndex, repeat: 0, value }];
  }),
});

describe('what run-up bars say', () => {
  const least = levels[4]!;
  it('is the shortest from which on the ends are as the middle, sure to the step below', () => {
    const finding = find(shown((mm) => (mm < least ? 6 : 0.4)));
    expect(finding).toMatchObject({ missing: [], leastMm: least, shortMm: levels[3], direction: 'horizontal' });
    expect(finding.sigmaMm).toBeCloseTo((least - levels[3]!) / Math.sqrt(12), 9);
    expect(finding.says).toMatch(/on each side is enough at .* recorded acceleration/);
    expect(finding.bars.map(({ sound }) => sound)).toEqual(levels.map((mm) => mm >= least));
  });
  it('goes by ends that are burned less as well, and by marks that are lighter than stock', () => {
    expect(find(shown((mm) => (mm < least ? -6 : 0))).leastMm).toBe(least);
    const bright = find(shown((mm) => (mm < least ? 6 : 0), 0.3, 25));
    expect(bright.leastMm).toBe(least);
    expect(bright.bars[0]!.strongerBy).toBeCloseTo(6, 9);
  });
  it('takes ends that the photo is not sure of for uneven, and goes by the last uneven one', () => {
    expect(find(shown((mm) => (mm < least ? 6 : 1.5), 0.3)).leastMm).toBe(least);
    // Two bars: 1.5 L* give or take 0.6 is not sure to be within 2.
    expect(find(shown((mm) => (mm === least ? 1.5 : 0), 1.3)).leastMm).toBe(levels[5]);
    expect(find(shown((mm) => (mm === levels[5] ? 6 : 0))).leastMm).toBe(levels[6]);
  });
  it('goes by the worse end: one burned more and one burned less are not even together', () => {
    const uneven = shown(() => 0);
    const readings = uneven.readings.map((reading) => {
      const short = Number(layout.cells[reading.cellIndex]!.levels.runUp) < least;
      return short ? { ...reading, ends: { first: 5, last: -5, sigma: 0.3 } } : reading;
    });
    expect(find({ ...uneven, readings }).leastMm).toBe(least);
  });
  it('is none where every bar is even, and what is missing where the longest is not', () => {
    const none = find(shown(() => 0.2));
    expect(none).toMatchObject({ leastMm: 0, shortMm: null, sigmaMm: null });
    expect(none.says).toMatch(/^No run-up is needed/);
    const all = find(shown(() => 6));
    expect(all.leastMm).toBeNull();
    expect(all.missing[0]).toMatch(/leaves the ends uneven/);
    expect(runUp.settle(all)).toEqual([]);
    expect(find(shown(() => null)).missing[0]).toMatch(/tells nothing of the ends/);
    expect(find({ readings: [], answers: [] }).missing[0]).toMatch(/let a photo be read/);
  });
  it('goes by the eye where it said something, and asks it of the longest where nothing is told', () => {
    const eye = find(words((mm) => (mm < least ? 'strong' : 'even')));
    expect(eye).toMatchObject({ leastMm: least, missing: [] });
    expect(eye.bars.every(({ by, strongerBy }) => by === 'eye' && strongerBy === null)).toBe(true);
    expect(find(words((mm) => (mm < least ? 'weak' : 'even'))).leastMm).toBe(least);
    expect(find(words((mm) => (mm === levels.at(-1) ? null : 'even'))).missing[0]).toMatch(/longest run-up/);
    const both = { ...shown(() => 6), answers: words(() => 'even').answers };
    expect(find(both).leastMm).toBe(0);
    // One bar of two called uneven: the run-up is not sound.
    const [first] = layout.order.filter((index) => layout.cells[index]!.levels.runUp === levels.at(-1));
    const split = words(() => 'even').answers.map((one) =>
      one.cellIndex === first ? { ...one, value: 'strong' } : one,
    );
    expect(find({ readings: [], answers: split }).missing[0]).toMatch(/leaves the ends uneven/);
  });
  it('is told for each bar in words, by whom too', () => {
    const bar = { strongerBy: 3.14, sigma: 0.4, sound: false, by: 'photo' };
    expect(judgedWords(bar as never)).toBe('worse end 3.1 L* ± 0.8 stronger, uneven');
    expect(judgedWords({ ...bar, strongerBy: null, sound: true, by: 'eye' } as never)).toBe('even by eye');
  });
  it('is kept for the machine and the axis, and planned with at other speeds by their square', () => {
    const finding = find(shown((mm) => (mm < least ? 6 : 0.4)));
    const [draft] = runUp.settle(finding);
    const { speedMmPerS } = plan.constants;
    expect(draft).toMatchObject({
      name: 'runUp',
      at: { direction: 'horizontal' },
      value: { runUpMm: least, speedMmPerS },
      cellIndex: null,
    });
    const fact = factNow('runUp', draft!.value, { at: draft!.at });
    const { settings, reasons: why } = proposeFill({ pairing, facts: [fact] });
    const wanted = least * (settings.speedMmPerS / speedMmPerS) ** 2;
    expect(settings.runUpMm! - wanted).toBeGreaterThanOrEqual(-1e-9);
    expect(settings.runUpMm! - wanted).toBeLessThan(0.1);
    expect(why['constants.runUpMm']).toContain('measured');
    // A grid has one run-up: its fastest row's.
    const card = grid.propose({ pairing, facts: [fact] });
    expect(card.plan.constants.runUpMm! - least * (Math.round(card.plan.down.to) / speedMmPerS) ** 2).toBeLessThan(0.1);
    expect(card.reasons['constants.runUpMm']).toContain('measured');
    // Measured too slowly for its fastest row, though not for its middle: as its record needs.
    const { from, to } = card.plan.down;
    const slower = factNow('runUp', { runUpMm: 1, speedMmPerS: Math.sqrt(from * to) / 1.2 }, { at: draft!.at });
    expect(to).toBeGreaterThan((1.5 * Math.sqrt(from * to)) / 1.2);
    expect(grid.propose({ pairing, facts: [slower] }).plan.constants.runUpMm).toBeNull();
    expect(
      proposeFill({ pairing: { ...pairing, machine: { ...pairing.machine, addsRunUp: true } }, facts: [fact] }).settings
        .runUpMm,
    ).toBeNull();
    const tern = demoPairing('tern', 'twoLayer');
    const slow = factNow('runUp', { runUpMm: 2, speedMmPerS: 3000 }, { at: { direction: 'horizontal' } });
    expect(proposeFill({ pairing: tern, facts: [slow] }).settings.runUpMm).toBeNull();
    const down = factNow('runUp', draft!.value, { at: { direction: 'vertical' } });
    expect(proposeFill({ pairing, facts: [down] }).settings.runUpMm).toBeNull();
  });
});
