import { describe, expect, it } from 'vitest';
import { grid } from '../../cards/grid';
import type { GridPlan } from '../../cards/grid/plan';
import { demoPairing } from '../../../tests/support/demo';
import { runUpMm } from '../motion/move';
import { estimateCard } from './estimate';
import { MARKER_MODULES, markerModules } from './markers';
import { cardPath, type Sweep } from './path';

const pairing = demoPairing('marl', 'mdf');
const { machine } = pairing;
const proposed = grid.propose({ pairing }).plan;
const plan: GridPlan = {
  ...proposed,
  cellMm: 4,
  power: { from: 0.2, to: 0.4, count: 2, spacing: 'even' },
  speed: { from: 100, to: 200, count: 2, spacing: 'even' },
  constants: { ...proposed.constants, intervalMm: 0.1, passes: 1, bothWays: true, direction: 'horizontal' },
};
const lay = (change: Partial<GridPlan['constants']> = {}) =>
  grid.lay({ ...plan, constants: { ...plan.constants, ...change } }, pairing, { cardNumber: 9 });
const sweepsOfCell = (layout: ReturnType<typeof lay>, index: number): Sweep[] => {
  const found: Sweep[] = [];
  let now: number | null = null;
  for (const step of cardPath(layout, machine)) {
    if (step.step === 'part') now = step.cellIndex;
    else if (step.step === 'sweep' && now === index) found.push(step);
  }
  return found;
};

describe('the path over a cell', () => {
  const layout = lay();
  const sweeps = sweepsOfCell(layout, 0);
  const cell = layout.cells[0]!;
  it('is one line for each interval, centred, to and fro, with run-up for its speed', () => {
    expect(sweeps).toHaveLength(40);
    expect(sweeps[0]!.from.y - cell.y).toBeCloseTo(cell.y + cell.height - sweeps.at(-1)!.from.y, 9);
    sweeps.slice(1).forEach((sweep, index) => {
      expect(sweep.from.y - sweeps[index]!.from.y).toBeCloseTo(0.1, 9);
      expect(Math.sign(sweep.to.x - sweep.from.x)).toBe(-Math.sign(sweeps[index]!.to.x - sweeps[index]!.from.x));
    });
    for (const sweep of sweeps) expect(sweep.runUpMm).toBeCloseTo(runUpMm(200, machine.accelerationXMmPerS2), 9);
  });
  it('goes one way only when asked, down the card when asked, and again for each pass', () => {
    for (const sweep of sweepsOfCell(lay({ bothWays: false }), 0)) expect(sweep.to.x).toBeGreaterThan(sweep.from.x);
    for (const sweep of sweepsOfCell(lay({ direction: 'vertical' }), 0))
      expect(sweep.to.x).toBeCloseTo(sweep.from.x, 9);
    expect(sweepsOfCell(lay({ passes: 3 }), 0)).toHaveLength(120);
  });
});

describe('the path over a marker', () => {
  it('lights each row’s burned modules and nothing else', () => {
    const layout = lay();
    const marker = layout.markers[2]!;
    const module = marker.sizeMm / MARKER_MODULES;
    const modules = markerModules(marker.id);
    const sweeps: Sweep[] = [];
    let inside = false;
    for (const step of cardPath(layout, machine)) {
      if (step.step === 'part') inside = step.name === `marker ${marker.corner}`;
      else if (step.step === 'sweep' && inside) sweeps.push(step);
    }
    for (const sweep of sweeps) {
      const row = Math.min(MARKER_MODULES - 1, Math.floor((sweep.from.y - marker.y) / module));
      const wanted = modules.slice(row * MARKER_MODULES, (row + 1) * MARKER_MODULES).filter(Boolean).length * module;
      expect(sweep.lit.reduce((sum, { fromMm, toMm }) => sum + toMm - fromMm, 0)).toBeCloseTo(wanted, 9);
      const back = sweep.to.x < sweep.from.x;
      for (const { fromMm, toMm } of sweep.lit) {
        const middle = back ? marker.sizeMm - (fromMm + toMm) / 2 : (fromMm + toMm) / 2;
        expect(modules[row * MARKER_MODULES + Math.floor(middle / module)]).toBe(true);
      }
    }
  });
});

describe('the estimate', () => {
  const layout = lay();
  const estimate = estimateCard(layout, machine);
  it('sums its parts, and counts cells that are left out as nothing', () => {
    expect(estimate.totalS).toBeCloseTo(
      estimate.markersAndLetteringS + estimate.cellsS.reduce((sum, s) => sum + s, 0),
      9,
    );
    const cut = grid.lay({ ...plan, power: { ...plan.power, from: 0.02 }, leaveOutFailing: true }, pairing, {
      cardNumber: 9,
    });
    cut.cells
      .filter((cell) => cell.leftOut)
      .forEach((cell) => expect(estimateCard(cut, machine).cellsS[cell.index]).toBe(0));
  });
  it('is for a cell what its lines, ramps and steps take', () => {
    // By hand: 40 lines of 4 mm at 200 mm/s, ramps 2 v/a outside the mark, 39 steps of 0.1 mm from rest to rest.
    const a = machine.accelerationXMmPerS2;
    const lines = 40 * (4 / 200 + (2 * 200) / a);
    const steps = 39 * 2 * Math.sqrt(0.1 / machine.accelerationYMmPerS2);
    const fast = layout.cells.find((cell) => cell.settings.speedMmPerS === 200)!;
    // Travel to the cell comes on top: at most a card's diagonal.
    expect(estimate.cellsS[fast.index]! - lines - steps).toBeGreaterThan(0);
    expect(estimate.cellsS[fast.index]! - lines - steps).toBeLessThan(0.4);
  });
  it('doubles the passes and takes longer one way, as the trade has it: both ways about halves a fill', () => {
    const cells = (change: Partial<GridPlan['constants']>): number =>
      estimateCard(lay(change), machine).cellsS.reduce((sum, s) => sum + s, 0);
    expect(cells({ passes: 2 }) / cells({})).toBeCloseTo(2, 1);
    expect(cells({ bothWays: false }) / cells({})).toBeGreaterThan(1.4);
    expect(cells({ bothWays: false }) / cells({})).toBeLessThan(2.1);
  });
});
