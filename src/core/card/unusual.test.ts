import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { grid } from '../../cards/grid';
import type { GridPlan } from '../../cards/grid/plan';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
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
  it('is told in the operator’s units', () => {
    const plan = { ...proposal.plan, constants: { ...proposal.plan.constants, intervalMm: 0.254 } };
    const liked = { length: 'in', speed: 'mm/min', density: 'dpi' } as const;
    expect(unusualConstants(grid.fields(plan, pairing), plan, proposal, liked)[0]).toMatch(/100 DPI, where 211.7 DPI/);
  });
});
