import { sweepLimits, type Machine } from '../machine/machine';
import { formatPower, formatSpeed } from '../quantities/format';
import { within } from './axis';
import type { Pairing, PlanProblem } from './contract';
import type { BurnSettings, Constants } from './settings';

/** Every reason why the constants of a card cannot be burned on a pairing, one for each field under `path`. */
export function checkConstants(constants: Constants, { machine }: Pairing, path = 'constants'): PlanProblem[] {
  const problems = [
    ...within(`${path}.intervalMm`, constants.intervalMm, 0.01, 2, 'Line interval is 0.01 to 2 mm.'),
    ...within(`${path}.focusOffsetMm`, constants.focusOffsetMm, -20, 20, 'Focus offset is -20 to 20 mm.'),
    ...within(`${path}.scanOffsetMm`, constants.scanOffsetMm, -2, 2, 'Scan offset is -2 to 2 mm.'),
    ...within(`${path}.lengthenMm`, constants.lengthenMm, -0.5, 0.5, 'Dots are lengthened by -0.5 to 0.5 mm.'),
  ];
  if (constants.runUpMm !== null)
    problems.push(...within(`${path}.runUpMm`, constants.runUpMm, 0, 300, 'Run-up is 0 to 300 mm, or empty.'));
  if (!Number.isInteger(constants.passes) || !(constants.passes >= 1 && constants.passes <= 20))
    problems.push({ field: `${path}.passes`, message: '1 to 20 passes, a whole number.' });
  problems.push(...checkHatch(constants, machine, path));
  if (constants.air !== 'off' && machine.airAssist === 'none')
    problems.push({ field: `${path}.air`, message: 'This machine has no air assist.' });
  if (constants.air === 'low' && machine.airAssist === 'on-off')
    problems.push({ field: `${path}.air`, message: 'This machine’s air is either on or off.' });
  return problems;
}

/** Line angle, cross-hatch and frequency, which mirrors and pulsed sources have. */
function checkHatch(constants: Constants, machine: Machine, path: string): PlanProblem[] {
  const { lineAngleDeg, crossHatch, frequencyKHz } = constants;
  const problems: PlanProblem[] = [];
  if (!(lineAngleDeg >= 0 && lineAngleDeg < 90))
    problems.push({ field: `${path}.lineAngleDeg`, message: 'Lines are turned by 0 up to 90 degrees.' });
  if (machine.head !== 'galvo' && (lineAngleDeg !== 0 || crossHatch))
    problems.push({ field: `${path}.lineAngleDeg`, message: 'Only a galvo head turns or crosses its lines here.' });
  const range = machine.galvo?.frequencyKHz ?? null;
  if (frequencyKHz !== null && !(range && frequencyKHz >= range.least && frequencyKHz <= range.most))
    problems.push({
      field: `${path}.frequencyKHz`,
      message: range
        ? `This source pulses at ${range.least} to ${range.most} kHz.`
        : 'This machine’s source is not recorded as pulsing.',
    });
  return problems;
}

/** Power within the firing floor's and the cap's range; `field` is named. */
export function checkPower(field: string, powerFraction: number, { machine }: Pairing): PlanProblem[] {
  if (!(powerFraction > 0)) return [{ field, message: 'Power must be a number above zero.' }];
  if (powerFraction > machine.powerCap + 1e-9)
    return [
      {
        field,
        message: `${formatPower(powerFraction)} is above this machine’s cap of ${formatPower(machine.powerCap)}. Lower it, or lift the cap on the machine’s page.`,
      },
    ];
  return [];
}

/** Speed within what the head can do along the lines; `field` is named. */
export function checkSpeed(
  field: string,
  speedMmPerS: number,
  direction: BurnSettings['direction'] | 'both',
  { machine }: Pairing,
): PlanProblem[] {
  const top =
    direction === 'both'
      ? Math.min(machine.topSpeedXMmPerS, machine.topSpeedYMmPerS)
      : sweepLimits(machine, direction).topSpeedMmPerS;
  if (!(speedMmPerS > 0)) return [{ field, message: 'Speed must be a number above zero.' }];
  if (speedMmPerS > top + 1e-9)
    return [{ field, message: `The head’s top speed along the lines is ${formatSpeed(top, machine.likedUnits)}.` }];
  return [];
}

/** Every reason why complete settings cannot be burned, one for each field under `path`. */
export function checkSettings(
  settings: BurnSettings,
  on: Pairing,
  path: string,
  along: BurnSettings['direction'] | 'both' = settings.direction,
): PlanProblem[] {
  return [
    ...checkPower(`${path}.powerFraction`, settings.powerFraction, on),
    ...checkSpeed(`${path}.speedMmPerS`, settings.speedMmPerS, along, on),
    ...checkConstants(settings, on, path),
  ];
}
