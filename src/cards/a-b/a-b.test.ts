import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { type FactNow } from '../../core/book/facts';
import { conditionsKey } from '../../core/book/conditions';
import type { Answer, Seen } from '../../core/card/asks';
import { layCard, planProblems } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { boxOfShape } from '../../core/card/shape';
import { valueAt, withValueAt } from '../../core/card/plan-fields';
import { DEFAULT_LIKED_UNITS } from '../../core/quantities/format';
import type { CellReading } from '../../core/reading/observations';
import { findAB, outcomeOf } from './find';
import { aB } from './index';
import { aBSchemas } from './schema';
import { cleanedSetup, COMPARABLE, sidesOf, type ABPlan } from './plan';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('marl', 'mdf');
const laid = (change: Partial<ABPlan> = {}, cardNumber = 5, on = pairing): Layout =>
  layCard(aB, { ...plan, ...change }, on, { cardNumber });
let plan: ABPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = aB.propose({ pairing, facts: [] }));
  layout = laid();
});
const isA = (index: number, of = layout): boolean => String(of.cells[index]!.levels.either).startsWith('A');

/** Patches of A about 50, those of B lighter by so much, all a little uneven. */
const seenOf = (by: number, scatter = 0.6, of = layout, answers: readonly Answer[] = []): Seen => ({
  readings: of.cells.map(({ index }) => {
    const lightness = 50 + (isA(index, of) ? 0 : by) + scatter * [1, -1, 0.4, -0.4, 0.7, -0.7][index % 6]!;
    return { cellIndex: index, lightness, lightnessSigma: 0.3 } as CellReading;
  }),
  answers,
});
const found = (seen: Seen, facts: readonly ReturnType<typeof factNow>[] = [], of = layout) =>
  findAB(of, seen, { pairing, facts });
const eye = (value: string): Answer => ({ field: 'darker', cellIndex: null, repeat: 0, value });
const keptOf = (finding: ReturnType<typeof findAB>) => {
  const [draft] = aB.settle(finding);
  return factNow('compared', draft!.value, { at: draft!.at }) as Extract<FactNow, { name: 'compared' }>;
};

