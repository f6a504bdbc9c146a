import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { PLAIN_FILL } from '../../../tests/support/settings';
import type { FactValues } from './fact-values';
import { factOf, FACTS, FACT_NAMES, factWords, type FactNow } from './facts';
import { conditionsKey, conditionWords, shadeConditions } from './conditions';
import { ladderOf, nextStepOf, type CardStage, type LadderFacts } from './ladder';
import { knownRunUp, knownScanOffset, knownShorter, paceOf } from './motion-facts';
import { groundOf, RUNG_IDS, RUNGS, type RungId } from './rungs';
import { stalenessReasons } from './staleness';
import { listed } from '../../../tests/support/listed';
import { UNTIMED } from '../motion/pace';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';

const pairing = demoPairing('heron', 'birch');
const fact = (change: Partial<FactNow>): FactNow =>
  factNow('floor', { powerFraction: 0.065 }, { sigma: 0.002, ...change });

const BED = {
  widthMm: 280,
  depthMm: 180,
  corners: { 'rear left': 0.1, 'rear right': -0.1, 'front right': -0.2, 'front left': 0.2 },
  middleMm: 0,
  focusDepthMm: 0.8,
  verdict: 'tilted',
  strongerToRight: null,
  strongerToFront: null,
} as const;
const SHOWN = {
  settings: { powerFraction: 0.4 } as never,
  letteringMm: { fromMm: 1.4, notMm: 0.8 },
  hairlineMm: { fromMm: null, notMm: 0.12 },
  pointMm: null,
};
const CUT = {
  settings: { powerFraction: 0.8, speedMmPerS: 14, passes: 2 } as never,
  certainty: 0.981,
  outlineMm: 19,
  thicknessMm: { from: 2.6, to: 3.2 },
  comesThrough: 0.85,
  laidDown: 1.2,
  edge: null,
} as const;
const MATED: FactValues['mating'] = {
  fromMm: { press: -0.42, snug: -0.3, slip: -0.2, loose: -0.1 },
  sigmaMm: { press: 0.02, snug: 0.02, slip: 0.02, loose: 0.02 },
  scatterMm: 0.01,
  holeKerfMm: 0.15,
  partKerfMm: 0.15,
};
const MADE: FactValues['part'] = {
  settings: PLAIN_FILL,
  kerf: { xMm: 0.2, yMm: 0.2 },
  offMm: 0.012,
  expectedMm: 0.04,
  goes: 'snug',
  slotMm: -0.2,
};
const FITTED = {
  fromMm: { press: -0.24, snug: -0.16, slip: -0.08, loose: 0.02 },
  sigmaMm: { press: 0.01, snug: 0.01, slip: 0.01, loose: 0.01 },
  scatterMm: 0.02,
  thicknessMm: 3.05,
} as const;
const LAG = { lagS: 0.0001, standingMm: -0.005, fromMmPerS: 50, toMmPerS: 200 };

const from = (change: Partial<LadderFacts>): LadderFacts => ({
  pairing,
  likedUnits: DEFAULT_LIKED_UNITS,
  facts: [],
  answered: ['grid', 'threshold', 'interval', 'focus', 'kerf'],
  cards: {},
  links: {
    stock: '/stock/1',
    fact: (id) => `/book/${id}`,
    card: (id) => `/cards/${id}`,
    plan: (rung, isStale = false) => `/bench/1/plan/${isStale ? 'check-' : ''}${rung}`,
    prove: (id) => `/prove/${id}`,
  },
  ...change,
});
const nextOf = (facts: LadderFacts, never: readonly RungId[] = []) =>
  nextStepOf(facts, ladderOf(facts), (rung, isStale) =>
    never.includes(rung) ? null : `${isStale ? 'check' : 'card'} of ${rung}`,
  );

