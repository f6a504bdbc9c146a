import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { valueAt, withValueAt } from '../../core/card/plan-fields';
import { layCard, planProblems } from '../../core/card/lay';
import { sweepLimits } from '../../core/machine/machine';
import { grid } from '.';
import { axisAround, channelsOn, fieldOf, GRID_CHANNELS, levelsOf, type GridAxis, type GridChannel } from './axes';
import { followGrid } from './follow';
import type { GridPlan } from './plan';

const pairing = demoPairing('heron', 'birch');
let proposed: GridPlan;
let plan: GridPlan;
beforeEach(() => {
  proposed = grid.propose({ pairing, facts: [] }).plan;
  plan = { ...proposed, leaveOutFailing: false };
});
const tern = demoPairing('tern', 'twoLayer');
const fieldsOf = (change: Partial<GridPlan>, on = pairing): string[] =>
  grid.check({ ...plan, ...change }, on).map(({ field }) => field);

/** The planner's way of taking another channel along an edge. */
const choose = (from: GridPlan, path: 'across.channel' | 'down.channel', channel: GridChannel, on = pairing) =>
  followGrid(withValueAt(from, path, channel), path, from, on);

describe('a grid of any two settings', () => {
  it.each(GRID_CHANNELS.map((channel) => [channel]))(
    'burns %s along its columns, each cell with its own level and all else the same',
    (channel) => {
      const on = channel === 'frequency' ? tern : pairing;
      const from = { ...grid.propose({ pairing: on, facts: [] }).plan, leaveOutFailing: false };
      const changed = channel === 'power' ? from : choose(from, 'across.channel', channel, on);
      expect(planProblems(grid, changed, on)).toEqual([]);
      const { cells } = layCard(grid, changed, on, { cardNumber: 1 });
      const field = fieldOf({ channel });
      const own = new Set(cells.map((cell) => cell.burns[0]!.settings[field]));
      expect(own.size).toBe(changed.across.count);
      for (const cell of cells) {
        const { settings } = cell.burns[0]!;
        const level = cell.levels[channel]!;
        expect(settings[field]).toBe(channel === 'air' ? ['off', 'low', 'on'][Number(level)] : level);
        const varied = [field, fieldOf(changed.down)];
        for (const [name, value] of Object.entries(settings))
          if (!varied.includes(name as never))
            expect(value, name).toBe(changed.constants[name as keyof typeof settings]);
      }
    },
  );

  it('changes places with the other edge where that varies the same, and starts around the constants where not', () => {
    const swapped = choose(plan, 'across.channel', 'speed');
    expect([swapped.across, swapped.down]).toEqual([plan.down, plan.across]);
    const focus = choose(plan, 'down.channel', 'focus').down;
    expect([focus.from, focus.to, focus.spacing]).toEqual([
      plan.constants.focusOffsetMm - 2,
      plan.constants.focusOffsetMm + 2,
      'even',
    ]);
    const raised = axisAround('focus', { ...plan.constants, focusOffsetMm: 1.5 }, pairing.machine);
    expect([raised.from, raised.to]).toEqual([-0.5, 3.5]);
    const interval = choose(plan, 'down.channel', 'interval').down;
    expect(Math.sqrt(interval.from * interval.to)).toBeCloseTo(plan.constants.intervalMm, 2);
    for (const channel of ['power', 'speed'] as const) {
      const axis = axisAround(channel, plan.constants, pairing.machine);
      const middle = plan.constants[fieldOf({ channel })] as number;
      expect(axis.from).toBeLessThan(middle);
      expect(axis.to).toBeGreaterThan(middle);
    }
    const strong = axisAround('power', { ...plan.constants, powerFraction: 0.9 }, pairing.machine);
    expect(strong.to).toBe(pairing.machine.powerCap);
    const fast = axisAround('speed', { ...plan.constants, speedMmPerS: 1e5 }, pairing.machine);
    expect(fast.to).toBe(sweepLimits(pairing.machine, plan.constants.direction).topSpeedMmPerS);
    expect(fast.from).toBeLessThan(fast.to);
  });

  it('is filled cell by cell again where its rows can no longer be crossed at once, and so refused otherwise', () => {
    const rows: GridPlan = {
      ...grid.propose({ pairing: demoPairing('marl', 'alder'), facts: [] }).plan,
      sweeps: 'rows',
    };
    const marl = demoPairing('marl', 'alder');
    expect(followGrid({ ...rows, placing: 'scattered' }, 'placing', rows, marl).sweeps).toBe('cells');
    expect(choose(rows, 'across.channel', 'speed', marl).sweeps).toBe('cells');
    expect(choose(rows, 'down.channel', 'interval', marl).sweeps).toBe('rows');
    const horizontal = { ...rows, constants: { ...rows.constants, direction: 'horizontal' as const } };
    const fields = (change: Partial<GridPlan>) =>
      grid.check({ ...horizontal, ...change }, marl).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    expect(fields({ placing: 'scattered' })).toEqual(['sweeps']);
    expect(fields({ across: horizontal.down, down: horizontal.across })).toEqual(['sweeps']);
  });

  it('is refused, by field, where an edge cannot be burned', () => {
    const with_ = (across: GridAxis) => fieldsOf({ across });
    const passes: GridAxis = { channel: 'passes', from: 1, to: 3, count: 3, spacing: 'even' };
    expect(with_(passes)).toEqual([]);
    // There are no two and a half passes.
    expect(with_({ ...passes, count: 4 })).toEqual(['across.count']);
    expect(with_({ ...passes, to: 30 })).toEqual(['across.to']);
    expect(with_({ channel: 'interval', from: 0.001, to: 0.2, count: 4, spacing: 'even' })).toEqual(['across.from']);
    expect(with_({ channel: 'focus', from: -30, to: 2, count: 5, spacing: 'even' })).toEqual(['across.from']);
    expect(with_({ ...plan.across, to: 1 })).toEqual(['across.to']);
    expect(with_({ channel: 'frequency', from: 20, to: 60, count: 3, spacing: 'even' })).toEqual(['across.channel']);
    expect(fieldsOf({ down: plan.across })).toEqual(['down.channel']);
    expect(fieldsOf({ repeats: 0 })).toEqual(['repeats']);
    expect(fieldsOf({ repeats: 1.5 })).toEqual(['repeats']);
    expect(fieldsOf({ constants: { ...plan.constants, passes: 99 } })).toEqual(['constants.passes']);
    // What an edge varies is not taken from the constants, whatever stands there.
    expect(fieldsOf({ constants: { ...plan.constants, powerFraction: 7 } })).toEqual([]);
  });

  it('knows what a machine can vary', () => {
    expect(channelsOn(pairing.machine)).not.toContain('frequency');
    expect(channelsOn({ ...pairing.machine, airAssist: 'none' })).not.toContain('air');
    expect(channelsOn(tern.machine)).toContain('frequency');
    const air = axisAround('air', plan.constants, { ...pairing.machine, airAssist: 'on-off' });
    const { least, most } = tern.machine.galvo!.frequencyKHz!;
    expect(axisAround('frequency', plan.constants, tern.machine)).toMatchObject({ from: least, to: most, count: 5 });
    // A machine that says nothing of its pulses, and one without mirrors.
    const even = { ...tern.machine, galvo: { ...tern.machine.galvo!, frequencyKHz: null } };
    for (const machine of [even, pairing.machine])
      expect(axisAround('frequency', plan.constants, machine)).toMatchObject({ from: 20, to: 80 });
    expect(levelsOf(air)).toEqual([0, 2]);
    expect(levelsOf(axisAround('air', plan.constants, { ...pairing.machine, airAssist: 'adjustable' }))).toEqual([
      0, 1, 2,
    ]);
    const onOff = { ...pairing, machine: { ...pairing.machine, airAssist: 'on-off' as const } };
    expect(fieldsOf({ across: { channel: 'air', from: 0, to: 1, count: 2, spacing: 'even' } }, onOff)).toEqual([
      'across.to',
    ]);
  });

  it('burns each pair as often as it is repeated: in blocks with lettering, or scattered without', () => {
    const twice: GridPlan = { ...plan, repeats: 2, sweeps: 'cells' };
    const [one, blocks, mixed] = [
      { ...plan, sweeps: 'cells' as const },
      twice,
      { ...twice, placing: 'scattered' as const },
    ].map((each) => grid.draw(each, pairing));
    expect(blocks!.cells).toHaveLength(2 * one!.cells.length);
    expect(mixed!.cells.map(({ levels }) => levels)).toEqual(blocks!.cells.map(({ levels }) => levels));
    expect(blocks!.labels.filter(({ edge }) => edge === 'beside')).toHaveLength(2 * plan.down.count);
    expect(mixed!.labels).toEqual([]);
    expect(mixed!.caption).toBe('POWER % / SPEED MM/MIN SCATTERED');
    const places = (cells: readonly { box: { x: number; y: number } }[]) =>
      cells.map(({ box }) => `${box.x} ${box.y}`).sort();
    expect(places(mixed!.cells)).toEqual(places(blocks!.cells));
    expect(new Set(places(mixed!.cells)).size).toBe(mixed!.cells.length);
    expect(mixed!.cells.map(({ box }) => box)).not.toEqual(blocks!.cells.map(({ box }) => box));
    const height = plan.down.count * (plan.cellMm + plan.gapMm);
    expect(blocks!.cells[1]!.box.y - blocks!.cells[0]!.box.y).toBeCloseTo(height, 9);
    // Twice the cells are twice the work.
    expect(grid.bound(twice, pairing).lines).toBe(2 * grid.bound({ ...plan, sweeps: 'cells' }, pairing).lines);
  });

  it('crosses the rows of every repeat at once, each with the cells that lie in it', () => {
    const marl = demoPairing('marl', 'alder');
    const rows = grid.draw(
      { ...plan, repeats: 2, sweeps: 'rows', constants: { ...plan.constants, direction: 'horizontal' } },
      marl,
    );
    expect(rows.rows).toHaveLength(2 * plan.down.count);
    for (const row of rows.rows!) {
      const own = row.map((index) => rows.cells[index]!);
      expect(new Set(own.map(({ box }) => box.y)).size).toBe(1);
      expect(own.map(({ box }) => box.x)).toEqual(own.map(({ box }) => box.x).sort((a, b) => a - b));
      expect(new Set(own.map(({ levels }) => levels.speed)).size).toBe(1);
    }
  });

  it('asks for no constant that an edge varies', () => {
    const paths = (of: GridPlan) => grid.fields(of, pairing).map(({ path }) => path);
    expect(paths(plan)).not.toContain('constants.powerFraction');
    expect(paths(plan)).toContain('constants.intervalMm');
    const changed = choose(plan, 'down.channel', 'interval');
    expect(paths(changed)).toContain('constants.speedMmPerS');
    expect(paths(changed)).not.toContain('constants.intervalMm');
    expect(grid.edges(changed).map(({ channel, path }) => [channel, valueAt(changed, path)])).toEqual([
      ['power', changed.across],
      ['interval', changed.down],
    ]);
    expect(grid.draw(changed, pairing).constants).not.toMatch(/INT/);
    expect(grid.draw(plan, pairing).constants).toMatch(/INT/);
  });

  it('letters its edges in the channel’s own words', () => {
    const air = choose(plan, 'across.channel', 'air');
    const drawn = grid.draw(air, pairing);
    expect(drawn.labels.filter(({ edge }) => edge === 'above').map(({ text, means }) => [text, means])).toEqual(
      levelsOf(air.across).map((level) => [['OFF', 'LOW', 'ON'][level], `air ${['off', 'low', 'on'][level]}`]),
    );
    expect(drawn.caption).toBe('AIR ACROSS / SPEED MM/MIN DOWN');
    expect(drawn.units).toBe('AIR / MM/MIN');
    expect(grid.draw(choose(plan, 'across.channel', 'passes'), pairing).caption).toBe(
      'PASSES ACROSS / SPEED MM/MIN DOWN',
    );
  });
});