describe('a card of A against B', () => {
  it('differs by what is compared and by nothing else', () => {
    // Pulses are a fibre head's.
    const other = { ...plan.other, frequencyKHz: 30 };
    for (const what of COMPARABLE) {
      const { a, b } = sidesOf({ ...plan, other, what }, DEFAULT_LIKED_UNITS);
      const keys = Object.keys(a.settings) as (keyof typeof a.settings)[];
      expect(keys.filter((key) => a.settings[key] !== b.settings[key])).toEqual([what]);
      expect(a.words).not.toBe(b.words);
    }
    const ready = sidesOf({ ...plan, what: 'prepared' }, DEFAULT_LIKED_UNITS);
    expect(ready.a.settings).toEqual(ready.b.settings);
    expect([ready.a.words, ready.b.words]).toEqual(['masked', 'bare']);
  });

  it('burns as many of each, so that light which falls off along either way favours neither', () => {
    const sums = (of: Layout) =>
      [true, false].map((side) => {
        const boxes = of.cells.filter(({ index }) => isA(index, of) === side).map(({ box }) => box);
        const mean = (along: 'x' | 'y') => boxes.reduce((sum, box) => sum + box[along], 0) / boxes.length;
        return { count: boxes.length, x: mean('x'), y: mean('y') };
      }) as [Record<'count' | 'x' | 'y', number>, Record<'count' | 'x' | 'y', number>];
    const [a, b] = sums(layout);
    expect([a.count, b.count]).toEqual([6, 6]);
    expect(a.x).toBeCloseTo(b.x, 6);
    expect(a.y).toBeCloseTo(b.y, 6);
    // Tape comes in strips: there A is above B throughout.
    const [masked, bare] = sums(laid({ what: 'prepared' }));
    expect(bare.y - masked.y).toBeCloseTo(plan.patchMm + plan.gapMm, 6);
    for (const cell of layout.cells) {
      const { air } = mainBurn(cell).settings;
      expect(cell.levels.either).toBe(`${isA(cell.index) ? 'A' : 'B'}: air ${air}`);
    }
  });

  it('is lettered with what lies above, and by rows where stock was made ready', () => {
    const { labels } = aB.draw(plan, pairing);
    expect(labels.map(({ text, edge }) => [text, edge])).toEqual(
      [0, 1, 2, 3, 4, 5].map((column) => [column % 2 === 0 ? 'A' : 'B', 'above']),
    );
    const ready = aB.draw({ ...plan, what: 'prepared' }, pairing);
    expect(ready.labels.map(({ text, means, edge }) => [text, means, edge])).toEqual([
      ['A', 'masked', 'beside'],
      ['B', 'bare', 'beside'],
    ]);
    expect(ready.labels.map(({ box }) => box.y)).toEqual([0, plan.patchMm + plan.gapMm]);
  });

  it('calls both sides by what they have', () => {
    const words = (what: ABPlan['what']) => {
      const { a, b } = sidesOf({ ...plan, what, other: { ...plan.other, frequencyKHz: 30 } }, DEFAULT_LIKED_UNITS);
      return [a.words, b.words];
    };
    expect(plan.constants).toMatchObject({ direction: 'horizontal', bothWays: true, passes: 1, focusOffsetMm: 0 });
    expect(words('direction')).toEqual(['lines along X', 'lines along Y']);
    expect(words('bothWays')).toEqual(['both ways', 'one way']);
    expect(words('passes')).toEqual(['1 pass', '2 passes']);
    expect(words('focusOffsetMm')).toEqual(['focus 0 mm', 'focus +1 mm']);
    expect(words('crossHatch')).toEqual(['lines one way', 'cross-hatched']);
    expect(words('lineAngleDeg')).toEqual(['lines turned by 0°', 'lines turned by 45°']);
    expect(words('frequencyKHz')).toEqual(['its usual pulses', '30 kHz']);
  });

  it('is refused where both sides are the same, or B cannot be burned', () => {
    const faults = (change: Partial<ABPlan>, on = pairing) => planProblems(aB, { ...plan, ...change }, on);
    expect(faults({ other: { ...plan.other, air: plan.constants.air } })).toMatchObject([
      { field: 'other.air', message: 'B has the same as A: nothing would be compared.' },
    ]);
    const without = { ...pairing, machine: { ...pairing.machine, airAssist: 'none' as const } };
    const calm = { ...plan.constants, air: 'off' as const };
    expect(faults({ constants: calm, other: { ...plan.other, air: 'on' } }, without)).toMatchObject([
      { field: 'other.air' },
    ]);
    expect(faults({ what: 'passes', other: { ...plan.other, passes: 21 } })).toMatchObject([{ field: 'other.passes' }]);
    expect(faults({ what: 'prepared', prepared: { a: 'bare', b: ' ' } })).toMatchObject([
      { field: 'prepared.b', message: 'Say how this row was made ready.' },
    ]);
    expect(faults({ what: 'prepared', prepared: { a: 'bare', b: 'bare' } })).toMatchObject([
      { field: 'prepared.b', message: 'Both rows are called the same: nothing would be compared.' },
    ]);
    expect(faults({ pairs: 1 })).toMatchObject([{ field: 'pairs' }]);
  });

  it('offers what a machine can compare, with the field of what is chosen', () => {
    const fields = (change: Partial<ABPlan>) => aB.fields({ ...plan, ...change }, pairing);
    const tern = demoPairing('tern', 'twoLayer');
    const choices = (on: typeof pairing) =>
      aB
        .fields(aB.propose({ pairing: on, facts: [] }).plan, on)
        .find(({ path }) => path === 'what')!
        .options!.map(({ value }) => value);
    const even = { ...tern, machine: { ...tern.machine, galvo: { ...tern.machine.galvo!, frequencyKHz: null } } };
    const onMirrors = ['lineAngleDeg', 'crossHatch'];
    const made = ['prepared', 'cleaned'];
    const but = (left: readonly string[]) => [...COMPARABLE.filter((what) => !left.includes(what)), ...made];
    expect(choices(pairing)).toEqual(but([...onMirrors, 'frequencyKHz']));
    expect(choices(tern)).toEqual(but(['air']));
    expect(choices(even)).toEqual(but(['air', 'frequencyKHz']));
    for (const what of ['air', 'passes', 'direction'] as const) {
      const other = fields({ what }).filter(({ path }) => path.startsWith('other.'));
      expect(other.map(({ path }) => path)).toEqual([`other.${what}`]);
    }
    const ready = fields({ what: 'prepared' }).filter(({ path }) => /^(other|prepared)\./.test(path));
    expect(ready.map(({ path, label, as, group }) => [path, label, as, group])).toEqual([
      ['prepared.a', 'A, the upper row', 'text', 'cells'],
      ['prepared.b', 'B, the lower row', 'text', 'cells'],
    ]);
    expect(ready[0]!.hint).toMatch(/masked.* the simulated bench leaves both rows bare/);
    expect(valueAt(withValueAt(plan, 'prepared.a', 'coated'), 'prepared.a')).toBe('coated');
  });
});

