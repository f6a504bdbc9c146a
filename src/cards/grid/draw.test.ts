import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { drawGrid } from './draw';
import { grid } from '.';
import type { GridPlan } from './plan';

const pairing = demoPairing('marl', 'alder');
const proposed = grid.propose({ pairing, facts: [] }).plan;
const plan: GridPlan = {
  ...proposed,
  across: { channel: 'power', from: 0.1, to: 0.4, count: 3, spacing: 'ratio' },
  down: { channel: 'speed', from: 100, to: 400, count: 4, spacing: 'even' },
  cellMm: 4,
  gapMm: 1.5,
  leaveOutFailing: false,
  sweeps: 'cells',
};
const drawnNow = () => drawGrid(plan, pairing);

describe('the drawing of a grid', () => {
  it('has power along the columns and the fastest row at the top', () => {
    const drawn = drawnNow();
    expect(drawn.cells.map(({ levels }) => levels)).toEqual(
      [400, 300, 200, 100].flatMap((speed) => [0.1, 0.2, 0.4].map((power) => ({ power, speed }))),
    );
    const last = drawn.cells.at(-1)!;
    expect(last.box).toEqual({ x: 11, y: 16.5, width: 4, height: 4 });
    expect(last.burns[0]!.settings).toMatchObject({ ...plan.constants, powerFraction: 0.4, speedMmPerS: 100 });
    expect([drawn.widthMm, drawn.heightMm]).toEqual([15, 20.5]);
  });
  it('is risky by the energy that a cell takes: J/mm² by hand', () => {
    const drawn = drawnNow();
    // 40 % of Marl are 24 W: at 100 mm/s on lines of the plan's interval.
    expect(drawn.cells.at(-1)!.risk).toBeCloseTo(24 / 100 / plan.constants.intervalMm, 6);
    const risks = drawn.cells.map(({ risk }) => risk);
    expect(Math.max(...risks)).toBe(risks.at(-1));
    expect(Math.min(...risks)).toBe(risks[0]);
  });
  it('is lettered by the numbers alone, what they mean in its caption', () => {
    const drawn = drawnNow();
    expect(drawn.labels.map(({ text, means, edge }) => [text, means, edge])).toEqual([
      ['10', '10 %', 'above'],
      ['20', '20 %', 'above'],
      ['40', '40 %', 'above'],
      ['400', '400 mm/s', 'beside'],
      ['300', '300 mm/s', 'beside'],
      ['200', '200 mm/s', 'beside'],
      ['100', '100 mm/s', 'beside'],
    ]);
    expect(drawn.labels[1]!.box).toMatchObject({ x: 5.5, y: 0 });
    expect(drawn.labels[4]!.box).toMatchObject({ x: 0, y: 5.5 });
    expect(drawn).toMatchObject({ units: '% / MM/S', caption: 'POWER % ACROSS / SPEED MM/S DOWN', markers: 'four' });
  });
  it('crosses its rows at once where the plan says so', () => {
    const drawn = drawnNow();
    expect(drawn.rows).toBeUndefined();
    expect(drawGrid({ ...plan, sweeps: 'rows' }, pairing).rows).toEqual([
      [0, 1, 2],
      [3, 4, 5],
      [6, 7, 8],
      [9, 10, 11],
    ]);
  });
  it('leaves out what is bound to fail only where that is asked for', () => {
    const hot = { ...plan, across: { ...plan.across, to: 0.9 }, down: { ...plan.down, from: 1 } };
    const fates = (leaveOutFailing: boolean) => drawGrid({ ...hot, leaveOutFailing }, pairing).cells;
    expect(fates(false).some(({ expected }) => expected === 'overburn')).toBe(true);
    expect(fates(false).some(({ leftOut }) => leftOut)).toBe(false);
    for (const { expected, leftOut } of fates(true)) expect(leftOut).toBe(expected !== null);
  });
});
