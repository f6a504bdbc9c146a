import { describe, expect, it } from 'vitest';
import { grid } from '../../cards/grid';
import { kerf } from '../../cards/kerf';
import { demoPairing } from '../../../tests/support/demo';
import { boundOfFills, boundOfLines } from './bound';
import { PlanError } from './contract';
import { checkFrame, proposeFrame } from './frame-settings';
import { layCard, planProblems } from './lay';
import { upgradeLayout, upgradePairing } from './stored';
import { cutThroughJPerMm } from '../stock/cutting';
import { deliveredPowerW } from '../machine/machine';

const pairing = demoPairing('marl', 'alder');
const plan = { ...grid.propose({ pairing, facts: [] }).plan, leaveOutFailing: false };

describe('a card that is too much work', () => {
  const axis = { ...plan.power, count: 20 };
  const monster = {
    ...plan,
    power: axis,
    speed: { ...plan.speed, count: 20 },
    cellMm: 50,
    constants: { ...plan.constants, intervalMm: 0.01, passes: 20 },
  };
  it('is refused by arithmetic, at once, with what it would take and what would fit', () => {
    const started = performance.now();
    const problems = planProblems(grid, monster, pairing);
    // Drawn, it would be 400 cells of 100 000 lines each; seconds would mean that it was.
    expect(performance.now() - started).toBeLessThan(2000);
    expect(problems).toHaveLength(1);
    expect(problems[0]!.message).toMatch(/lines of program/);
    expect(problems[0]!.message).toMatch(/would fit with a line interval of .* mm, cells of .* mm, \d passes together/);
    expect(() => layCard(grid, monster, pairing, { cardNumber: 1 })).toThrow(PlanError);
  });
  it('offers each field whose change alone is enough', () => {
    const many = {
      ...plan,
      power: axis,
      speed: { ...plan.speed, count: 20 },
      cellMm: 10,
      constants: { ...plan.constants, intervalMm: 0.1, passes: 4 },
    };
    // 400 cells of 100 lines, 4 passes and 4 program lines each are 2.6 times too many: by hand, one pass, cells of 3.9 mm at the most.
    const words = planProblems(grid, many, pairing)[0]!.message;
    expect(words).toMatch(/would fit with a line interval of 0\.2\d* mm, or with cells of 3\.\d mm, or with 1 pass\.$/);
  });
  it('says no at its own limit, not far from it', () => {
    const passes = (count: number) =>
      planProblems(grid, { ...plan, constants: { ...plan.constants, passes: count } }, pairing);
    expect(passes(1)).toEqual([]);
    expect(passes(3)).toEqual([]);
  });
});

describe('the arithmetic of a bound', () => {
  const settings = { ...plan.constants, powerFraction: 0.3, speedMmPerS: 100, intervalMm: 0.1, passes: 2 };
  const size = { widthMm: 5, heightMm: 5 };
  it('counts four lines for each sweep of each pass, and six for each rectangle', () => {
    expect(boundOfFills(10, size, settings, pairing.machine).lines).toBe(10 * (50 * 2 * 4 + 6));
    const vertical = { ...settings, direction: 'vertical' as const, passes: 1 };
    expect(boundOfFills(1, { widthMm: 3, heightMm: 9 }, vertical, pairing.machine).lines).toBe(30 * 4 + 6);
  });
  it('has at least the time that the beam is on', () => {
    expect(boundOfFills(10, size, settings, pairing.machine).seconds).toBeGreaterThan((10 * 100 * 5) / 100);
    const square = { count: 3, lengthMm: 80, corners: 5, reachMm: 20 };
    const bound = boundOfLines(square, { speedMmPerS: 10, passes: 2 }, pairing.machine);
    expect(bound.seconds).toBeGreaterThan(3 * 2 * 8);
    expect(bound.lines).toBe(3 * (7 * 2 + 6));
  });
  it('never believes a speed that the machine has not', () => {
    const fast = { ...settings, speedMmPerS: 1e6 };
    const top = { ...settings, speedMmPerS: pairing.machine.topSpeedXMmPerS, runUpMm: 5 };
    expect(boundOfFills(1, size, { ...fast, runUpMm: 5 }, pairing.machine).seconds).toBeCloseTo(
      boundOfFills(1, size, top, pairing.machine).seconds,
      6,
    );
  });
});

