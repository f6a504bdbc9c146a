import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { provenShade } from '../../core/book/shades';
import type { FactNow } from '../../core/book/facts';
import { proposeFill } from '../../core/card/propose-fill';
import { layCard, planProblems } from '../../core/card/lay';
import { mainBurn } from '../../core/card/layout';
import type { BurnSettings } from '../../core/card/settings';
import { grid } from '.';
import { proveSetting } from './prove';

const pairing = demoPairing('heron', 'birch');
const known = { pairing, facts: [] };
let settings: BurnSettings;
beforeEach(() => {
  ({ settings } = proposeFill(known));
});

describe('a card that proves a setting', () => {
  it('is nine cells with the setting itself in the middle', () => {
    const { plan } = proveSetting(known, { ...settings, powerFraction: 0.5, speedMmPerS: 60, intervalMm: 0.11 });
    expect(planProblems(grid, plan, pairing)).toEqual([]);
    const { cells } = layCard(grid, plan, pairing, { cardNumber: 1 });
    expect(cells).toHaveLength(9);
    const middle = mainBurn(cells[4]!).settings;
    expect(middle.powerFraction).toBeCloseTo(0.5, 3);
    expect(middle.speedMmPerS).toBeCloseTo(60, 1);
    expect(middle.intervalMm).toBe(0.11);
  });
  it('has it at the end where the machine goes no further', () => {
    const { powerCap } = pairing.machine;
    const { plan } = proveSetting(known, { ...settings, powerFraction: powerCap, speedMmPerS: 60 });
    expect(planProblems(grid, plan, pairing)).toEqual([]);
    expect(plan.across.to).toBe(powerCap);
    const { cells } = layCard(grid, plan, pairing, { cardNumber: 1 });
    expect(cells.some((cell) => mainBurn(cell).settings.powerFraction === powerCap)).toBe(true);
  });
  it('is known again by the shade that it proves', () => {
    const { plan } = proveSetting(known, settings);
    const layout = layCard(grid, plan, pairing, { cardNumber: 1 });
    const fact = (origin: FactNow['origin'], at: object) =>
      ({
        name: 'engrave',
        at,
        value: { settings, lightness: null, lightnessSigma: null, confidence: null },
        origin,
      }) as unknown as FactNow;
    expect(provenShade([fact('brought', { shade: 'strong' })], layout)).toBe('strong');
    expect(provenShade([fact('card', { shade: 'strong' })], layout)).toBe('');
  });
});
