import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grid } from '../../cards/grid';
import { kerf } from '../../cards/kerf';
import { demoPairing } from '../../../stand-ins/demo';
import { cellOf, layoutOf } from '../../../tests/support/bare-layout';
import { prop } from '../../../tests/support/prop';
import { BOUND_LIMITS, boundOfFills, boundOfLines, excessOf, excessWords, sumOfBounds } from './bound';
import { PlanError } from './contract';
import { EASES } from './ease';
import { estimateCard } from './estimate';
import { rectOutline, rectRing } from './shape';
import { proposeFrame } from './frame-settings';
import { layCard, planProblems } from './lay';
import { cutThroughJPerMm } from '../stock/cutting';
import { deliveredPowerW } from '../machine/machine';

const pairing = demoPairing('marl', 'alder');
const plan = { ...grid.propose({ pairing, facts: [] }).plan, leaveOutFailing: false };

describe('a card that is too much work', () => {
  const axis = { ...plan.across, count: 20 };
  const monster = {
    ...plan,
    across: axis,
    down: { ...plan.down, count: 20 },
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
      across: axis,
      down: { ...plan.down, count: 20 },
      cellMm: 10,
      constants: { ...plan.constants, intervalMm: 0.1, passes: 4 },
    };
    // 400 cells of 100 lines, 4 passes and 4 program lines each are 2.6 times too many: by hand, one pass, cells of 3.9 mm at the most.
    const words = planProblems(grid, many, pairing)[0]!.message;
    expect(words).toMatch(/would fit with a line interval of 0\.2\d* mm, or with cells of 3\.\d mm, or with 1 pass\.$/);
  });
  it('says what can be done where no field alone or with others is enough', () => {
    const heavy = {
      ...grid,
      eases: [EASES.passes('constants.passes')],
      bound: () => ({ lines: 1e7, seconds: 1, bytes: 1 }),
    };
    expect(planProblems(heavy, plan, pairing)).toEqual([
      {
        field: 'constants.passes',
        message: expect.stringMatching(
          /^Too much for one card: about \d+ lines of program \(250000 are the most\)\. Take fewer and smaller cells\.$/,
        ),
      },
    ]);
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
  it('is the sum of its parts, and too much by what goes furthest past its limit', () => {
    expect(
      sumOfBounds([
        { lines: 2, seconds: 3, bytes: 4 },
        { lines: 10, seconds: 20, bytes: 30 },
      ]),
    ).toEqual({ lines: 12, seconds: 23, bytes: 34 });
    const { lines, seconds, bytes } = BOUND_LIMITS;
    expect(excessOf(BOUND_LIMITS)).toBe(1);
    expect(excessOf({ lines: 2 * lines, seconds: 3 * seconds, bytes })).toBe(3);
    expect(excessOf({ lines: 4 * lines, seconds: 3 * seconds, bytes })).toBe(4);
    expect(excessOf({ lines, seconds, bytes: 2 * bytes })).toBe(2);
  });
  it('says what is too much: lines, time, and bytes only where it is those alone', () => {
    const { lines, seconds, bytes } = BOUND_LIMITS;
    const tooLong = 'up to 12 h 00 min of burning (6 h 00 min are the most)';
    expect(excessWords(BOUND_LIMITS)).toBe('');
    expect(excessWords({ lines: 500_000, seconds, bytes: 2 * bytes })).toBe(
      'about 500000 lines of program (250000 are the most)',
    );
    expect(excessWords({ lines, seconds: 2 * seconds, bytes: 2 * bytes })).toBe(tooLong);
    expect(excessWords({ lines: 500_000, seconds: 2 * seconds, bytes })).toBe(
      `about 500000 lines of program (250000 are the most) and ${tooLong}`,
    );
    expect(excessWords({ lines, seconds, bytes: 24_000_000 })).toBe('24 MB of program (12 are the most)');
  });
  prop([
    fc.double({ min: 1, max: 40, noNaN: true }),
    fc.double({ min: 1, max: 40, noNaN: true }),
    fc.double({ min: 20, max: 400, noNaN: true }),
    fc.constantFrom('horizontal' as const, 'vertical' as const),
    fc.constantFrom(0.1, 0.3),
    fc.integer({ min: 1, max: 3 }),
    fc.boolean(),
    fc.boolean(),
  ])(
    'holds whatever is filled, and is not many times too high',
    (widthMm, heightMm, speedMmPerS, direction, intervalMm, passes, slowX, crossHatch) => {
      const [x, y] = slowX ? [500, 6000] : [6000, 500];
      const on = { ...pairing.machine, accelerationXMmPerS2: x, accelerationYMmPerS2: y };
      const fill = { ...settings, speedMmPerS, direction, intervalMm, passes, crossHatch };
      const area = [rectRing({ x: 0, y: 0, width: widthMm, height: heightMm })];
      const { totalS } = estimateCard(layoutOf([cellOf(0, { shape: { do: 'sweep', area }, settings: fill })]), on);
      const { seconds } = boundOfFills(1, { widthMm, heightMm }, fill, on);
      expect(seconds).toBeGreaterThan(totalS);
      // Crossed lines are bounded as if the slower axis took them all.
      if (!crossHatch) expect(seconds).toBeLessThan(8 * totalS + 5);
    },
  );
  prop([
    fc.integer({ min: 1, max: 12 }),
    fc.double({ min: 0.5, max: 20, noNaN: true }),
    fc.double({ min: 1, max: 300, noNaN: true }),
    fc.integer({ min: 1, max: 3 }),
    fc.boolean(),
  ])('holds whatever is followed, near or far', (count, side, speedMmPerS, passes, slowX) => {
    const [x, y] = slowX ? [500, 6000] : [6000, 500];
    const on = { ...pairing.machine, accelerationXMmPerS2: x, accelerationYMmPerS2: y };
    // Every square at the other end of a line from the one before it.
    const reachMm = 150 + side;
    const lines = Array.from({ length: count }, (_, k) =>
      rectOutline({ x: k % 2 === 0 ? 0 : 150, y: 0, width: side, height: side }),
    );
    const follow = { ...settings, speedMmPerS, passes };
    const { totalS } = estimateCard(layoutOf([cellOf(0, { shape: { do: 'follow', lines }, settings: follow })]), on);
    const { seconds } = boundOfLines({ count, lengthMm: 4 * side, corners: 3, reachMm }, follow, on);
    expect(seconds).toBeGreaterThan(totalS);
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
  it('that would cut is refused by name', () => {
    const on = demoPairing('marl', 'linen');
    const own = kerf.propose({ pairing: on, facts: [] }).plan;
    const hot = { ...own, frame: { ...own.frame, lettering: { powerFraction: 0.6, speedMmPerS: 5 } } };
    expect(planProblems(kerf, hot, on).map((problem) => problem.field)).toContain('frame.lettering.powerFraction');
  });
});