describe('the rungs', () => {
  it('stand on rungs that exist, below them, with a common step under two feet', () => {
    RUNG_IDS.forEach((id, place) => {
      for (const below of RUNGS[id].standsOn) expect(RUNG_IDS.indexOf(below as never)).toBeLessThan(place);
      if (RUNGS[id].foot !== 'common') expect(groundOf(id)).toEqual(expect.arrayContaining(['stock', 'safety']));
    });
    expect(groundOf('focus')).toEqual(['stock', 'safety', 'grid', 'interval']);
    expect(groundOf('kerf')).not.toContain('grid');
  });
});

describe('the ladder', () => {
  it('shows what was measured with its value, and what is stale with the reason', () => {
    const rungs = ladderOf(
      from({
        facts: [fact({}), fact({ factId: 2, name: 'interval', value: { intervalMm: 0.12 }, stale: ['new batch X'] })],
      }),
    );
    const by = new Map(rungs.map((rung) => [rung.rung, rung]));
    expect(by.get('threshold')).toMatchObject({ state: 'measured', value: 'floor 6.5 %', href: '/book/1' });
    expect(by.get('interval')).toMatchObject({ state: 'stale', reason: 'new batch X' });
    expect(by.get('grid')).toMatchObject({ state: 'empty', href: '/bench/1/plan/grid' });
  });
  it('has no cut side for stock that this source does not cut', () => {
    const slate = ladderOf(from({ pairing: demoPairing('marl', 'slate') }));
    expect([...new Set(slate.map((rung) => rung.foot))]).toEqual(['common', 'engrave']);
    expect(ladderOf(from({})).map((rung) => rung.foot)).toContain('cut');
  });
  it('shows no rung that no kind answers', () => {
    expect(ladderOf(from({ answered: ['grid'] })).map((rung) => rung.rung)).toEqual(['stock', 'safety', 'grid']);
  });
  it('names the next thing: what waits for a hand first, then the lowest open rung, stale ones too', () => {
    expect(nextOf(from({}))).toMatchObject({ action: 'plan', rung: 'grid' });
    const waits = from({ cards: { threshold: { cardId: 8, code: 'G8', stage: 'burned' } } });
    expect(nextOf(waits)).toMatchObject({ action: 'go-on', rung: 'threshold', href: '/cards/8' });
    const all = RUNG_IDS.filter((id) => RUNGS[id].foot !== 'common').length;
    const facts: FactNow[] = [
      fact({ factId: 1, name: 'engrave', value: { settings: { powerFraction: 0.4, speedMmPerS: 90 } } as never }),
      fact({ factId: 2 }),
      fact({ factId: 3, name: 'interval', value: { intervalMm: 0.1 } }),
      fact({ factId: 4, name: 'focus', value: { focusOffsetMm: 1, flat: false }, stale: ['lens or spot changed'] }),
      fact({ factId: 5, name: 'kerf', value: { xMm: 0.13, yMm: 0.14 } }),
      fact({ factId: 15, name: 'fit', value: FITTED }),
      fact({
        factId: 6,
        name: 'line',
        value: { widthMm: 0.14, powerFraction: 0.4, direction: 'horizontal', spotMm: null, thresholdFraction: null },
      }),
      fact({ factId: 9, name: 'ceiling', value: { powerFraction: 0.4 } }),
      fact({
        factId: 10,
        name: 'tone',
        value: { floorFraction: 0.05, topFraction: 0.4, table: [], strongest: 44, proven: true },
      }),
      fact({
        factId: 11,
        name: 'photo',
        value: { settings: { powerFraction: 0.4 } as never, floorFraction: 0.05, table: null, offL: 2, strongest: 44 },
      }),
      fact({ factId: 7, name: 'lag', at: { direction: 'horizontal' }, value: LAG }),
      fact({ factId: 8, name: 'runUp', at: { direction: 'horizontal' }, value: { runUpMm: 6, speedMmPerS: 200 } }),
      fact({ factId: 12, name: 'bed', value: BED }),
      fact({ factId: 13, name: 'showpiece', value: SHOWN }),
      fact({ factId: 14, name: 'cut', value: CUT }),
      fact({ factId: 20, name: 'cutFocus', value: { way: 'middle', focusOffsetMm: -1.5, taperMm: 0.08 } }),
      fact({ factId: 19, name: 'score', value: { settings: PLAIN_FILL, dashMm: 3, skipMm: 0.6, share: null } }),
      fact({ factId: 18, name: 'hinge', value: { strength: 81.3, logSpread: 0.1, samples: 3 } }),
      fact({ factId: 16, name: 'part', value: MADE }),
      fact({ factId: 17, name: 'passes', value: { settings: PLAIN_FILL, dropped: 3 } }),
    ];
    expect(facts).toHaveLength(all);
    expect(nextOf(from({ facts }))).toMatchObject({ action: 'plan', rung: 'focus' });
    // What no card can answer here any more is said, not asked for.
    expect(nextOf(from({ facts }), ['focus'])).toMatchObject({
      action: 'rest',
      rung: null,
      text: 'Focus: stale, and no card can answer it here',
      href: null,
    });
    const fresh = facts.map((one) => ({ ...one, stale: [] }));
    expect(nextOf(from({ facts: fresh }))).toEqual({
      action: 'rest',
      rung: null,
      text: 'Every rung is answered',
      href: null,
      cost: '',
    });
  });
  it('stops before any card for stock that is never burned', () => {
    const banned = { ...pairing, stock: { ...pairing.stock, family: 'pvc' } };
    const facts = from({ pairing: banned });
    expect(nextOf(facts)).toEqual({ action: 'stop', rung: 'safety', text: 'Not to be burned', href: null, cost: '' });
    for (const rung of ladderOf(facts)) if (rung.foot !== 'common') expect(rung.href).toBeNull();
  });
});