describe('the frame', () => {
  it.each([
    ['heron', 'birch'],
    ['heron', 'cork'],
    ['marl', 'felt'],
    ['marl', 'linen'],
    ['marl', 'alder'],
  ] as const)('never cuts: on %s with %s a mark has at most a third of the energy that does', (machine, stock) => {
    const on = demoPairing(machine, stock);
    const { settings } = proposeFrame(on);
    const cut = cutThroughJPerMm(on.machine, on.stock)!;
    for (const { powerFraction, speedMmPerS } of [settings.marker, settings.lettering]) {
      const jPerMm = deliveredPowerW(on.machine, powerFraction) / speedMmPerS;
      expect(jPerMm).toBeGreaterThan(0);
      expect(jPerMm).toBeLessThanOrEqual(cut / 3 + 1e-9);
    }
  });
  it.each([
    ['mdf', 3],
    ['card', 0.4],
    ['cloth', 0.5],
    ['felt', 1],
    ['cork', 2],
  ] as const)('does not cut under 100 W either: %s of %f mm', (family, thickness) => {
    const on = demoPairing('marl', 'mdf');
    const machine = { ...on.machine, ratedPowerW: 100, powerTable: null, lowestFiringCommand: 0.08 };
    const stock = { ...on.stock, family, thicknessReadingsMm: [thickness] };
    const { settings } = proposeFrame({ ...on, machine, stock });
    const cut = cutThroughJPerMm(machine, stock)!;
    for (const { powerFraction, speedMmPerS } of [settings.marker, settings.lettering])
      expect((powerFraction * 100) / speedMmPerS).toBeLessThanOrEqual(cut / 3 + 1e-9);
  });
  it('is refused by name when it has half of the energy that cuts, and taken with a third', () => {
    const on = demoPairing('marl', 'linen');
    const cut = cutThroughJPerMm(on.machine, on.stock)!;
    const watts = deliveredPowerW(on.machine, 0.2);
    const faults = (share: number): string[] => {
      const { settings } = proposeFrame(on);
      const lettering = { powerFraction: 0.2, speedMmPerS: watts / (cut * share) };
      return checkFrame({ ...settings, lettering }, on).map((problem) => problem.field);
    };
    expect(faults(0.5)).toContain('frame.lettering.powerFraction');
    expect(faults(0.32)).not.toContain('frame.lettering.powerFraction');
  });
  it('has two lines for each square of a marker, and says so where it has fewer', () => {
    const on = demoPairing('marl', 'alder');
    const { settings, reasons } = proposeFrame(on);
    const faults = (intervalMm: number) => checkFrame({ ...settings, marker: { ...settings.marker, intervalMm } }, on);
    expect(faults(0.2)).toEqual([]);
    expect(faults(0.01)).toEqual([]);
    for (const mm of [0.21, 0.009, NaN])
      expect(faults(mm)).toEqual([
        {
          field: 'frame.marker.intervalMm',
          message: 'Markers need two lines for each of their squares: 0.01 to 0.2 mm apart.',
        },
      ]);
    expect(reasons.marker).toMatch(/^2 lines for each square of a marker, /);
    // Thin stock is cut by little: a third of that is all that a line may have, and the whole of it is told.
    const held = (['mdf', 'card', 'cloth', 'felt', 'cork'] as const).flatMap((family) => {
      const stock = { ...on.stock, family, thicknessReadingsMm: [0.4] };
      const { marker, lettering } = proposeFrame({ ...on, stock }).reasons;
      const cut = cutThroughJPerMm(on.machine, stock)!;
      return [marker, lettering].flatMap((words) => {
        const said = /held to a third of what cuts through \(([\d.]+) J\/mm\)/.exec(words);
        return said ? [Number(said[1]) / cut] : [];
      });
    });
    expect(held.length).toBeGreaterThan(0);
    for (const share of held) expect(share).toBeCloseTo(1, 1);
  });
  it('that would cut is refused by name', () => {
    const on = demoPairing('marl', 'linen');
    const own = kerf.propose({ pairing: on, facts: [] }).plan;
    const hot = { ...own, frame: { ...own.frame, lettering: { powerFraction: 0.6, speedMmPerS: 5 } } };
    expect(planProblems(kerf, hot, on).map((problem) => problem.field)).toContain('frame.lettering.powerFraction');
  });
});

describe('what was stored', () => {
  it('by a version that is not known is an error, not a guess', () => {
    expect(() => upgradeLayout({ version: 7 })).toThrow(/unknown layout version/);
  });
  it('of a machine without the newer words has the careful ones', () => {
    const { rampPower: _ramp, addsRunUp: _adds, ...older } = pairing.machine;
    expect(upgradePairing({ machine: older as typeof pairing.machine }).machine).toMatchObject({
      rampPower: 'constant',
      addsRunUp: false,
    });
    expect(
      upgradePairing({ machine: { ...older, rampPower: 'follows-speed' } as typeof pairing.machine }).machine.rampPower,
    ).toBe('follows-speed');
    expect(upgradePairing({})).toEqual({});
  });
});
