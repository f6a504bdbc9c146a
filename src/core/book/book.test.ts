import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { conditionsKey, factOf, FACTS, FACT_NAMES, factWords, type FactNow } from './facts';
import { ladderOf, nextStepOf, type LadderFacts } from './ladder';
import { groundOf, RUNG_IDS, RUNGS } from './rungs';
import { stalenessReasons } from './staleness';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';

const pairing = demoPairing('heron', 'birch');
const fact = (change: Partial<FactNow>): FactNow =>
  ({
    factId: 1,
    version: 1,
    name: 'floor',
    at: {},
    value: { powerFraction: 0.065 },
    sigma: 0.002,
    origin: 'card',
    createdAt: '2026-05-01T10:00:00Z',
    stale: [],
    ...change,
  }) as FactNow;

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
    plan: (rung) => `/bench/1/plan/${rung}`,
    prove: (id) => `/prove/${id}`,
  },
  ...change,
});
const nextOf = (facts: LadderFacts) => nextStepOf(facts, ladderOf(facts), (rung) => `card of ${rung}`);

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
    expect(slate.map((rung) => rung.foot)).not.toContain('cut');
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
    ];
    expect(facts).toHaveLength(all);
    expect(nextOf(from({ facts }))).toMatchObject({ action: 'plan', rung: 'focus' });
    const fresh = facts.map((one) => ({ ...one, stale: [] }));
    expect(nextOf(from({ facts: fresh }))).toMatchObject({ action: 'rest', rung: null });
  });
  it('stops before any card for stock that is never burned', () => {
    const banned = { ...pairing, stock: { ...pairing.stock, family: 'pvc' } };
    const facts = from({ pairing: banned });
    expect(nextOf(facts).action).toBe('stop');
    for (const rung of ladderOf(facts)) if (rung.foot !== 'common') expect(rung.href).toBeNull();
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
  });
  it('are each shown, and made doubtful by changes that matter to them only', () => {
    for (const name of FACT_NAMES) expect(FACTS[name].title.length).toBeGreaterThan(3);
    expect(factWords({ name: 'kerf', value: { xMm: 0.136, yMm: null } }, DEFAULT_LIKED_UNITS)).toBe('X 0.136 mm');
    expect(factWords({ name: 'focus', value: { focusOffsetMm: 1.5, flat: false } }, DEFAULT_LIKED_UNITS)).toBe(
      '+1.5 mm',
    );
    const then = pairing;
    const now = { ...pairing, stock: { ...pairing.stock, batch: 'another' } };
    expect(stalenessReasons(then, now, FACTS.floor.staleBy)).toEqual(['new batch another']);
    expect(stalenessReasons(then, now, FACTS.focus.staleBy)).toEqual([]);
  });
});
