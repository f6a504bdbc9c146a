import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
import { ladderOf, nextStepOf, type LadderFacts } from './ladder';

const pairing = demoPairing('marl', 'slate');
const nothing: LadderFacts = { pairing, likedUnits: DEFAULT_LIKED_UNITS, range: null, readCard: null, kept: null };
const range = { powerFrom: 0.15, powerTo: 0.6, speedFrom: 100, speedTo: 400 };
const readCard = { code: 'G00C-1', cells: 36, madeFor: pairing };
const kept = { version: 2, powerFraction: 0.455, speedMmPerS: 265.5, madeFor: pairing };
const states = (facts: LadderFacts): string[] => ladderOf(facts).map((rung) => rung.state);
const cost = { burnS: 130, widthMm: 38, heightMm: 20 };

describe('the ladder', () => {
  it('fills as its questions are answered', () => {
    expect(states(nothing)).toEqual(['measured', 'measured', 'empty', 'empty', 'empty']);
    expect(states({ ...nothing, range })).toEqual(['measured', 'measured', 'predicted', 'empty', 'empty']);
    expect(states({ ...nothing, range, readCard })).toEqual(['measured', 'measured', 'predicted', 'measured', 'empty']);
    expect(states({ ...nothing, range, readCard, kept })).toEqual([
      'measured',
      'measured',
      'predicted',
      'measured',
      'measured',
    ]);
  });
  it('carries its numbers in the units the operator likes', () => {
    const liked = { length: 'mm', speed: 'mm/min', density: 'mm' } as const;
    const values = ladderOf({ ...nothing, likedUnits: liked, range, readCard, kept }).map((rung) => rung.value);
    expect(values[0]).toMatch(/^5\.17 mm ± 0\.25$/);
    expect(values[2]).toBe('15 %–60 %, 6000 mm/min–24000 mm/min');
    expect(values[3]).toBe('36 cells, G00C-1');
    expect(values[4]).toBe('v2: 45.5 %, 15930 mm/min');
  });
  it('calls a label’s thickness a prediction', () => {
    const labelled = { ...pairing, stock: { ...pairing.stock, thicknessReadingsMm: [] } };
    expect(ladderOf({ ...nothing, pairing: labelled })[0]).toMatchObject({
      state: 'predicted',
      value: '5 mm by label',
    });
  });
  it('cracks with the reason when the sheet is another', () => {
    const now = { ...pairing, stock: { ...pairing.stock, batch: 'new' } };
    const rungs = ladderOf({ ...nothing, pairing: now, range, readCard, kept });
    expect(rungs.slice(3).map((rung) => [rung.state, rung.reason])).toEqual([
      ['stale', 'new batch new'],
      ['stale', 'new batch new'],
    ]);
  });
  it('stops at safety', () => {
    const banned = { ...pairing, stock: { ...pairing.stock, family: 'ptfe' } };
    const safety = ladderOf({ ...nothing, pairing: banned })[1]!;
    expect(safety.state).toBe('stopped');
    expect(safety.reason).toMatch(/never burn/);
  });
});

describe('the next step', () => {
  const next = (facts: LadderFacts) => nextStepOf(ladderOf(facts), cost);
  it('is the card, with its cost, then the pick, then rest', () => {
    expect(next({ ...nothing, range })).toEqual({
      action: 'plan',
      text: 'Power × speed card',
      cost: '2 min 10 s, 38 × 20 mm',
    });
    expect(next({ ...nothing, range, readCard }).action).toBe('pick');
    expect(next({ ...nothing, range, readCard, kept }).action).toBe('rest');
  });
  it('is a new card when the grid is stale, and nothing where it stops', () => {
    const now = { ...pairing, stock: { ...pairing.stock, batch: 'new' } };
    expect(next({ ...nothing, pairing: now, range, readCard, kept }).action).toBe('plan');
    expect(next({ ...nothing, pairing: { ...pairing, stock: { ...pairing.stock, family: 'abs' } } }).action).toBe(
      'stop',
    );
  });
});
