import { checkAxis, within } from '../../core/card/axis';
import { checkConstants, checkPower, checkSpeed } from '../../core/card/check-settings';
import type { Pairing, PlanProblem } from '../../core/card/contract';
import { gridFate, gridLevels, gridSettings } from './levels';
import type { GridPlan } from './plan';

/** Every reason why a grid plan cannot be laid for a pairing, one for each field; empty when it can. */
export function checkGridPlan(plan: GridPlan, on: Pairing): PlanProblem[] {
  const ends = [
    ...checkAxis(plan.power, { path: 'power', word: 'Power' }),
    ...checkAxis(plan.speed, { path: 'speed', word: 'Speed' }),
  ];
  const problems = [
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
    ...checkSweeps(plan, on),
  ];
  // Only a plan without fault has energies to speak of.
  return problems.length > 0 ? problems : leavesSomething(plan, on);
}

/** A row is crossed in one sweep only by lines that run along it. */
function checkSweeps({ sweeps, constants }: GridPlan, { machine }: Pairing): PlanProblem[] {
  if (sweeps === 'cells') return [];
  const along = constants.direction === 'horizontal' && constants.lineAngleDeg === 0 && !constants.crossHatch;
  if (along && machine.head !== 'galvo') return [];
  const message =
    machine.head === 'galvo'
      ? 'Mirrors jump from cell to cell at no cost: nothing is saved by crossing a row in one sweep.'
      : 'A row is crossed in one sweep only by lines along X. Let lines run along X, or fill cell by cell.';
  return [{ field: 'sweeps', message }];
}

function leavesSomething(plan: GridPlan, on: Pairing): PlanProblem[] {
  const { powers, speeds } = gridLevels(plan);
  const burned = speeds.some((speed) =>
    powers.some((power) => !gridFate(plan, gridSettings(plan, power, speed), on).leftOut),
  );
  if (burned) return [];
  return [
    {
      field: 'leaveOutFailing',
      message:
        'Every cell is bound to fail and left out: nothing would burn. Change the ends, or burn them all the same.',
    },
  ];
}
