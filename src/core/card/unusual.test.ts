import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { grid } from '../../cards/grid';
import type { GridPlan } from '../../cards/grid/plan';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
import type { PlanField } from './plan-fields';
import { unusualConstants } from './unusual';

const pairing = demoPairing('marl', 'mdf');
let proposal: ReturnType<typeof grid.propose>;
beforeEach(() => {
  proposal = grid.propose({ pairing, facts: [] });
});
const remarks = (constants: Partial<GridPlan['constants']>, change: Partial<GridPlan> = {}): string[] => {
  const plan = { ...proposal.plan, ...change, constants: { ...proposal.plan.constants, ...constants } };
  return unusualConstants(grid.fields(plan, pairing), plan, proposal, DEFAULT_LIKED_UNITS);
};

describe('a constant far from the proposal', () => {
  it('is pointed out with what was proposed and why', () => {
    expect(remarks({ passes: 4 })).toEqual(['Passes: 4, where 1 was proposed.']);
    expect(remarks({ intervalMm: 0.05 })[0]).toMatch(
      /^Line interval: 0.05 mm, where 0.12 mm was proposed \(usual for mdf\)\.$/,
    );
    expect(remarks({ focusOffsetMm: -2 })[0]).toMatch(/^Focus offset: -2 mm, where 0 mm/);
    expect(remarks({ passes: 4, intervalMm: 0.3 })).toHaveLength(2);
  });
  it('is not one that lies near, nor what the card is about', () => {
    expect(remarks({})).toEqual([]);
    expect(remarks({ intervalMm: 0.1, focusOffsetMm: 0.5 })).toEqual([]);
    expect(remarks({}, { cellMm: 20, gapMm: 4 })).toEqual([]);
  });
  it('says what was used until now, and is none where the last card had it so', () => {
    const told = (passes: number, before: number): string[] => {
      const plan = { ...proposal.plan, constants: { ...proposal.plan.constants, passes } };
      const last = { ...proposal.plan, constants: { ...proposal.plan.constants, passes: before } };
      const fields = grid.fields(plan, pairing);
      return unusualConstants(fields, plan, proposal, DEFAULT_LIKED_UNITS, { plan: last, code: 'CD00C-Q' });
    };
    expect(told(4, 1)).toEqual(['Passes: 4, where 1 was proposed; you used 1 until now (card CD00C-Q).']);
    expect(told(4, 4)).toEqual([]);
  });
  it('is none where a field is not a number, there or in the proposal', () => {
    const fields = grid.fields(proposal.plan, pairing);
    const emptied = { ...proposal.plan, constants: { ...proposal.plan.constants, passes: null } };
    expect(unusualConstants(fields, emptied, proposal, DEFAULT_LIKED_UNITS)).toEqual([]);
    const open = { ...proposal, plan: emptied };
    expect(unusualConstants(fields, proposal.plan, open, DEFAULT_LIKED_UNITS)).toEqual([]);
  });
  it('begins at twice or half as much, and at two millimetres of focus', () => {
    const fields = (as: PlanField['as']): PlanField[] => [{ path: 'it', label: 'It', as, group: 'same' }];
    const far = (as: PlanField['as'], value: number, proposed: number) =>
      unusualConstants(fields(as), { it: value }, { plan: { it: proposed }, reasons: {} }, DEFAULT_LIKED_UNITS);
    expect([far('speed', 199, 100), far('speed', 51, 100), far('offset', 0.5, -1.4)]).toEqual([[], [], []]);
    expect(far('speed', 200, 100)).toEqual(['It: 200 mm/s, where 100 mm/s was proposed.']);
    expect(far('power', 0.2, 0.4)).toEqual(['It: 20 %, where 40 % was proposed.']);
    expect(far('offset', 1, -1)).toEqual(['It: 1 mm, where -1 mm was proposed.']);
    // Nothing is twice nothing: there any other value is far.
    expect([far('length', 0, 0), far('number', -1, -1)]).toEqual([[], []]);
    expect([far('length', 0.1, 0), far('length', 0, 0.1)].map((all) => all.length)).toEqual([1, 1]);
  });
  it('is told in the operator’s units', () => {
    const plan = { ...proposal.plan, constants: { ...proposal.plan.constants, intervalMm: 0.254 } };
    const liked = { length: 'in', speed: 'mm/min', density: 'dpi' } as const;
    expect(unusualConstants(grid.fields(plan, pairing), plan, proposal, liked)[0]).toMatch(/100 DPI, where 211.7 DPI/);
  });
});
