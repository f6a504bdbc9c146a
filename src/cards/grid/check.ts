import { within } from '../../core/card/axis';
import { checkSettings } from '../../core/card/check-settings';
import type { Pairing, PlanProblem } from '../../core/card/contract';
import { checkGridAxis, fieldOf } from './axes';
import { gridFate, gridLevels } from './levels';
import { MOST_REPEATS, type GridPlan } from './plan';

/** Every reason why a grid plan cannot be laid for a pairing, one for each field; empty when it can. */
export function checkGridPlan(plan: GridPlan, on: Pairing): PlanProblem[] {
  const { across, down, constants } = plan;
  const edges = [
    ...checkGridAxis(across, 'across', constants, on),
    ...checkGridAxis(down, 'down', constants, on),
    ...(across.channel === down.channel
      ? [{ field: 'down.channel', message: 'Rows vary what columns vary already: choose another setting.' }]
      : []),
  ];
  const own = [
    ...within('cellMm', plan.cellMm, 1, 50, 'Cells are 1 to 50 mm wide.'),
    ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm: the reading needs bare stock between cells.'),
    ...(Number.isInteger(plan.repeats) ? [] : [{ field: 'repeats', message: 'Whole repeats.' }]),
    ...within('repeats', plan.repeats, 1, MOST_REPEATS, `Each cell is burned 1 to ${MOST_REPEATS} times.`),
  ];
  const varied = [across, down].map((axis) => `constants.${fieldOf(axis)}`);
  const problems = [
    ...edges,
    ...own,
    ...checkSettings(constants, on, 'constants').filter(({ field }) => !varied.includes(field)),
    ...checkSweeps(plan, on),
  ];
  // Only a plan without fault has energies to speak of.
  return problems.length > 0 ? problems : leavesSomething(plan, on);
}

/** A row is crossed in one sweep only by lines that run along it, and where nothing but power changes on the way. */
function checkSweeps({ sweeps, across, placing, constants }: GridPlan, { machine }: Pairing): PlanProblem[] {
  if (sweeps === 'cells') return [];
  const problem = (message: string): PlanProblem[] => [{ field: 'sweeps', message }];
  if (machine.head === 'galvo')
    return problem('Mirrors jump from cell to cell at no cost: nothing is saved by crossing a row in one sweep.');
  if (across.channel !== 'power' || placing === 'scattered')
    return problem('A row is crossed in one sweep only where nothing but power changes along it. Fill cell by cell.');
  const along = constants.direction === 'horizontal' && constants.lineAngleDeg === 0 && !constants.crossHatch;
  return along
    ? []
    : problem('A row is crossed in one sweep only by lines along X. Let lines run along X, or fill cell by cell.');
}

function leavesSomething(plan: GridPlan, on: Pairing): PlanProblem[] {
  if (gridLevels(plan).some(({ settings }) => !gridFate(plan, settings, on).leftOut)) return [];
  return [
    {
      field: 'leaveOutFailing',
      message:
        'Every cell is bound to fail and left out: nothing would burn. Change the ends, or burn them all the same.',
    },
  ];
}
