import { describe, expect, it } from 'vitest';
import type { LadderRung, RungState } from './ladder';
import { openRungs } from './round';
import { RUNG_IDS, RUNGS, type RungId } from './rungs';

const ladder = (states: Partial<Record<RungId, RungState>>): LadderRung[] =>
  RUNG_IDS.map((rung) => {
    const { name, question, foot, standsOn } = RUNGS[rung];
    const state = states[rung] ?? (foot === 'common' ? 'measured' : 'empty');
    return { rung, name, question, foot, standsOn, state, value: '', reason: '', since: null, href: null };
  });
const together = (states: Partial<Record<RungId, RungState>>, cards = {}): RungId[] =>
  openRungs(ladder(states), cards).flatMap(({ rung, why }) => (why === null ? [rung] : []));
const whyOf = (rung: RungId, states: Partial<Record<RungId, RungState>>, cards = {}) =>
  openRungs(ladder(states), cards).find((one) => one.rung === rung)?.why;

describe('rungs that may be answered by one burn', () => {
  it('are those whose ground is measured, none of which starts from another', () => {
    expect(together({})).toEqual(['grid']);
    expect(together({ grid: 'measured' })).toEqual(['threshold', 'line', 'interval', 'ways', 'run-up']);
    const later = { grid: 'measured', threshold: 'measured', line: 'measured', interval: 'measured' } as const;
    expect(together(later)).toEqual(['ceiling', 'focus', 'showpiece', 'ways', 'run-up']);
  });
  it('leave out what starts from something open, stale or not proven, and name it', () => {
    expect(whyOf('ceiling', { grid: 'measured' })).toBe('it starts from Threshold, which is not measured');
    expect(whyOf('tone', { grid: 'measured' })).toBe('it starts from Threshold, which is not measured');
    expect(together({ grid: 'stale' })).toEqual(['grid']);
    expect(together({ grid: 'predicted' })).toEqual([]);
    // A label's thickness is no reason to wait.
    expect(together({ stock: 'predicted' })).toEqual(['grid']);
  });
  it('do not wait for what is not asked on the ladder', () => {
    const withoutFit = ladder({ cut: 'measured', kerf: 'measured' }).filter(({ rung }) => rung !== 'fit');
    expect(openRungs(withoutFit, {}).find(({ rung }) => rung === 'part')!.why).toContain('do not lie still');
    expect(whyOf('part', { cut: 'measured', kerf: 'measured' })).toContain('it starts from Fit');
  });
  it('leave out what a card waits for, what is cut, and what is answered', () => {
    const waits = { line: { code: 'CD00A-9' } };
    expect(whyOf('line', { grid: 'measured' }, waits)).toBe('card CD00A-9 waits already');
    expect(whyOf('cut', {})).toContain('do not lie still');
    expect(whyOf('kerf', { cut: 'measured' })).toContain('do not lie still');
    expect(whyOf('fit', { cut: 'measured', kerf: 'measured' })).toContain('do not lie still');
    expect(whyOf('interval', { grid: 'measured', interval: 'measured' })).toBeUndefined();
    expect(openRungs(ladder({ grid: 'stale' }), {}).find(({ rung }) => rung === 'grid')).toMatchObject({
      isStale: true,
    });
  });
});