describe('each rung', () => {
  const rungOf = (id: string, change: Partial<LadderFacts>) => ladderOf(from(change)).find(({ rung }) => rung === id)!;
  it('tells the stock’s thickness, how evenly it was measured, or that it is the label’s', () => {
    const sheet = (thicknessReadingsMm: readonly number[]) => ({
      pairing: { ...pairing, stock: { ...pairing.stock, nominalThicknessMm: 3, thicknessReadingsMm } },
    });
    expect(rungOf('stock', sheet([3.1, 3.2]))).toMatchObject({ state: 'measured', href: '/stock/1', since: null });
    expect(rungOf('stock', sheet([3.1, 3.2])).value).toMatch(/^3.15 mm ± 0.0\d+$/);
    expect(rungOf('stock', sheet([3.1])).value).toBe('3.1 mm');
    expect(rungOf('stock', sheet([]))).toMatchObject({ state: 'predicted', value: '3 mm by label' });
    const kept = factNow('thickness', { meanMm: 3.1, readings: 2 }, { createdAt: '2026-02-02T00:00:00Z' });
    expect(rungOf('stock', { facts: [kept] }).since).toBe('2026-02-02T00:00:00Z');
  });
  it('tells of safety what is to be minded, and why a stock stops', () => {
    expect(rungOf('safety', {})).toMatchObject({
      state: 'measured',
      value: 'no ban known',
      reason: '',
      href: '/stock/1#safety',
    });
    const sticky = {
      pairing: { ...pairing, stock: { ...pairing.stock, adhesiveBacking: true, thicknessReadingsMm: [] } },
    };
    expect(rungOf('safety', sticky).value).toBe('no ban known, 2 to mind');
    const banned = { pairing: { ...pairing, stock: { ...pairing.stock, family: 'pvc' } } };
    expect(rungOf('safety', banned)).toMatchObject({ state: 'stopped', value: 'not to be burned' });
    expect(rungOf('safety', banned).reason).toMatch(/never burn this/);
    // All rungs are drawn there, so that one sees what is stopped, also those to cut.
    expect(ladderOf(from(banned)).map(({ rung }) => rung)).toContain('kerf');
  });
  it('says what its newest card waits for, and leads to it', () => {
    const at = (stage: CardStage) => rungOf('grid', { cards: { grid: { cardId: 5, code: 'CD005-M', stage } } });
    expect(at('planned')).toMatchObject({ state: 'empty', reason: '', href: '/cards/5' });
    expect(at('burning').reason).toBe('card CD005-M is burning');
    expect(at('burned').reason).toBe('card CD005-M waits for a look');
    expect(at('photographed').reason).toBe('card CD005-M waits for its photo');
    expect(at('seen').reason).toBe('card CD005-M waits for a choice');
  });
  it('tells settings that nobody burned here from those that were, and counts shades', () => {
    const floor = (change: Partial<FactNow>) => rungOf('threshold', { facts: [fact({ factId: 7, ...change })] });
    expect(floor({})).toMatchObject({ state: 'measured', reason: '', since: '2026-05-01T10:00:00Z', href: '/book/7' });
    expect(floor({ origin: 'brought' })).toMatchObject({
      state: 'predicted',
      reason: 'brought along, not proven here',
    });
    expect(floor({ origin: 'copied' }).reason).toBe('foretold, not proven here');
    expect(floor({ origin: 'adopted' })).toMatchObject({ state: 'measured', reason: '' });
    expect(floor({ origin: 'copied', stale: ['another source'] })).toMatchObject({
      state: 'stale',
      reason: 'another source, foretold, not proven here',
    });
    const two = rungOf('threshold', { facts: [fact({ factId: 1 }), fact({ factId: 2, at: { shade: 'weak' } })] });
    expect(two.value).toBe('floor 6.5 %, 2 shades');
    expect(rungOf('focus', {}).standsOn).toEqual(['Interval']);
  });
});

