import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { deliveredBy } from '../../core/card/energy';
import { layCard, planProblems } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { cutThroughJPerMm } from '../../core/stock/cutting';
import { thicknessOf } from '../../core/stock/stock';
import { USUAL_PASS_COUNT_WISH, type PassCountWish } from './find';
import type { PassCountPlan } from './plan';
import { passCount } from '.';

const pairing = demoPairing('marl', 'alder');
const known = { pairing, facts: [] };
let plan: PassCountPlan;
let layout: Layout;
const propose = (): void => {
  ({ plan } = passCount.propose(known));
  layout = layCard(passCount, plan, pairing, { cardNumber: 9 });
};
// Once for the tables below, and anew for each test.
propose();
beforeEach(propose);
const find = (value: string | null, wish: Partial<PassCountWish> = {}, of = layout) =>
  passCount.find(
    of,
    { readings: [], answers: value === null ? [] : [{ field: 'count', cellIndex: 0, repeat: 0, value }] },
    known,
    { ...USUAL_PASS_COUNT_WISH, ...wish },
  );

it('is not counted where the source does not fire with that power', () => {
  const weak = layCard(passCount, { ...plan, cut: { ...plan.cut, powerFraction: 0.01 } }, pairing, { cardNumber: 9 });
  expect(find('3', {}, weak)).toMatchObject({
    missing: ['With this power the source does not fire: nothing was cut.'],
    says: '',
    cut: null,
  });
});

it('says why it is cut so fast: by the passes that should drop it, or by what chars', () => {
  const why = (machine: Partial<typeof pairing.machine>) =>
    passCount.propose({ pairing: { ...pairing, machine: { ...pairing.machine, ...machine } }, facts: [] }).reasons[
      'cut.speedMmPerS'
    ];
  expect(why({})).toMatch(/^about 4 passes should drop it: [\d.]+ J\/mm in all come through /);
  expect(why({ ratedPowerW: 1, powerTable: null })).toMatch(/^no slower than .* below which a cut chars$/);
});

describe('a square that gets pass after pass', () => {
  it('gets as many equal ones as are counted at the most, a look before each but the first', () => {
    const [cell] = layout.cells;
    expect(cell!.burns).toHaveLength(9);
    for (const [pass, { settings, before }] of cell!.burns.entries()) {
      expect(settings).toEqual(plan.cut);
      expect(before === undefined).toBe(pass === 0);
    }
    expect(cell!.burns[3]!.before!.text).toContain('3 passes are done');
    // A quarter of what the family’s figure says.
    const each = deliveredBy(mainBurn(cell!).settings, pairing).lineJPerMm;
    expect((4 * each) / cutThroughJPerMm(pairing.machine, pairing.stock)!).toBeCloseTo(1, 0);
  });

  it('tells between which two passes it came through, and how many surely drop a part', () => {
    const finding = find('4');
    expect(finding.missing).toEqual([]);
    const { low, energy, high } = finding.window!.comesThrough(4);
    expect(finding.eachPass).toBeCloseTo(
      deliveredBy(plan.cut, pairing).lineJPerMm / thicknessOf(pairing.stock).meanMm,
      9,
    );
    expect(energy).toBeGreaterThan(2.7 * finding.eachPass);
    expect(energy).toBeLessThan(4 * finding.eachPass);
    expect(low).toBeLessThan(3.2 * finding.eachPass);
    expect(high).toBeGreaterThan(3.6 * finding.eachPass);
    // More than it took, by one place alone; the fewest that are sure enough.
    const { settings, chance } = finding.cut!;
    expect(settings.passes).toBeGreaterThan(4);
    expect(chance.chance).toBeGreaterThanOrEqual(0.98);
    const before = (settings.passes - 1) * finding.eachPass;
    expect(finding.window!.chanceAt(before, settings.passes - 1, finding.outlineMm).chance).toBeLessThan(0.98);
    expect(find('4', { certainty: 0.8 }).cut!.settings.passes).toBeLessThan(settings.passes);
    const [draft] = passCount.settle(finding);
    expect(draft).toMatchObject({
      name: 'cut',
      at: { shade: 'counted' },
      value: { settings, laidDown: finding.cut!.energy },
    });
  });

  it('says what is missing, and what to do', () => {
    expect(find(null).missing[0]).toContain('Say after which pass');
    expect(find('1').missing[0]).toContain('faster');
    expect(find('none').missing[0]).toContain('slower');
    const slow = layCard(passCount, { ...plan, cut: { ...plan.cut, speedMmPerS: 4 } }, pairing, { cardNumber: 9 });
    expect(find('none', {}, slow).missing[0]).toContain('only for engraving');
    expect(find('4', { outlineMm: 20_000 }).missing[0]).toContain('not to be promised');
    expect(passCount.settle(find('1'))).toEqual([]);
  });

  it.each([
    ['mostPasses', { mostPasses: 10 }],
    ['sizeMm', { sizeMm: 2 }],
    ['cut.passes', { cut: { ...plan.cut, passes: 2 } }],
  ] as const)('is refused at %s', (field, change: Partial<PassCountPlan>) => {
    expect(planProblems(passCount, { ...plan, ...change }, pairing)[0]).toMatchObject({ field });
  });
});
