import { describe, expect, it } from 'vitest';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
import { EASES, lighterPlans, type Ease } from './ease';

const PLAN = { constants: { intervalMm: 0.1, passes: 4 }, sizeMm: 10, speedMmPerS: 50 };
const INTERVAL = EASES.interval('constants.intervalMm');
const PASSES = EASES.passes('constants.passes');
const SIZE = EASES.size('sizeMm', 'squares');
const SPEED = EASES.speed('speedMmPerS');
const lighter = (eases: readonly Ease[], excess: number, fits: (plan: typeof PLAN) => boolean) =>
  lighterPlans(eases, PLAN, excess, fits, DEFAULT_LIKED_UNITS);

describe('lighter plans', () => {
  it('change one field at a time, a little more than in proportion, rounded to the side of less work', () => {
    const found = lighter([INTERVAL, PASSES, SIZE, SPEED], 2, () => true);
    // By hand, twice too much and 2 % on top: 0.1 x 2.04 up to a micrometre; 4 / 2.04 down to a whole pass; 10 / 2.04 down to a tenth;
    // 50 x 2.04.
    expect(found.map(({ field, words }) => `${field}: ${words}`)).toEqual([
      'constants.intervalMm: a line interval of 0.204 mm',
      'constants.passes: 1 pass',
      'sizeMm: squares of 4.9 mm',
      'speedMmPerS: a speed of 102 mm/s',
    ]);
    expect(found[0]!.plan).toEqual({ ...PLAN, constants: { intervalMm: 0.204, passes: 4 } });
    expect(found[2]!.plan).toEqual({ ...PLAN, sizeMm: 4.9 });
  });
  it('try more where that is not enough', () => {
    const [found] = lighter([INTERVAL], 2, ({ constants }) => constants.intervalMm >= 0.3);
    // Margins of 1.02, 1.2, 1.6: 0.204 and 0.24 are not enough, 0.32 is.
    expect(found!.plan.constants.intervalMm).toBe(0.32);
  });
  it('change all fields together only where none alone is enough', () => {
    const both = ({ constants, sizeMm }: typeof PLAN): boolean => constants.intervalMm > 0.13 && sizeMm < 7.5;
    const [found, ...more] = lighter([INTERVAL, SIZE], 2, both);
    expect(more).toEqual([]);
    // Each by the square root of two, and 2 %: 0.1443 up to 0.145, 6.93 down to 6.9.
    expect(found!.plan).toEqual({ ...PLAN, constants: { intervalMm: 0.145, passes: 4 }, sizeMm: 6.9 });
    expect(found!.words).toBe('a line interval of 0.145 mm, squares of 6.9 mm together');
    expect(found!.field).toBe('constants.intervalMm');
  });
  it('are none where nothing fits, and a field never falls to nothing', () => {
    expect(lighter([INTERVAL, SIZE], 2, () => false)).toEqual([]);
    expect(lighter([INTERVAL], 2, () => false)).toEqual([]);
    const [few] = lighter([PASSES], 100, () => true);
    expect(few!.plan.constants.passes).toBe(1);
    expect(PASSES.says(3, DEFAULT_LIKED_UNITS)).toBe('3 passes');
  });
});
