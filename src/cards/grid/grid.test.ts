import { beforeEach, describe, expect, it } from 'vitest';
import { BURNABLE, demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { SHOP } from '../../../scripts/proposals/shop';
import { PlanError } from '../../core/card/contract';
import { estimateCard } from '../../core/card/estimate';
import { UNSAID_SETUP } from '../../core/card/work-setup';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { responseOf } from '../../core/stock/response';
import { fastestUsefulMmPerS } from '../../core/card/useful-speed';
import { sweepLimits } from '../../core/machine/machine';
import { upgradeGridPlan, type GridPlan } from './plan';
import { grid } from '.';
import { listed } from '../../../tests/support/listed';

const pairing = demoPairing('heron', 'birch');
const known = { pairing, facts: [] };
let plan: GridPlan;
beforeEach(() => {
  ({ plan } = grid.propose(known));
});

describe('proposal', () => {
  it('has speeds below a hundred in steps of five', () => {
    const { from, to } = grid.propose({ pairing: demoPairing('heron', 'mdf'), facts: [] }).plan.down;
    expect([from, to].some((speed) => speed < 100 && speed % 10 === 5)).toBe(true);
  });
  it.each(BURNABLE)(
    '%s with %s: under 4 minutes, under 30 cm², sensible ends with reasons',
    (machineName, stockName) => {
      const on = demoPairing(machineName, stockName);
      const { plan: proposed, reasons } = grid.propose({ pairing: on, facts: [] });
      const layout = layCard(grid, proposed, on, { cardNumber: 3 });
      expect(estimateCard(layout, on.machine).totalS).toBeLessThan(240);
      expect((layout.widthMm * layout.heightMm) / 100).toBeLessThan(30);
      expect(proposed.across.to).toBeLessThanOrEqual(on.machine.powerCap);
      expect(proposed.across.from).toBeGreaterThan(on.machine.lowestFiringCommand);
      // Never the machine's whole range.
      expect(proposed.down.from).toBeGreaterThan(1);
      expect(proposed.down.to).toBeLessThan(on.machine.topSpeedXMmPerS);
      // Speeds a hand would set: by fives below a hundred, by tens from there on.
      for (const speed of [proposed.down.from, proposed.down.to]) expect(speed % (speed < 100 ? 5 : 10)).toBe(0);
      for (const field of listed(
        'across.from; across.to; down.from; down.to; constants.intervalMm; constants.air; size',
      )) {
        expect(reasons[field], field).toMatch(/\w{3}/);
      }
      // From about a faint mark to just short of spoiling, and most cells worth burning.
      const response = responseOf(on.stock, on.machine);
      const energies = layout.cells.filter((cell) => !cell.leftOut).map((cell) => cell.risk);
      expect(Math.max(...energies)).toBeLessThan(response.energies.over * 1.15);
      expect(Math.max(...energies)).toBeGreaterThan(response.energies.deep * 0.7);
      expect(Math.min(...energies)).toBeLessThan(response.energies.deep * 0.6);
      expect(layout.cells.filter((cell) => cell.expected === null).length).toBeGreaterThan(layout.cells.length * 0.7);
    },
  );

  it('leaves out what is bound to fail unless told otherwise, and refuses a card of nothing else', () => {
    const { plan } = grid.propose({ pairing, facts: [] });
    expect(plan.leaveOutFailing).toBe(true);
    const hopeless = { ...plan, constants: { ...plan.constants, passes: 20, intervalMm: 0.02 } };
    expect(grid.check(hopeless, pairing).map((problem) => problem.field)).toEqual(['leaveOutFailing']);
    expect(grid.check({ ...hopeless, leaveOutFailing: false }, pairing)).toEqual([]);
  });
  it('stops before anything is planned where the wavelength passes', () => {
    expect(() => grid.propose({ pairing: demoPairing('heron', 'acrylic'), facts: [] })).toThrow(/blue light/);
  });
});

describe('a proposal with a measured floor', () => {
  const floorAt = (powerFraction: number, stale: readonly string[] = []) =>
    grid.propose({ pairing, facts: [factNow('floor', { powerFraction }, { stale: [...stale] })] });
  it('begins there where that is above what it would begin at, and says so', () => {
    expect(plan.across.from).toBe(0.2);
    const { plan: proposed, reasons } = floorAt(0.31);
    expect(proposed.across.from).toBe(0.31);
    expect(reasons['across.from']).toBe('the measured floor: below 31 % nothing marks here');
    expect(proposed.across.to).toBe(plan.across.to);
  });
  it('leaves a lower or a doubtful one alone, and keeps a range under its high end', () => {
    expect(floorAt(0.1).plan.across).toEqual(plan.across);
    expect(floorAt(0.31, ['new batch']).plan.across).toEqual(plan.across);
    // Four fifths of 80 % at the most.
    expect(floorAt(0.79).plan.across.from).toBeCloseTo(0.64, 9);
  });
  it('goes by rows where a row in one sweep saves over a fifth, and only there', () => {
    const ways = new Set<string>();
    for (const on of SHOP.map(({ pairing: shop }) => shop)) {
      const { plan: proposed, reasons } = grid.propose({ pairing: on, facts: [] });
      const timeOf = (sweeps: GridPlan['sweeps']): number => {
        const as = { ...proposed, sweeps };
        if (grid.check(as, on).length > 0) return Infinity;
        return estimateCard(layCard(grid, as, on, { cardNumber: 0 }), on.machine).totalS;
      };
      const saved = 1 - timeOf('rows') / timeOf('cells');
      if (proposed.sweeps === 'rows') expect(saved).toBeGreaterThan(0.19);
      else expect(saved).toBeLessThan(0.21);
      ways.add(proposed.sweeps);
      expect(reasons['sweeps']).toMatch(
        proposed.sweeps === 'rows' ? /^a row in one sweep takes .* instead of/ : /^each cell by itself/,
      );
    }
    expect(ways).toEqual(new Set(['rows', 'cells']));
  });
});

describe('the high end of speed', () => {
  it('is told by what holds it: the mark, the time that run-up takes, or the head', () => {
    const said = new Set<string>();
    for (const on of SHOP.map(({ pairing: shop }) => shop)) {
      const { plan: proposed, reasons } = grid.propose({ pairing: on, facts: [] });
      const top = sweepLimits(on.machine, 'horizontal').topSpeedMmPerS;
      const useful = fastestUsefulMmPerS(on.machine, 'horizontal');
      const why = reasons['down.to']!;
      const kind =
        /^(faster than this, the weakest|the fastest sweep that still pays|the top speed|faster than pays)/.exec(
          why,
        )?.[1];
      said.add(kind!);
      if (kind === 'the top speed') expect(proposed.down.to).toBeGreaterThanOrEqual(0.98 * top);
      if (kind === 'the fastest sweep that still pays') expect(proposed.down.to / useful).toBeCloseTo(1, 1);
      if (kind === 'faster than this, the weakest') expect(proposed.down.to).toBeLessThan(1.02 * Math.min(useful, top));
    }
    expect(said.size).toBeGreaterThanOrEqual(2);
    expect(said.has(undefined as never)).toBe(false);
  });
});

describe('the high end of power', () => {
  const withWatts = (ratedPowerW: number) => {
    const on = { ...pairing, machine: { ...pairing.machine, ratedPowerW, powerTable: null } };
    return grid.propose({ pairing: on, facts: [] });
  };
  it('is the cap, or clearly less: a hair below the cap is the cap', () => {
    const cap = pairing.machine.powerCap;
    const ends = Array.from({ length: 60 }, (_, step) => withWatts(10 + step));
    const below = ends.filter(({ plan: { across } }) => across.to < cap);
    expect(below.length).toBeGreaterThan(10);
    expect(ends.length - below.length).toBeGreaterThan(10);
    for (const {
      plan: { across },
      reasons,
    } of below) {
      // Powers are told in steps of half a per cent.
      expect(across.to).toBeLessThanOrEqual(cap - 0.02 + 0.0025);
      expect(reasons['across.to']).toMatch(/^not the machine’s 80 %/);
    }
    // It goes down step by step from there, with no gap after the cap.
    expect(Math.max(...below.map(({ plan: { across } }) => across.to))).toBeGreaterThan(cap - 0.04);
  });
  it('stays four steps of half a per cent above the low end, however strong the source', () => {
    const { across } = withWatts(410).plan;
    expect(across.to - across.from).toBeGreaterThanOrEqual(0.02 - 1e-9);
  });
});

describe('plans that cannot be laid say why, field by field', () => {
  const bad: [string, () => Partial<GridPlan>, string][] = [
    ['zero', () => ({ cellMm: 0 }), 'cellMm'],
    ['negative', () => ({ gapMm: -1 }), 'gapMm'],
    ['a thousand million cells', () => ({ across: { ...plan.across, count: 1e9 } }), 'across.count'],
    ['power above the cap', () => ({ across: { ...plan.across, to: 0.95 } }), 'across.to'],
    ['faster than the head', () => ({ down: { ...plan.down, to: 9999 } }), 'down.to'],
    ['no pass', () => ({ constants: { ...plan.constants, passes: 0 } }), 'constants.passes'],
  ];
  it.each(bad)('%s', (_name, change, field) => {
    try {
      layCard(grid, { ...plan, ...change() }, pairing, { cardNumber: 1 });
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(PlanError);
      expect((error as PlanError).problems.map((problem) => problem.field)).toContain(field);
    }
  });
});

describe('layout', () => {
  let layout: Layout;
  beforeEach(() => {
    layout = layCard(grid, plan, pairing, { cardNumber: 7 });
  });
  it('writes power over the columns and speed beside the rows', () => {
    const axis = layout.frame.lettering.filter((line) => line.role === 'axis').map((line) => line.text);
    expect(axis[0]).toBe('20 %');
    // The operator of this machine likes mm/min: 60 times mm/s.
    expect(axis[2]).toBe(`${plan.down.to * 60} mm/min`);
    expect(axis[3]).toBe(`${plan.down.from * 60} mm/min`);
    const full = { ...plan, frame: { ...plan.frame, words: 'full' as const } };
    const all = layCard(grid, full, pairing, { cardNumber: 7 }).frame.lettering.filter((line) => line.role === 'axis');
    expect(all[plan.across.count]!.text).toBe(`${plan.down.to * 60} mm/min`);
  });
  it('leaves out cells bound to fail on request, and only those', () => {
    const wide: GridPlan = { ...plan, across: { ...plan.across, from: 0.03 }, leaveOutFailing: true };
    const cut = layCard(grid, wide, pairing, { cardNumber: 7 });
    const failing = cut.cells.filter((cell) => cell.expected !== null);
    expect(failing.length).toBeGreaterThan(0);
    expect(cut.cells.filter((cell) => cell.leftOut)).toEqual(failing);
    expect(cut.order).toHaveLength(cut.cells.length - failing.length);
  });
  it('lays 400 cells', () => {
    const full = { ...plan, cellMm: 2, across: { ...plan.across, count: 20 }, down: { ...plan.down, count: 20 } };
    expect(layCard(grid, full, pairing, { cardNumber: 7 }).cells).toHaveLength(400);
  });
});

describe('a second grid', () => {
  const engraved = () => ({
    factId: 1,
    version: 1,
    name: 'engrave' as const,
    at: {},
    origin: 'card' as const,
    createdAt: '2026-01-01',
    stale: [],
    sigma: 0.5,
    value: {
      settings: { ...plan.constants, powerFraction: 0.42, speedMmPerS: 77, intervalMm: 0.13 },
      lightness: 50,
      lightnessSigma: 0.5,
      confidence: 0.99,
    },
  });
  it('starts from what the first one found, with it among its cells, and says so', () => {
    const second = grid.propose({ pairing, facts: [engraved()] });
    const { across: power, down: speed, constants } = second.plan;
    expect(power.from).toBeLessThan(0.42);
    expect(power.to).toBeGreaterThan(0.42);
    expect(speed.from).toBeLessThan(77);
    expect(speed.to).toBeGreaterThan(77);
    expect(power.to / power.from).toBeLessThan(plan.across.to / plan.across.from);
    expect(constants.intervalMm).toBe(0.13);
    expect(second.reasons['across.from']).toMatch(/kept/);
    // No faster than the head, however fast the kept setting is.
    const fast = engraved();
    const { machine } = pairing;
    const top = sweepLimits(machine, constants.direction).topSpeedMmPerS;
    fast.value.settings = { ...fast.value.settings, speedMmPerS: 0.9 * top };
    expect(grid.propose({ pairing, facts: [fast] }).plan.down.to).toBe(top);
  });
});

describe('a plan of the first version', () => {
  it('is brought up, with the words it lacked', () => {
    const { cellMm, gapMm, leaveOutFailing, frame, constants } = plan;
    const {
      runUpMm: _r,
      scanOffsetMm: _s,
      lengthenMm: _l,
      lineAngleDeg: _a,
      crossHatch: _h,
      frequencyKHz: _f,
      powerFraction: _p,
      speedMmPerS: _v,
      ...older
    } = constants;
    const [{ channel: _power, ...power }, { channel: _speed, ...speed }] = [plan.across, plan.down];
    const rest = { power, speed, cellMm, gapMm, leaveOutFailing };
    const first = { ...rest, constants: older, markerSettings: frame.marker, letteringSettings: frame.lettering };
    const upgraded = {
      ...plan,
      constants: {
        ...older,
        runUpMm: null,
        scanOffsetMm: 0,
        lengthenMm: 0,
        lineAngleDeg: 0,
        crossHatch: false,
        frequencyKHz: null,
        powerFraction: Math.sqrt(power.from * power.to),
        speedMmPerS: Math.sqrt(speed.from * speed.to),
      },
      frame: { ...frame, words: 'full' },
      setup: UNSAID_SETUP,
      sweeps: 'cells',
    };
    expect(upgradeGridPlan(first)).toEqual(upgraded);
    const { words: _words, ...second } = frame;
    expect(upgradeGridPlan({ ...rest, version: 2, constants: older, frame: second })).toEqual(upgraded);
    expect(() => upgradeGridPlan({ version: 99 })).toThrow(RangeError);
  });
});

describe('rows in one sweep', () => {
  it('are refused for lines that are turned or crossed, or run across them', () => {
    const marl = demoPairing('marl', 'alder');
    const proposed = grid.propose({ pairing: marl, facts: [] }).plan;
    const fields = (constants: object): string[] =>
      grid
        .check(
          { ...proposed, sweeps: 'rows', constants: { ...proposed.constants, direction: 'horizontal', ...constants } },
          marl,
        )
        .map(({ field }) => field);
    expect(fields({})).toEqual([]);
    for (const turned of [{ lineAngleDeg: 10 }, { crossHatch: true }, { direction: 'vertical' }])
      expect(fields(turned), JSON.stringify(turned)).toContain('sweeps');
  });
  it('are refused in words: mirrors have nothing to save, other heads only lines along X', () => {
    const words = (
      on: ReturnType<typeof demoPairing>,
      direction: 'horizontal' | 'vertical',
      sweeps: 'rows' | 'cells',
    ) => {
      const { plan } = grid.propose({ pairing: on, facts: [] });
      return grid
        .check({ ...plan, sweeps, constants: { ...plan.constants, direction } }, on)
        .filter(({ field }) => field === 'sweeps')
        .map(({ message }) => message);
    };
    const [tern, marl] = [demoPairing('tern', 'twoLayer'), demoPairing('marl', 'alder')];
    expect(words(tern, 'horizontal', 'rows')).toEqual([
      'Mirrors jump from cell to cell at no cost: nothing is saved by crossing a row in one sweep.',
    ]);
    expect(words(marl, 'vertical', 'rows')).toEqual([
      'A row is crossed in one sweep only by lines along X. Let lines run along X, or fill cell by cell.',
    ]);
    expect(words(tern, 'horizontal', 'cells')).toEqual([]);
  });
  it('name the axis that is wrong', () => {
    const { plan } = grid.propose({ pairing: demoPairing('marl', 'alder'), facts: [] });
    const swapped = {
      ...plan,
      across: { ...plan.across, from: 0.9, to: 0.1 },
      down: { ...plan.down, from: 90, to: 10 },
    };
    expect(grid.check(swapped, demoPairing('marl', 'alder')).map(({ message }) => message)).toEqual([
      'Power: the low end must be below the high end. Swap them.',
      'Speed: the low end must be below the high end. Swap them.',
    ]);
  });
});
