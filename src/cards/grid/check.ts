import type { Pairing, PlanProblem } from '../../core/card/contract';
import { sweepLimits } from '../../core/machine/machine';
import { formatPower } from '../../core/quantities/format';
import { AXIS_COUNTS, type Axis, type GridPlan } from './plan';

function checkAxis(name: 'power' | 'speed', axis: Axis): PlanProblem[] {
  const problems: PlanProblem[] = [];
  const word = name === 'power' ? 'Power' : 'Speed';
  if (!Number.isFinite(axis.from) || !(axis.from > 0)) {
    problems.push({ field: `${name}.from`, message: `${word} must be a number above zero.` });
  }
  if (!Number.isFinite(axis.to) || !(axis.to > 0)) {
    problems.push({ field: `${name}.to`, message: `${word} must be a number above zero.` });
  }
  if (problems.length === 0 && !(axis.from < axis.to)) {
    problems.push({ field: `${name}.to`, message: `${word}: the low end must be below the high end. Swap them.` });
  }
  if (!Number.isInteger(axis.count) || !(axis.count >= AXIS_COUNTS.least && axis.count <= AXIS_COUNTS.most)) {
    problems.push({
      field: `${name}.count`,
      message: `${AXIS_COUNTS.least} to ${AXIS_COUNTS.most} steps along each edge.`,
    });
  }
  return problems;
}

function within(field: string, value: number, least: number, most: number, message: string): PlanProblem[] {
  return value >= least && value <= most ? [] : [{ field, message }];
}

/** Every reason why a grid plan cannot be laid for a pairing, one for each field; empty when it can. */
export function checkGridPlan(plan: GridPlan, { machine }: Pairing): PlanProblem[] {
  const limits = sweepLimits(machine, plan.constants.direction);
  const problems = [...checkAxis('power', plan.power), ...checkAxis('speed', plan.speed)];
  if (plan.power.to > machine.powerCap + 1e-9) {
    problems.push({
      field: 'power.to',
      message: `${formatPower(plan.power.to)} is above this machine’s cap of ${formatPower(machine.powerCap)}. Lower it, or lift the cap on the machine’s page.`,
    });
  }
  if (plan.speed.to > limits.topSpeedMmPerS + 1e-9) {
    problems.push({
      field: 'speed.to',
      message: `The head’s top speed along the lines is ${limits.topSpeedMmPerS} mm/s.`,
    });
  }
  const { constants, markerSettings, letteringSettings } = plan;
  problems.push(
    ...within('cellMm', plan.cellMm, 1, 50, 'Cells are 1 to 50 mm wide.'),
    ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm: the reading needs bare stock between cells.'),
    ...within('constants.intervalMm', constants.intervalMm, 0.01, 2, 'Line interval is 0.01 to 2 mm.'),
    ...within('constants.focusOffsetMm', constants.focusOffsetMm, -20, 20, 'Focus offset is -20 to 20 mm.'),
    ...within(
      'markerSettings.powerFraction',
      markerSettings.powerFraction,
      0.005,
      machine.powerCap,
      'Marker power is 0.5 % to the cap.',
    ),
    ...within(
      'markerSettings.speedMmPerS',
      markerSettings.speedMmPerS,
      0.1,
      machine.topSpeedXMmPerS,
      'Marker speed is 0.1 mm/s to top speed.',
    ),
    ...within(
      'markerSettings.intervalMm',
      markerSettings.intervalMm,
      0.01,
      0.5,
      'Marker line interval is 0.01 to 0.5 mm.',
    ),
    ...within(
      'letteringSettings.powerFraction',
      letteringSettings.powerFraction,
      0.005,
      machine.powerCap,
      'Lettering power is 0.5 % to the cap.',
    ),
    ...within(
      'letteringSettings.speedMmPerS',
      letteringSettings.speedMmPerS,
      0.1,
      machine.topSpeedXMmPerS,
      'Lettering speed is 0.1 mm/s to top speed.',
    ),
  );
  if (!Number.isInteger(constants.passes) || !(constants.passes >= 1 && constants.passes <= 20)) {
    problems.push({ field: 'constants.passes', message: '1 to 20 passes, a whole number.' });
  }
  if (constants.air !== 'off' && machine.airAssist === 'none') {
    problems.push({ field: 'constants.air', message: 'This machine has no air assist.' });
  }
  if (constants.air === 'low' && machine.airAssist === 'on-off') {
    problems.push({ field: 'constants.air', message: 'This machine’s air is either on or off.' });
  }
  return problems;
}