describe('the next step', () => {
  it('says what is to be done with a card, and what it costs', () => {
    const planned = from({ cards: { grid: { cardId: 3, code: 'CD003-C', stage: 'planned' } } });
    expect(nextOf(planned)).toEqual({
      action: 'go-on',
      rung: 'grid',
      text: 'Burn card CD003-C',
      href: '/cards/3',
      cost: '',
    });
    const seen = from({ cards: { grid: { cardId: 3, code: 'CD003-C', stage: 'seen' } } });
    expect(nextOf(seen)).toMatchObject({ text: 'Grid: card CD003-C waits for a choice', cost: 'nothing to burn' });
    expect(nextOf(from({}))).toMatchObject({ text: 'card of grid', href: '/bench/1/plan/grid' });
    // The next one up, where the lowest cannot be answered.
    expect(nextOf(from({}), ['grid'])).toMatchObject({ action: 'plan', text: 'card of threshold' });
  });
  it('asks for the small card where a rung is stale, and goes on with one that was made for it', () => {
    const stale = fact({ stale: ['new batch'] });
    const engrave = fact({
      factId: 9,
      name: 'engrave',
      value: { settings: { powerFraction: 0.4, speedMmPerS: 90 } } as never,
    });
    expect(nextOf(from({ facts: [engrave, stale] }))).toMatchObject({
      rung: 'threshold',
      text: 'check of threshold',
      href: '/bench/1/plan/check-threshold',
    });
    const card = { cardId: 4, code: 'CD004-G', stage: 'burned' as const };
    const going = (renews: boolean) =>
      nextOf(from({ facts: [engrave, stale], cards: { threshold: { ...card, renews } } }));
    expect(going(true)).toMatchObject({ action: 'go-on', href: '/cards/4' });
    // Any other card may be older than what made it stale.
    expect(going(false)).toMatchObject({ action: 'plan', href: '/bench/1/plan/check-threshold' });
  });
  it('leaves answered rungs alone, and asks to prove a setting that was brought along before all that is open', () => {
    const settings = { powerFraction: 0.4, speedMmPerS: 90 };
    const engrave = fact({ factId: 9, name: 'engrave', value: { settings } as never, origin: 'brought' });
    expect(nextOf(from({ facts: [engrave] }))).toEqual({
      action: 'plan',
      rung: 'grid',
      text: 'Prove the setting that was brought along',
      href: '/prove/9',
      cost: '',
    });
    const proving = from({ facts: [engrave], cards: { grid: { cardId: 4, code: 'CD004-G', stage: 'burned' } } });
    expect(nextOf(proving)).toMatchObject({ action: 'go-on', rung: 'grid', href: '/cards/4' });
    // A card of a rung that is answered waits for nothing.
    const burned = fact({ factId: 9, name: 'engrave', value: { settings } as never });
    const cards = { grid: { cardId: 4, code: 'CD004-G', stage: 'seen' as const } };
    expect(nextOf(from({ facts: [burned], cards })).rung).not.toBe('grid');
  });
});