describe('what is found of A against B', () => {
  const words = { a: 'air on', b: 'air off' };
  it('tells which is darker, by how much and how surely', () => {
    expect(found(seenOf(-5))).toMatchObject({ ...words, missing: [], told: { verdict: 'differ' } });
    expect(found(seenOf(-5)).says).toMatch(/^B \(air off\) comes out darker than A \(air on\) by 5 L\* ± [\d.]+\.$/);
    expect(found(seenOf(5)).says).toMatch(/^B \(air off\) comes out lighter than A/);
    expect(found(seenOf(-1, 0.2)).says).toMatch(/by 1 L\* ± [\d.]+, too little for an eye\.$/);
    expect(keptOf(found(seenOf(-5))).value).toMatchObject({ darker: 'b', more: 0 });
    expect(keptOf(found(seenOf(5))).value).toMatchObject({ darker: 'a', more: 0 });
  });

  it('names the largest difference that is excluded where none is seen', () => {
    const { told, says } = found(seenOf(0.2));
    expect(told!.verdict).toBe('same');
    expect(told!.largest).toBeLessThan(4);
    expect(says).toMatch(
      /^No difference seen between A \(air on\) and B \(air off\): more than [\d.]+ L\* is excluded\.$/,
    );
  });

  it('has another choice at hand for every constant, whatever setting was kept', () => {
    for (const direction of ['horizontal', 'vertical'] as const)
      for (const [lineAngleDeg, bothWays, crossHatch] of tuples([0, true, false], [45, false, true])) {
        const settings = { ...plan.constants, direction, lineAngleDeg, bothWays, crossHatch };
        const kept = factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null });
        const { plan: next } = aB.propose({ pairing, facts: [kept] });
        expect(next.constants).toMatchObject({ direction, lineAngleDeg, bothWays, crossHatch });
        for (const what of COMPARABLE.filter((one) => one !== 'frequencyKHz'))
          expect(next.other[what], what).not.toBe(next.constants[what]);
      }
  });

  it('asks for so many more where patches scatter too much, and the next card has them', () => {
    const first = found(seenOf(1, 6));
    expect(first.told!.verdict).toBe('more');
    expect(first.says).toMatch(new RegExp(`^Not enough cells: ${first.told!.more} more of each`));
    const { plan: next, reasons } = aB.propose({ pairing, facts: [keptOf(first)] });
    expect(next).toMatchObject({ pairs: first.told!.more, what: 'air', constants: plan.constants });
    expect(next.other.air).toBe(plan.other.air);
    expect(reasons['what']).toMatch(/second look/);
    // Answered, it starts anew.
    expect(aB.propose({ pairing, facts: [keptOf(found(seenOf(-5)))] }).plan.pairs).toBe(plan.pairs);
  });

  it('joins the first look with the second, and never has a third; its own look is not joined with itself', () => {
    const kept = keptOf(found(seenOf(1, 6)));
    const other = laid({}, 6);
    const second = found(seenOf(1, 6, other), [kept], other);
    expect(second.looks).toHaveLength(2);
    expect(second.told).toMatchObject({ verdict: 'same', more: 0 });
    expect(second.says).toMatch(/in 2 looks; up to [\d.]+ L\* is not excluded/);
    expect(found(seenOf(1, 6), [kept]).looks).toHaveLength(1);
    const both = keptOf(second);
    expect(found(seenOf(1, 6), [both]).looks).toHaveLength(2);
    const third = laid({}, 7);
    expect(found(seenOf(1, 6, third), [both], third).missing[0]).toMatch(/two looks/);
    // At another power it is another comparison, and the one does not take the other's place in the book.
    const weaker = laid({ constants: { ...plan.constants, powerFraction: 0.1 } }, 8);
    const [draft] = aB.settle(found(seenOf(1, 6, weaker), [], weaker));
    expect(conditionsKey(draft!.at)).not.toBe(conditionsKey(kept.at));
    // Of other settings, or what went stale meanwhile, nothing is joined.
    const stronger = laid({ constants: { ...plan.constants, powerFraction: plan.constants.powerFraction * 0.9 } }, 6);
    expect(found(seenOf(1, 6, stronger), [kept], stronger).looks).toHaveLength(1);
    expect(found(seenOf(1, 6, other), [{ ...kept, stale: ['new batch'] }], other).looks).toHaveLength(1);
  });

  it('leaves out patches that were spoiled or read unsurely, and says when too few are left', () => {
    const spoiled: Answer = { field: 'outcome', cellIndex: 0, repeat: 0, value: 'charred' };
    expect(found(seenOf(5, 0.6, layout, [spoiled])).cells).toHaveLength(11);
    const seen = seenOf(5);
    const unsure = seen.readings.map((reading) =>
      reading.cellIndex < 11 ? { ...reading, lightnessSigma: 3 } : reading,
    );
    expect(found({ ...seen, readings: unsure }).missing[0]).toMatch(/Too few cells/);
    expect(found({ readings: [], answers: [] }).missing[0]).toMatch(/No photo/);
  });

  it('takes the operator’s eye alone, beside a photo, and on the record', () => {
    const alone = found({ readings: [], answers: [eye('a')] });
    expect(alone).toMatchObject({ missing: [], told: null, says: 'By eye A is darker.' });
    expect(keptOf(alone).value).toMatchObject({ darker: 'a', difference: null, looks: [] });
    const against = found(seenOf(-5, 0.6, layout, [eye('neither')]));
    expect(against.says).toMatch(/darker than A .*by 5 L\*.*By eye neither is darker\.$/);
    // The photo's five do not stand beside a word that says otherwise, nor is a second look asked for.
    expect(keptOf(against).value).toMatchObject({ darker: null, difference: null, largest: null, more: 0 });
    expect(keptOf(found(seenOf(-5, 0.6, layout, [eye('a')]))).value).toMatchObject({ darker: 'a', difference: null });
    expect(keptOf(found(seenOf(-5, 0.6, layout, [eye('b')]))).value).toMatchObject({
      darker: 'b',
      largest: expect.any(Number),
    });
    expect(keptOf(found(seenOf(1, 6, layout, [eye('b')]))).value).toMatchObject({
      darker: 'b',
      difference: null,
      more: 0,
    });
    // A photo that has not enough cells agrees with nobody: its numbers are not kept beside the eye's.
    const undecided = found(seenOf(1, 6, layout, [eye('neither')]));
    expect(undecided.told!.verdict).toBe('more');
    expect(outcomeOf(undecided)).toEqual({ darker: null, numbers: null, more: 0 });
    expect(aB.settle(found({ readings: [], answers: [] }))).toEqual([]);
  });

  it('goes by looks at these two sides alone, whatever else is kept', () => {
    const kept = keptOf(found(seenOf(1, 6)));
    const others = [
      factNow('floor', { powerFraction: 0.05 }),
      { ...kept, value: { ...kept.value, b: 'something else' } },
      { ...kept, stale: ['new batch'] },
    ];
    expect(found(seenOf(1, 6), others as never, laid({}, 21)).looks).toHaveLength(1);
    expect(found(seenOf(1, 6), [...others, kept] as never, laid({}, 21)).looks).toHaveLength(2);
  });

  it('has a second look at stock made ready in the two ways of the first', () => {
    const ready = laid({ what: 'prepared', prepared: { a: 'oiled', b: 'dry' } });
    const first = found(seenOf(1, 6, ready), [], ready);
    expect(first.told!.verdict).toBe('more');
    const { plan: next } = aB.propose({ pairing, facts: [keptOf(first)] });
    expect(next).toMatchObject({ what: 'prepared', prepared: { a: 'oiled', b: 'dry' } });
    expect(aB.propose({ pairing, facts: [keptOf(found(seenOf(1, 6)))] }).plan.prepared).toEqual({
      a: 'masked',
      b: 'bare',
    });
  });
});

