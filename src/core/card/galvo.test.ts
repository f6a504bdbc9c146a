import { describe, expect, it } from 'vitest';
import { SHOP } from '../../../scripts/proposals/shop';
import { demoPairing } from '../../../stand-ins/demo';
import { gridOfFew } from '../../../tests/support/few-cells';
import { grid } from '../../cards/grid';
import type { GridPlan } from '../../cards/grid/plan';
import { programOfCard } from '../../formats/gcode';
import { USUAL_GALVO, type Machine } from '../machine/machine';
import { deliveredBy } from './energy';
import { estimateCard } from './estimate';
import { boundOfPlan, layCard, planProblems } from './lay';
import { mainBurn } from './layout';
import { cardPath, fillRegion, frameBurns } from './path';
import { constantFields } from './plan-fields';

const pairing = demoPairing('tern', 'twoLayer');
const { machine } = pairing;
const few = gridOfFew(pairing, 4, 4);
const planned = (constants: Partial<GridPlan['constants']>): GridPlan => ({
  ...few,
  constants: { ...few.constants, ...constants },
});
const lay = (constants: Partial<GridPlan['constants']> = {}) =>
  layCard(grid, planned(constants), pairing, { cardNumber: 3 });

describe('a galvo head', () => {
  it('has no run-up, in time or in the file', () => {
    for (const step of cardPath(lay({ runUpMm: 5 }), machine))
      if (step.step === 'sweep' || step.step === 'stroke') expect(step.runUpMm).toBe(0);
    // Markers have gaps along their lines; cells have none.
    const cells = { ...lay(), frame: { ...lay().frame, markers: [], lettering: [] } };
    const { text } = programOfCard(cells, machine, { leftMm: 60, rearMm: 60 });
    const moves = text.split('\n').filter((line) => line.startsWith('G1'));
    expect(moves.length).toBeGreaterThan(100);
    expect(moves.filter((line) => line.endsWith(' S0'))).toEqual([]);
    expect(constantFields(machine, 'constants').map(({ path }) => path)).not.toContain('constants.runUpMm');
    const gantry = demoPairing('marl', 'twoLayer').machine;
    expect(constantFields(gantry, 'constants').map(({ path }) => path)).toContain('constants.runUpMm');
  });
  it('takes for a cell its lines, their delays and its jumps, by hand', () => {
    const layout = lay({ passes: 1, bothWays: true });
    const { jumpSpeedMmPerS, jumpDelayS, markDelayS } = machine.galvo!;
    const cell = layout.cells[0]!;
    const { settings } = mainBurn(cell);
    const lines = Math.floor(cell.box.height / settings.intervalMm + 1e-9);
    const marks = lines * (cell.box.width / settings.speedMmPerS + markDelayS);
    const steps = (lines - 1) * (settings.intervalMm / jumpSpeedMmPerS + jumpDelayS);
    const took = estimateCard(layout, machine).cellsS[0]!;
    // The jump to the cell comes on top: at most a card's diagonal.
    expect(took - marks - steps).toBeGreaterThan(0);
    expect(took - marks - steps).toBeLessThan(80 / jumpSpeedMmPerS + jumpDelayS);
  });
  it('doubles energy and lines where they are crossed, and its bound covers them at any angle', () => {
    const plain = mainBurn(lay().cells[0]!).settings;
    const crossed = { ...plain, crossHatch: true };
    expect(deliveredBy(crossed, pairing).arealJPerMm2).toBeCloseTo(2 * deliveredBy(plain, pairing).arealJPerMm2, 12);
    for (const constants of [{ crossHatch: true }, { lineAngleDeg: 37 }, { crossHatch: true, lineAngleDeg: 45 }]) {
      const plan = planned(constants);
      expect(planProblems(grid, plan, pairing)).toEqual([]);
      const layout = layCard(grid, plan, pairing, { cardNumber: 3 });
      const bound = boundOfPlan(grid, plan, pairing);
      expect(programOfCard(layout, machine, { leftMm: 60, rearMm: 60 }).lines).toBeLessThanOrEqual(bound.lines);
      expect(estimateCard(layout, machine).totalS).toBeLessThanOrEqual(bound.seconds);
    }
  });
  it('burns markers one way, so that a late beam shifts all their lines alike', () => {
    const markers = (on: Machine) => frameBurns(lay(), on).filter(({ name }) => name.startsWith('marker'));
    const senses = (on: Machine): number[] => {
      const sweeps = markers(on).flatMap(({ burn: { shape, settings } }) => [
        ...fillRegion(shape.do === 'sweep' ? shape.area : [], settings, 0),
      ]);
      return [...new Set(sweeps.map(({ from, to }) => Math.sign(to.x - from.x)))].sort((a, b) => a - b);
    };
    expect(senses(machine)).toEqual([1]);
    expect(senses({ ...machine, head: 'gantry', galvo: null })).toEqual([-1, 1]);
  });
  it('alone turns and crosses lines, and pulses within its source’s range', () => {
    const gantry = demoPairing('marl', 'twoLayer');
    const fields = (on: typeof pairing, constants: Partial<GridPlan['constants']>): string[] => {
      const { plan } = grid.propose({ pairing: on, facts: [] });
      return planProblems(grid, { ...plan, constants: { ...plan.constants, ...constants } }, on).map(
        ({ field }) => field,
      );
    };
    expect(fields(gantry, { crossHatch: true })).toContain('constants.lineAngleDeg');
    expect(fields(gantry, { frequencyKHz: 40 })).toEqual(['constants.frequencyKHz']);
    expect(fields(pairing, { frequencyKHz: 40 })).toEqual([]);
    expect(fields(pairing, { frequencyKHz: 200 })).toEqual(['constants.frequencyKHz']);
    const text = programOfCard(lay({ frequencyKHz: 40 }), machine, { leftMm: 60, rearMm: 60 }).text;
    expect(text.match(/frequency 40 kHz/g)).toHaveLength(1);
    expect(USUAL_GALVO.frequencyKHz).not.toBeNull();
  });
});

describe('the frame', () => {
  const frameS = (on: (typeof SHOP)[number]['pairing']): number =>
    estimateCard(layCard(grid, grid.propose({ pairing: on, facts: [] }).plan, on, { cardNumber: 77 }), on.machine)
      .frameS;
  it('takes at most ten seconds on quick heads whose power is not the limit, and far less than the cells anywhere', () => {
    const quick = SHOP.filter(({ name }) => /(40 W blue|60 W|100 W).*quick|galvo/.test(name));
    expect(quick.length).toBeGreaterThan(5);
    for (const { name, pairing: on } of quick) expect(frameS(on), name).toBeLessThan(10);
    for (const { name, pairing: on } of SHOP) expect(frameS(on), name).toBeLessThan(20);
    expect(frameS(demoPairing('marl', 'alder'))).toBeLessThan(10);
    expect(frameS(demoPairing('heron', 'birch'))).toBeLessThan(10);
  });
});