describe('facts', () => {
  it('are found newest first, those that are not stale before those that are', () => {
    const old = fact({ factId: 1, createdAt: '2026-01-01T00:00:00Z' });
    const stale = fact({ factId: 2, createdAt: '2026-06-01T00:00:00Z', stale: ['new batch'] });
    expect(factOf([stale, old], 'floor')!.factId).toBe(1);
    expect(factOf([stale], 'floor')!.factId).toBe(2);
    expect(factOf([stale, old], 'kerf')).toBeUndefined();
  });
  it('are told apart by what they were measured at, in any order of its words', () => {
    expect(conditionsKey({ speed: 100, power: 0.5 })).toBe(conditionsKey({ power: 0.5, speed: 100 }));
    expect(conditionsKey({ speed: 100 })).not.toBe(conditionsKey({ speed: 101 }));
    // As they stand in the book.
    expect(conditionsKey({ speed: 100, power: 0.5 })).toBe('{"power":0.5,"speed":100}');
  });
  it('are found by when they were kept, in whatever order they come', () => {
    const of = (...days: string[]) =>
      factOf(
        days.map((day) => fact({ createdAt: `2026-05-${day}T00:00:00Z` })),
        'floor',
      )!.createdAt.slice(8, 10);
    expect([of('01', '03', '02'), of('03', '01', '02'), of('01', '02', '03')]).toEqual(['03', '03', '03']);
  });
  it('say at what they were measured, by name and by what a machine is told', () => {
    expect(conditionWords({ speed: 120, shade: 'strong' }, DEFAULT_LIKED_UNITS)).toBe('strong, 120 mm/s');
    expect(conditionWords({ speed: 120 }, DEFAULT_LIKED_UNITS)).toBe('120 mm/s');
    expect(conditionWords({ direction: 'horizontal' }, DEFAULT_LIKED_UNITS)).toBe('lines along X');
    expect(conditionWords({ speed: 120, direction: 'vertical' }, DEFAULT_LIKED_UNITS)).toBe('120 mm/s, lines along Y');
    expect(conditionWords({}, DEFAULT_LIKED_UNITS)).toBe('');
    expect([shadeConditions(' strong '), shadeConditions('  ')]).toEqual([{ shade: 'strong' }, {}]);
  });
  it('tell how estimates are made: by the record until burns were timed', () => {
    expect(paceOf([])).toBe(UNTIMED);
    const timed = { ...UNTIMED, by: 'scale', scale: 1.2, logs: 3 } as const;
    expect(paceOf([factNow('pace', timed)])).toBe(timed);
  });
  it('tell the scan offset of lines along an axis at a speed, where it was measured and still holds', () => {
    const lag = (direction: string, change: object = {}, more: Partial<FactNow> = {}) =>
      factNow('lag', { ...LAG, ...change }, { at: { direction }, ...more });
    // -0.005 - 2 × 0.0001 s × 100 mm/s.
    expect(knownScanOffset([lag('horizontal')], 'horizontal', 100)).toBe(-0.025);
    expect(knownScanOffset([lag('horizontal')], 'vertical', 100)).toBeNull();
    expect(knownScanOffset([lag('horizontal'), lag('vertical', { lagS: 0.0002 })], 'vertical', 100)).toBe(-0.045);
    expect(knownScanOffset([], 'horizontal', 100)).toBeNull();
    expect(knownScanOffset([lag('horizontal', {}, { stale: ['another source'] })], 'horizontal', 100)).toBeNull();
    // Half as fast again as any pair, and half as slow again: no further.
    const at = (speed: number) => knownScanOffset([lag('horizontal')], 'horizontal', speed);
    expect([at(299), at(301), at(34), at(33)].map((offset) => offset === null)).toEqual([false, true, false, true]);
    // No minus before nothing.
    expect(Object.is(knownScanOffset([lag('horizontal', { lagS: 0, standingMm: -1e-5 })], 'horizontal', 100), 0)).toBe(
      true,
    );
  });
  it('tell by how much dots come out shorter along an axis at a speed, where it was measured and still holds', () => {
    const law = { slowOnS: 0.00005, fromMmPerS: 50, toMmPerS: 200 };
    const found = factNow('dotLength', law, { at: { direction: 'vertical' } });
    // 0.05 ms at 100 mm/s.
    expect(knownShorter([found], 'vertical', 100)).toBe(0.005);
    expect(knownShorter([found], 'horizontal', 100)).toBeNull();
    expect(knownShorter([], 'vertical', 100)).toBeNull();
    expect(knownShorter([{ ...found, stale: ['another source'] }], 'vertical', 100)).toBeNull();
    // 0.01 mm shorter at its fastest: none that shows where that is sure to 0.01 mm.
    expect([0.004, 0.005, 0.006].map((sigma) => knownShorter([{ ...found, sigma }], 'vertical', 100))).toEqual([
      0.005,
      null,
      null,
    ]);
    expect([299, 301, 34, 33].map((speed) => knownShorter([found], 'vertical', speed) === null)).toEqual([
      false,
      true,
      false,
      true,
    ]);
    expect(
      Object.is(
        knownShorter(
          [factNow('dotLength', { ...law, slowOnS: -1e-9 }, { at: { direction: 'vertical' } })],
          'vertical',
          100,
        ),
        0,
      ),
    ).toBe(true);
  });
  it('tell the run-up of lines along an axis, by the square of their speed, no further than half as fast again', () => {
    const found = factNow('runUp', { runUpMm: 6, speedMmPerS: 200 }, { at: { direction: 'vertical' } });
    const at = (speed: number, fact: FactNow = found) => knownRunUp([fact], 'vertical', speed);
    expect([at(200), at(100), at(300), at(301)]).toEqual([6, 1.5, 13.5, null]);
    // Never less than was found: 6 × (90 / 200)² = 1.215.
    expect(at(90)).toBe(1.3);
    expect(knownRunUp([found], 'horizontal', 100)).toBeNull();
    expect(at(100, { ...found, stale: ['another head'] })).toBeNull();
    expect(at(100, factNow('runUp', { runUpMm: 0, speedMmPerS: 200 }, { at: { direction: 'vertical' } }))).toBe(0);
  });
  it('are shown in words', () => {
    const shows = (name: FactNow['name'], value: unknown, words: string) =>
      expect(factWords({ name, value } as FactNow, DEFAULT_LIKED_UNITS)).toBe(words);
    shows('engrave', { settings: { powerFraction: 0.4, speedMmPerS: 90 } }, '40 %, 90 mm/s');
    shows('ceiling', { powerFraction: 0.42 }, 'ceiling 42 %');
    shows('interval', { intervalMm: 0.12 }, '0.12 mm');
    shows('tone', { strongest: 44, proven: true }, '44 L* deep, proven');
    shows('tone', { strongest: 44, proven: false }, '44 L* deep, not proven yet');
    const photo = { settings: { powerFraction: 0.4 }, table: [], offL: 1.94 };
    shows('photo', photo, 'black 40 %, through a table, 1.9 L* off');
    shows('photo', { ...photo, table: null }, 'black 40 %, 1.9 L* off');
    shows('focus', { focusOffsetMm: 0, flat: true }, 'flat: stay at 0');
    shows('focus', { focusOffsetMm: -1.5, flat: false }, '-1.5 mm');
    shows('focus', { focusOffsetMm: 0, flat: false }, '0 mm');
    shows('waist', { offsetMm: 0.35, depthMm: 0.8 }, 'sharpest at +0.35 mm, 0.8 mm deep to either side');
    shows('waist', { offsetMm: -0.5, depthMm: null }, 'sharpest at -0.5 mm');
    shows('cut', CUT, '80 %, 14 mm/s, 2 passes: 98.1 of 100 drop');
    shows(
      'passes',
      { settings: { ...PLAIN_FILL, passes: 3, speedMmPerS: 24 }, dropped: 2 },
      '3 passes at 24 mm/s: 2 of 2 whole',
    );
    shows('hinge', { strength: 81.3, logSpread: 0.1, samples: 3 }, 'modulus over strength 81, by 3 strips');
    shows('score', { settings: PLAIN_FILL, dashMm: 3, skipMm: 0.6, share: null }, 'dashes 3 mm, 0.6 mm between');
    shows('score', { settings: PLAIN_FILL, dashMm: 3, skipMm: 1.2, share: 0.1 }, 'stitches 3 mm, 1.2 mm between');
    shows('score', { settings: PLAIN_FILL, dashMm: null, skipMm: null, share: 0.4 }, 'scored at 40 % of a cut');
    shows('cutFocus', { way: 'middle', focusOffsetMm: -1.5, taperMm: 0.08 }, 'in the middle, 0.08 mm wider below');
    shows('cutFocus', { way: 'stepped', focusOffsetMm: -1, taperMm: null }, 'lower with each pass');
    shows('mating', MATED, 'snug drawn tighter by 0.1 mm to 0.15 mm a side in all');
    shows('part', MADE, '0.01 mm off, as expected, snug');
    shows('part', { ...MADE, offMm: 0.05, goes: null }, '0.05 mm off, more than expected');
    shows('fit', FITTED, 'snug from -0.16 mm to -0.08 mm');
    shows('kerf', { xMm: 0.136, yMm: 0.14 }, 'X 0.136 mm, Y 0.14 mm');
    shows('kerf', { xMm: null, yMm: 0.14 }, 'Y 0.14 mm');
    shows(
      'line',
      {
        widthMm: 0.1385,
        powerFraction: 0.4,
        direction: 'horizontal',
        spotMm: null,
        thresholdFraction: null,
      },
      '0.139 mm at 40 %',
    );
    shows('lag', LAG, '-0.045 mm at 200 mm/s');
    shows('lag', { ...LAG, lagS: -0.0001 }, '+0.035 mm at 200 mm/s');
    shows('dotLength', { slowOnS: 0.00005, fromMmPerS: 50, toMmPerS: 200 }, 'dots 0.01 mm shorter at 200 mm/s');
    shows('dotLength', { slowOnS: -0.0001, fromMmPerS: 50, toMmPerS: 200 }, 'dots 0.02 mm longer at 200 mm/s');
    shows('runUp', { runUpMm: 6, speedMmPerS: 200 }, '6 mm at 200 mm/s');
    shows('ceiling', { powerFraction: 0.4, edgesFraction: 0.3 }, 'ceiling 40 %, dark edges from 30 %');
    shows('ceiling', { powerFraction: 0.4, edgesFraction: 0.5 }, 'ceiling 40 %');
    const sides = {
      a: 'air on',
      b: 'air off',
      sides: {} as never,
      looks: [],
      darker: null,
      difference: -0.4,
      largest: 2.3,
      more: 0,
    };
    shows('compared', sides, 'air on or air off: no difference over 2.3 L*');
    shows('compared', { ...sides, difference: null, largest: null }, 'air on or air off: no difference, by eye');
    shows('compared', { ...sides, darker: 'b', difference: -5 }, 'air off is darker than air on by 5 L*');
    shows('compared', { ...sides, darker: 'a', difference: null }, 'air on is darker than air off, by eye');
    shows('compared', { ...sides, more: 7 }, 'air on or air off: 7 more cells of each wanted');
    shows('runUp', { runUpMm: 0, speedMmPerS: 200 }, 'none needed at 200 mm/s');
    shows('spot', { xMm: 0.06, yMm: 0.08 }, 'X 0.06 mm, Y 0.08 mm');
    const points = [
      { command: 0.5, watts: 4 },
      { command: 0.8, watts: 7.5 },
    ];
    shows('watts', { points }, '2 points, 7.5 W at 80 %');
    shows('watts', { points: [] }, '0 points, 0 W at 0 %');
    shows('showpiece', SHOWN, 'lettering from 1.4 mm, hairlines not at 0.12 mm');
    shows(
      'showpiece',
      { ...SHOWN, pointMm: { fromMm: 0.24, notMm: null }, hairlineMm: null },
      'lettering from 1.4 mm, points from 0.24 mm',
    );
    shows('thickness', { meanMm: 3.12, readings: 4 }, '3.12 mm');
  });
  it('say how sure they are: two standard uncertainties, of a sheet’s readings one', () => {
    const sure = FACT_NAMES.map((name) => `${name} ${FACTS[name].sure(0.01, DEFAULT_LIKED_UNITS)}`.trim());
    expect(new Set(sure)).toEqual(
      new Set(
        listed(
          'engrave L* ± 0.02; floor ± 2 %; ceiling ± 2 %; compared ± 0.02 L*; line ± 0.02 mm; mating ± 0.02 mm; ' +
            'interval ± 0.02 mm; tone ± 0.02 L*; photo; focus ± 0.02 mm; waist ± 0.02 mm; showpiece; ' +
            'lag ± 0.02 mm; dotLength ± 0.02 mm; runUp ± 0.02 mm; bed ± 0.02 mm; burnedThrough; cut; ' +
            'kerf ± 0.02 mm; fit ± 0.02 mm; part; cutFocus ± 0.02 mm; score; hinge ± 0.02; passes; ' +
            'thickness ± 0.01 mm; spot ± 0.02 mm; firing ± 2 %; watts ± 0.02 W; pace ± 2 % of a burn’s time',
        ),
      ),
    );
  });
  it('are each shown, and made doubtful by changes that matter to them only', () => {
    for (const name of FACT_NAMES) expect(FACTS[name].title.length).toBeGreaterThan(3);
    expect(factWords({ name: 'kerf', value: { xMm: 0.136, yMm: null } }, DEFAULT_LIKED_UNITS)).toBe('X 0.136 mm');
    expect(factWords({ name: 'focus', value: { focusOffsetMm: 1.5, flat: false } }, DEFAULT_LIKED_UNITS)).toBe(
      '+1.5 mm',
    );
    const bed = (change: object): string =>
      factWords({ name: 'bed', value: { ...BED, ...change } }, DEFAULT_LIKED_UNITS);
    // From the highest corner to the lowest.
    expect(bed({})).toBe('tilted by 0.4 mm');
    expect(bed({ verdict: 'level', strongerToRight: -1.2 })).toBe('level, the beam weaker to one side');
    expect(bed({ verdict: 'bent' })).toBe('not flat');
    const then = pairing;
    const now = { ...pairing, stock: { ...pairing.stock, batch: 'another' } };
    expect(stalenessReasons(then, now, FACTS.floor.staleBy)).toEqual(['new batch another']);
    expect(stalenessReasons(then, now, FACTS.focus.staleBy)).toEqual([]);
  });
});
