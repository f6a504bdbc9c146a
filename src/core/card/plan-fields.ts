import type { Machine } from '../machine/machine';

/** One field of a plan, for the planner: where it stands, what it is called and how it is typed. */
export interface PlanField {
  /** "constants.intervalMm" */
  readonly path: string;
  readonly label: string;
  readonly as:
    | 'length'
    | 'offset'
    | 'speed'
    | 'power'
    | 'share'
    | 'interval'
    | 'count'
    | 'run-up'
    | 'flag'
    | 'choice'
    | 'text'
    | 'number'
    | 'picture'
    | 'drawing';
  /** Of a bare number. */
  readonly unit?: string;
  /** A number that may be left empty. */
  readonly optional?: boolean;
  readonly options?: readonly { readonly value: string; readonly name: string }[];
  readonly group: 'cells' | 'same' | 'frame' | 'setup';
  readonly hint?: string;
}

/** How the frame of a card is burned that a photo is read of. */
export const FRAME_FIELDS: readonly PlanField[] = [
  {
    path: 'frame.markers',
    label: 'Placed in a photo by',
    as: 'choice',
    options: [
      { value: 'burned', name: 'four burned markers' },
      { value: 'on-sheet', name: 'a frame sheet under it' },
    ],
    group: 'frame',
    hint: 'for a piece too small or too precious for markers: lay it on a measured frame sheet for its photo',
  },
  { path: 'frame.marker.powerFraction', label: 'Marker power', as: 'power', group: 'frame' },
  { path: 'frame.marker.speedMmPerS', label: 'Marker speed', as: 'speed', group: 'frame' },
  { path: 'frame.lettering.powerFraction', label: 'Lettering power', as: 'power', group: 'frame' },
  { path: 'frame.lettering.speedMmPerS', label: 'Lettering speed', as: 'speed', group: 'frame' },
];

/** Of a card that stands in several places: nothing but its own markers tells which of them a photo shows. */
export const STATION_FRAME_FIELDS: readonly PlanField[] = FRAME_FIELDS.filter(({ path }) => path !== 'frame.markers');

const AIRS = {
  none: ['off'],
  'on-off': ['off', 'on'],
  adjustable: ['off', 'low', 'on'],
} as const satisfies Record<Machine['airAssist'], readonly string[]>;

/** What mirrors can do beside a gantry's settings. */
function galvoFields(machine: Machine, path: string): PlanField[] {
  const frequency = machine.galvo?.frequencyKHz;
  return [
    {
      path: `${path}.lineAngleDeg`,
      label: 'Lines turned by',
      as: 'number',
      unit: '°',
      group: 'same',
      hint: 'counter-clockwise, 0 up to 90',
    },
    {
      path: `${path}.crossHatch`,
      label: 'Cross-hatch',
      as: 'flag',
      group: 'same',
      hint: 'each pass once more at right angles: twice the energy',
    },
    ...(frequency
      ? [
          {
            path: `${path}.frequencyKHz`,
            label: 'Frequency',
            as: 'number' as const,
            unit: 'kHz',
            optional: true,
            group: 'same' as const,
            hint: `${frequency.least} to ${frequency.most} kHz; empty to leave it as it is. Files carry it as a remark: set it at the machine.`,
          },
        ]
      : []),
  ];
}

/** The constants that a machine can set, under a path of the plan; those that vary on the card are left out. */
export function constantFields(machine: Machine, path: string, without: readonly string[] = []): PlanField[] {
  const all: PlanField[] = [
    { path: `${path}.powerFraction`, label: 'Power', as: 'power', group: 'same' },
    { path: `${path}.speedMmPerS`, label: 'Speed', as: 'speed', group: 'same' },
    { path: `${path}.intervalMm`, label: 'Line interval', as: 'interval', group: 'same' },
    { path: `${path}.passes`, label: 'Passes', as: 'count', group: 'same' },
    {
      path: `${path}.focusOffsetMm`,
      label: 'Focus offset',
      as: 'offset',
      group: 'same',
      hint: 'from the focus you set: plus raises the head, minus lowers it',
    },
    {
      path: `${path}.air`,
      label: 'Air',
      as: 'choice',
      options: AIRS[machine.airAssist].map((value) => ({ value, name: value })),
      group: 'same',
    },
    {
      path: `${path}.direction`,
      label: 'Lines run',
      as: 'choice',
      options: [
        { value: 'horizontal', name: 'along X' },
        { value: 'vertical', name: 'along Y' },
      ],
      group: 'same',
    },
    { path: `${path}.bothWays`, label: 'Burn both ways', as: 'flag', group: 'same', hint: 'halves the time of a fill' },
    {
      path: `${path}.scanOffsetMm`,
      label: 'Scan offset',
      as: 'offset',
      group: 'same',
      hint: 'each line of the way back is laid so much further along: minus where the beam is late',
    },
    {
      path: `${path}.lengthenMm`,
      label: 'Longer dots',
      as: 'offset',
      group: 'same',
      hint: 'each lit stretch of a line is drawn so much longer: plus where the beam comes on late',
    },
    {
      path: `${path}.runUpMm`,
      label: 'Run-up',
      as: 'run-up',
      group: 'same',
      hint: 'each side, also called overscan; empty for what the speed needs',
    },
  ];
  if (machine.head === 'galvo') all.push(...galvoFields(machine, path));
  const needless = machine.head === 'galvo' ? [...without, 'runUpMm'] : without;
  return all.filter((field) => !needless.includes(field.path.slice(path.length + 1)));
}

/** The value at a path of a plain object; undefined where the way ends. */
export function valueAt(plan: object, path: string): unknown {
  return path.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], plan);
}

/** A copy of a plain object with another value at a path. */
export function withValueAt<Plan extends object>(plan: Plan, path: string, value: unknown): Plan {
  const [key, ...rest] = path.split('.') as [string, ...string[]];
  const now = (plan as Record<string, unknown>)[key];
  return { ...plan, [key]: rest.length === 0 ? value : withValueAt(now as object, rest.join('.'), value) };
}

/** What cuts never have: fills alone do. */
export const OF_FILLS = ['intervalMm', 'direction', 'bothWays', 'scanOffsetMm', 'lengthenMm', 'runUpMm'] as const;

/** What the planner offers of a cut that all cells share, but for `without`, and of the lettering beside it. */
export const cutFields = (machine: Machine, without: readonly string[] = []): PlanField[] => [
  ...constantFields(machine, 'cut', [...OF_FILLS, ...without]),
  ...FRAME_FIELDS.filter(({ path }) => path.startsWith('frame.lettering')),
];
