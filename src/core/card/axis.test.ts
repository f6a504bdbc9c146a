import { describe, expect, it } from 'vitest';
import { axisValues, AXIS_COUNTS, checkAxis, within, type Axis } from './axis';

const AXIS: Axis = { from: 1, to: 8, count: 4, spacing: 'ratio' };
const fields = (axis: Axis, rules = {}) =>
  checkAxis(axis, { path: 'power', word: 'Power', ...rules }).map(({ field }) => field);

describe('an axis', () => {
  it('goes from its low end to its high one by equal ratios or equal steps', () => {
    const ratio = axisValues(AXIS);
    [1, 2, 4, 8].forEach((value, index) => expect(ratio[index]).toBeCloseTo(value, 12));
    expect(axisValues({ from: -1, to: 2, count: 4, spacing: 'even' })).toEqual([-1, 0, 1, 2]);
    expect(axisValues({ ...AXIS, count: 2 })).toEqual([1, 8]);
  });
  it('is taken where its ends are in order and its steps a whole number of two to twenty', () => {
    expect(fields(AXIS)).toEqual([]);
    expect(fields({ ...AXIS, count: AXIS_COUNTS.least })).toEqual([]);
    expect(fields({ ...AXIS, count: AXIS_COUNTS.most })).toEqual([]);
    expect(fields({ ...AXIS, from: -2, to: 2, spacing: 'even' }, { above: -Infinity })).toEqual([]);
  });
  it.each([
    [{ from: 0 }, ['power.from', 'power.from']],
    [{ from: 0, spacing: 'even' }, ['power.from']],
    [{ to: NaN }, ['power.to']],
    [{ to: Infinity }, ['power.to']],
    [{ from: 8, to: 8 }, ['power.to']],
    [{ from: 9 }, ['power.to']],
    [{ count: 1 }, ['power.count']],
    [{ count: 21 }, ['power.count']],
    [{ count: 2.5 }, ['power.count']],
  ] as const)('is refused with %o at %o', (change, wanted) => {
    expect(fields({ ...AXIS, ...change })).toEqual(wanted);
  });
  it('of offsets may begin below zero, but not by ratio', () => {
    expect(fields({ from: -2, to: 2, count: 3, spacing: 'ratio' }, { above: -Infinity })).toEqual(['power.from']);
    const [words] = checkAxis(
      { from: -2, to: 2, count: 3, spacing: 'ratio' },
      { path: 'focus', word: 'Focus', above: -Infinity },
    );
    expect(words!.message).toBe('Focus: steps by ratio start above zero.');
  });
  it('may be held to fewer steps, and says in words what is wanted', () => {
    expect(fields({ ...AXIS, count: 13 }, { mostSteps: 12 })).toEqual(['power.count']);
    const [low] = checkAxis({ ...AXIS, from: -1 }, { path: 'speed', word: 'Speed' });
    expect(low!.message).toBe('Speed must be a number above zero.');
    const [swapped] = checkAxis({ ...AXIS, from: 9 }, { path: 'speed', word: 'Speed' });
    expect(swapped!.message).toMatch(/low end must be below the high end/);
    const [count] = checkAxis({ ...AXIS, count: 99 }, { path: 'speed', word: 'Speed', mostSteps: 12 });
    expect(count!.message).toBe('2 to 12 steps along each edge.');
    const [free] = checkAxis({ ...AXIS, from: NaN }, { path: 'focus', word: 'Focus', above: -Infinity });
    expect(free!.message).toBe('Focus must be a number.');
  });
});

describe('a range', () => {
  it('has its ends in it, and no NaN', () => {
    expect(within('a', 1, 1, 2, 'no')).toEqual([]);
    expect(within('a', 2, 1, 2, 'no')).toEqual([]);
    for (const value of [0.999, 2.001, NaN])
      expect(within('a', value, 1, 2, 'no')).toEqual([{ field: 'a', message: 'no' }]);
  });
});
