import { AXIS_COUNTS, axisValues, checkAxis, type Axis } from '../../core/card/axis';
import { AIR_LEVELS, CHANNELS, type ChannelId } from '../../core/card/channels';
import { checkSettings } from '../../core/card/check-settings';
import type { Pairing, PlanProblem } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import { sweepLimits, type Machine } from '../../core/machine/machine';

/** What may vary along an edge of a grid. */
export const GRID_CHANNELS = [
  'power',
  'speed',
  'interval',
  'passes',
  'focus',
  'air',
  'frequency',
] as const satisfies readonly ChannelId[];
export type GridChannel = (typeof GRID_CHANNELS)[number];

export interface GridAxis extends Axis {
  readonly channel: GridChannel;
}

interface Rule {
  /** Which of a burn's settings it is. */
  readonly field: keyof BurnSettings;
  /** Levels are rounded to so many digits. */
  readonly digits: number;
  readonly put: (settings: BurnSettings, level: number) => BurnSettings;
  /** Ends to begin with where a setting is to be varied, around what it is now. */
  readonly around: (settings: BurnSettings, machine: Machine) => Omit<GridAxis, 'channel'>;
}

const byRatio = (middle: number, times: number, count: number, digits: number): Omit<GridAxis, 'channel'> => ({
  from: roundTo(middle / times, digits),
  to: roundTo(middle * times, digits),
  count,
  spacing: 'ratio',
});

function roundTo(value: number, digits: number): number {
  return Math.round(value * 10 ** digits) / 10 ** digits;
}

const RULES: Readonly<Record<GridChannel, Rule>> = {
  power: {
    field: 'powerFraction',
    digits: 4,
    put: (settings, powerFraction) => ({ ...settings, powerFraction }),
    around: ({ powerFraction }, { powerCap }) => {
      const to = Math.min(powerCap, roundTo(powerFraction * 1.6, 3));
      return { from: roundTo(Math.min(powerFraction / 1.6, to / 2), 3), to, count: 6, spacing: 'ratio' };
    },
  },
  speed: {
    field: 'speedMmPerS',
    digits: 2,
    put: (settings, speedMmPerS) => ({ ...settings, speedMmPerS }),
    around: ({ speedMmPerS, direction }, machine) => {
      const top = sweepLimits(machine, direction).topSpeedMmPerS;
      const to = Math.min(top, roundTo(speedMmPerS * 1.6, 0));
      return { from: Math.max(1, roundTo(Math.min(speedMmPerS / 1.6, to / 2), 0)), to, count: 6, spacing: 'ratio' };
    },
  },
  interval: {
    field: 'intervalMm',
    digits: 3,
    put: (settings, intervalMm) => ({ ...settings, intervalMm }),
    around: ({ intervalMm }) => byRatio(intervalMm, 1.5, 5, 3),
  },
  passes: {
    field: 'passes',
    digits: 0,
    put: (settings, passes) => ({ ...settings, passes }),
    around: () => ({ from: 1, to: 3, count: 3, spacing: 'even' }),
  },
  focus: {
    field: 'focusOffsetMm',
    digits: 3,
    put: (settings, focusOffsetMm) => ({ ...settings, focusOffsetMm }),
    around: ({ focusOffsetMm }) => ({
      from: roundTo(focusOffsetMm - 2, 3),
      to: roundTo(focusOffsetMm + 2, 3),
      count: 5,
      spacing: 'even',
    }),
  },
  air: {
    field: 'air',
    digits: 0,
    put: (settings, level) => ({ ...settings, air: AIR_LEVELS[level] ?? settings.air }),
    around: (_settings, { airAssist }) =>
      airAssist === 'on-off'
        ? { from: 0, to: 2, count: 2, spacing: 'even' }
        : { from: 0, to: 2, count: 3, spacing: 'even' },
  },
  frequency: {
    field: 'frequencyKHz',
    digits: 2,
    put: (settings, frequencyKHz) => ({ ...settings, frequencyKHz }),
    around: (_settings, { galvo }) => ({
      from: galvo?.frequencyKHz?.least ?? 20,
      to: galvo?.frequencyKHz?.most ?? 80,
      count: 5,
      spacing: 'even',
    }),
  },
};

/** What can be varied on a machine: air where it has some, pulses where the source has them. */
export const channelsOn = ({ airAssist, galvo }: Machine): GridChannel[] =>
  GRID_CHANNELS.filter((channel) =>
    channel === 'air' ? airAssist !== 'none' : channel === 'frequency' ? galvo?.frequencyKHz != null : true,
  );

/** Which of a burn's settings an axis sets. */
export const fieldOf = ({ channel }: Pick<GridAxis, 'channel'>): keyof BurnSettings => RULES[channel].field;

/** Settings with an axis' channel at a level. */
export const withLevel = (
  settings: BurnSettings,
  { channel }: Pick<GridAxis, 'channel'>,
  level: number,
): BurnSettings => RULES[channel].put(settings, level);

/** An axis over a channel that begins around what settings have. */
export const axisAround = (channel: GridChannel, settings: BurnSettings, machine: Machine): GridAxis => ({
  channel,
  ...RULES[channel].around(settings, machine),
});

/** The levels of an axis from its low end to its high one, as they are burned. Expects a checked axis. */
export const levelsOf = (axis: GridAxis): number[] =>
  axisValues(axis).map((level) => roundTo(level, RULES[axis.channel].digits) + 0);

/** Every reason why an axis cannot be burned with the settings of its card, one for each field under `path`. */
export function checkGridAxis(axis: GridAxis, path: string, settings: BurnSettings, on: Pairing): PlanProblem[] {
  const { channel } = axis;
  const { name } = CHANNELS[channel];
  const above = channel === 'focus' ? -Infinity : channel === 'air' ? -1 : 0;
  const problems = checkAxis(axis, { path, word: name, above, mostSteps: AXIS_COUNTS.most });
  if (problems.length > 0) return problems;
  if (!channelsOn(on.machine).includes(channel))
    return [{ field: `${path}.channel`, message: `${name} cannot be varied on this machine.` }];
  const levels = levelsOf(axis);
  if (new Set(levels).size < levels.length)
    return [
      {
        field: `${path}.count`,
        message: `Some of these steps are the same: ${name.toLowerCase()} has no finer ones. Burn fewer, or spread the ends.`,
      },
    ];
  const field = fieldOf(axis);
  return (['from', 'to'] as const).flatMap((end) =>
    checkSettings(withLevel(settings, axis, end === 'from' ? levels[0]! : levels.at(-1)!), on, path)
      .filter((problem) => problem.field === `${path}.${field}`)
      .map(({ message }) => ({ field: `${path}.${end}`, message })),
  );
}