describe('before and after cleaning', () => {
  let setup: ABPlan['setup'];
  let cleaned: Layout;
  beforeEach(() => {
    setup = cleanedSetup(plan.setup);
    cleaned = laid({ what: 'cleaned', setup });
  });
  /** Patches that lie far apart, each lighter by about so much after cleaning. */
  const twice = (by: number, answers: readonly Answer[] = []): Seen => {
    const read = (cellIndex: number, lightness: number) =>
      ({ cellIndex, lightness, lightnessSigma: 0.3 }) as CellReading;
    return {
      before: cleaned.cells.map(({ index }) => read(index, 30 + 4 * index)),
      readings: cleaned.cells.map(({ index }) => read(index, 30 + 4 * index + by + (index % 2 ? 0.3 : -0.3))),
      answers,
    };
  };

  it('has one row of patches that are all alike, and asks for both photos', () => {
    expect(cleaned.cells).toHaveLength(plan.pairs);
    const settings = cleaned.cells.map((cell) => mainBurn(cell).settings);
    for (const one of settings) expect(one).toEqual(plan.constants);
    for (const { box, burns, leftOut } of cleaned.cells) {
      const { x, width, height } = boxOfShape(burns[0]!.shape);
      const told = [x, width, height].map((mm) => Math.round(1e4 * mm));
      expect(told).toEqual([box.x, plan.patchMm, plan.patchMm].map((mm) => Math.round(1e4 * mm)));
      expect(leftOut).toBe(false);
    }
    expect(cleaned.inner.width).toBeCloseTo(plan.pairs * (plan.patchMm + plan.gapMm) - plan.gapMm, 9);
    expect(cleaned.order).toHaveLength(plan.pairs);
    expect(setup).toMatchObject({ finish: 'wiped', lookedAt: 'both' });
    expect(cleanedSetup({ ...plan.setup, finish: 'brushed' }).finish).toBe('brushed');
    const faults = (change: object) =>
      planProblems(aB, { ...plan, what: 'cleaned', setup: { ...setup, ...change } }, pairing).map(({ field }) => field);
    expect(faults({})).toEqual([]);
    expect(faults({ finish: 'none' })).toEqual(['setup.finish']);
    expect(aBSchemas.plan.validate({ ...plan, what: 'cleaned', setup }).error).toBeUndefined();
    expect(aBSchemas.plan.validate({ ...plan, what: 'washed', setup }).error).toBeDefined();
    expect(faults({ lookedAt: 'after' })).toEqual(['setup.lookedAt']);
    const asked = aB.fields({ ...plan, what: 'cleaned', setup }, pairing).map(({ path }) => path);
    expect(asked.filter((path) => /^(other|prepared)/.test(path))).toEqual([]);
  });
  it('is set up so by the choice itself, and other choices leave it as it is', () => {
    expect(aB.follow({ ...plan, what: 'cleaned' }, 'what').setup).toEqual(setup);
    expect(aB.follow({ ...plan, what: 'passes' }, 'what').setup).toEqual(plan.setup);
    const own = { ...plan.setup, finish: 'none' as const };
    expect(aB.follow({ ...plan, what: 'cleaned', setup: own }, 'pairs').setup).toEqual(own);
  });
  it('compares each patch with itself: what patches differ by among each other does not matter', () => {
    const finding = found(twice(3), [], cleaned);
    expect(finding.told).toMatchObject({ verdict: 'differ', difference: 3 });
    expect(finding.told!.half).toBeLessThan(1.2);
    expect(finding.says).toMatch('B (cleaned) comes out lighter than A (as it was burned) by 3 L*');
    const kept = keptOf(finding);
    expect(kept.value).toMatchObject({ a: 'as it was burned', b: 'cleaned', darker: 'a' });
    expect(kept.value.looks[0]).toMatchObject({ paired: true, aCount: plan.pairs });
  });
  it('does not call a difference what two photos may be off by as a whole', () => {
    expect(found(twice(0.7), [], cleaned).told!.verdict).toBe('same');
    expect(found(twice(0), [], cleaned).says).toMatch('No difference seen');
  });
  it('goes by patches that both photos show surely and that are not spoiled', () => {
    const seen = twice(3);
    const without = { ...seen, before: seen.before!.filter(({ cellIndex }) => cellIndex !== 2) };
    expect(found(without, [], cleaned).looks[0]!.aCount).toBe(plan.pairs - 1);
    const unsure = {
      ...seen,
      readings: seen.readings.map((one) => (one.cellIndex === 1 ? { ...one, lightnessSigma: 2.1 } : one)),
    };
    expect(found(unsure, [], cleaned).cells.map(({ cellIndex }) => cellIndex)).not.toContain(1);
    const charred: Answer = { field: 'outcome', cellIndex: 0, repeat: 0, value: 'charred' };
    expect(found(twice(3, [charred]), [], cleaned).looks[0]!.aCount).toBe(plan.pairs - 1);
  });
  it('wants both photos, in words', () => {
    const { before: _before, ...after } = twice(3);
    expect(found(after, [], cleaned).missing[0]).toMatch('Two photos tell');
    expect(found({ ...after, readings: [] }, [], cleaned).missing[0]).toMatch('No photo of this card');
    const few = twice(3);
    expect(found({ ...few, before: few.before!.slice(0, 1) }, [], cleaned).missing[0]).toMatch('Too few cells');
  });
  it('is not mixed up with rows that were made ready in two ways and are called the same', () => {
    const rows = laid({ what: 'prepared', prepared: { a: 'as it was burned', b: 'cleaned' } }, 6);
    const first = keptOf(found(seenOf(2, 6, rows), [], rows));
    expect(first.value.more).toBeGreaterThan(0);
    expect(aB.propose({ pairing, facts: [first] }).plan.what).toBe('prepared');
    expect(found(twice(3), [first], cleaned).looks).toHaveLength(1);
  });
  it('asks for its second look as it was', () => {
    const spread = twice(2);
    const wild = {
      ...spread,
      readings: spread.readings.map((one, index) => ({
        ...one,
        lightness: one.lightness + [9, -9, 7, -7, 8, -8][index % 6]!,
      })),
    };
    const first = found(wild, [], cleaned);
    expect(first.told!.verdict).toBe('more');
    const next = aB.propose({ pairing, facts: [keptOf(first)] }).plan;
    expect(next).toMatchObject({ what: 'cleaned', pairs: first.told!.more, setup: { lookedAt: 'both' } });
    expect(planProblems(aB, next, pairing)).toEqual([]);
  });
});
