import { checkAxis, within } from '../../core/card/axis';
import { checkConstants, checkPower, checkSpeed } from '../../core/card/check-settings';
import type { Pairing, PlanProblem } from '../../core/card/contract';
import type { GridPlan } from './plan';

/** Every reason why a grid plan cannot be laid for a pairing, one for each field; empty when it can. */
export function checkGridPlan(plan: GridPlan, on: Pairing): PlanProblem[] {
  const ends = [
    ...checkAxis(plan.power, { path: 'power', word: 'Power' }),
    ...checkAxis(plan.speed, { path: 'speed', word: 'Speed' }),
  ];
  return [
    ...ends,
    ...(ends.length > 0
      ? []
      : [
          ...checkPower('power.to', plan.power.to, on),
          ...checkSpeed('speed.to', plan.speed.to, plan.constants.direction, on),
        ]),
    ...within('cellMm', plan.cellMm, 1, 50, 'Cells are 1 to 50 mm wide.'),
    ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm: the reading needs bare stock between cells.'),
    ...checkConstants(plan.constants, on),
  ];
}
