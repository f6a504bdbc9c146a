import type { Known, Proposal } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import { sweepLimits } from '../../core/machine/machine';
import { formatPower, formatSpeed } from '../../core/quantities/format';
import type { GridPlan } from './plan';
import { proposeGrid } from './propose';

/** A step up and down from the setting: far enough to see, near enough to correct it. */
const STEP = 1.2;

/** Three levels with the setting in the middle; at the top where more is not to be had. */
function around(value: number, most: number): { from: number; to: number } {
  const to = Math.min(value * STEP, most);
  return to >= value * STEP - 1e-12 ? { from: value / STEP, to } : { from: value / STEP ** 2, to: value };
}

/**
 * Nine cells around a setting that was brought along or foretold: as it is, and a fifth more and less of power and speed. Everything else
 * as the setting has it. Throws RangeError where this pairing cannot be burned at all.
 */
export function proveSetting(known: Known, settings: BurnSettings): Proposal<GridPlan> {
  const { plan, reasons } = proposeGrid({ ...known, facts: [] });
  const { machine } = known.pairing;
  const { powerFraction, speedMmPerS, ...constants } = settings;
  const top = sweepLimits(machine, constants.direction).topSpeedMmPerS;
  const because = `around the setting to be proven, ${formatPower(powerFraction)} at ${formatSpeed(speedMmPerS, machine.likedUnits)}`;
  return {
    plan: {
      ...plan,
      across: { channel: 'power', ...around(powerFraction, machine.powerCap), count: 3, spacing: 'ratio' },
      down: { channel: 'speed', ...around(speedMmPerS, top), count: 3, spacing: 'ratio' },
      cellMm: 5,
      gapMm: 1,
      constants: settings,
      leaveOutFailing: false,
      sweeps: 'cells',
    },
    reasons: {
      ...Object.fromEntries(Object.entries(reasons).filter(([path]) => path.startsWith('frame.'))),
      ...Object.fromEntries(['across.from', 'across.to', 'down.from', 'down.to'].map((path) => [path, because])),
      ...Object.fromEntries(
        Object.keys(constants).map((field) => [`constants.${field}`, 'as the setting to be proven']),
      ),
      size: 'nine cells of 5 mm: the setting in their middle, a fifth more and less around it',
    },
  };
}
