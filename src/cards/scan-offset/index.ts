import { checkAxis, within } from '../../core/card/axis';
import { boundOfFills } from '../../core/card/bound';
import { checkSettings, checkSpeed } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { cellSize, drawPairs, linesOnce, pairSettings } from './draw';
import { findScanOffset, SCAN_OFFSET_ASKS, type ScanOffsetFinding } from './find';
import { SCAN_OFFSET_VERSION, upgradeScanOffsetPlan, type ScanOffsetPlan } from './plan';
import { proposeScanOffset } from './propose';

const MOST_REPEATS = 8;
const REPEATS_WORDS = `1 to ${MOST_REPEATS} pairs of each speed.`;

/** Scan offset: do the lines of both ways meet, and by how much are they laid to do so? */
export const scanOffset = Object.freeze({
  kind: 'scan-offset',
  name: 'Both ways',
  purpose:
    'pairs of bars, one burned on the way there and one on the way back: how far apart both ways lie at each speed',
  rung: 'ways',
  version: SCAN_OFFSET_VERSION,
  edges: () => [{ channel: 'speed', edge: 'left', path: 'speed', mostSteps: 8 }],
  asks: SCAN_OFFSET_ASKS,
  propose: proposeScanOffset,
  upgrade: upgradeScanOffsetPlan,
  check: (plan, on) => {
    const ends = checkAxis(plan.speed, { path: 'speed', word: 'Speed', mostSteps: 8 });
    return [
      ...ends,
      ...(ends.length > 0 ? [] : checkSpeed('speed.to', plan.speed.to, plan.constants.direction, on)),
      // How fast they go is told above.
      ...checkSettings({ ...linesOnce(plan.constants), speedMmPerS: 1 }, on, 'constants'),
      ...(Number.isInteger(plan.repeats)
        ? within('repeats', plan.repeats, 1, MOST_REPEATS, REPEATS_WORDS)
        : [{ field: 'repeats', message: REPEATS_WORDS }]),
      ...within('barWidthMm', plan.barWidthMm, 0.2, 3, 'Bars are 0.2 to 3 mm wide.'),
      ...within('barMm', plan.barMm, 2, 40, 'Bars are 2 to 40 mm long.'),
      ...within(
        'pitchMm',
        plan.pitchMm,
        plan.barWidthMm + 1.5,
        20,
        'Bars lie at least 1.5 mm of bare stock apart, and 20 mm at the most: a late beam moves them towards each other.',
      ),
    ];
  },
  fields: (_plan, { machine }) => [
    { path: 'repeats', label: 'Pairs of each speed', as: 'count', group: 'cells' },
    { path: 'barWidthMm', label: 'Bar width', as: 'length', group: 'cells' },
    { path: 'barMm', label: 'Bar length', as: 'length', group: 'cells' },
    { path: 'pitchMm', label: 'Bars apart', as: 'length', group: 'cells' },
    {
      path: 'constants.powerFraction',
      label: 'Power at the fastest',
      as: 'power',
      group: 'same',
      hint: 'slower pairs get less in proportion',
    },
    ...constantFields(machine, 'constants', [
      'powerFraction',
      'speedMmPerS',
      'passes',
      'bothWays',
      'lineAngleDeg',
      'crossHatch',
    ]),
    ...FRAME_FIELDS,
  ],
  draw: drawPairs,
  bound: (plan, on) =>
    boundOfFills(plan.speed.count * plan.repeats, cellSize(plan), pairSettings(plan, plan.speed.to, 0, on), on.machine),
  eases: [
    EASES.interval('constants.intervalMm'),
    EASES.size('barMm', 'bars'),
    { path: 'repeats', by: 'less', step: 1, says: (count: number) => `${count} pairs of each speed` },
  ],
  wish: () => ({}),
  find: findScanOffset,
  settle: ({ law, fastest, direction, dots }) => {
    if (!law || !fastest) return [];
    const { lagS, standingMm, fromMmPerS, toMmPerS } = law;
    const lag = {
      name: 'lag' as const,
      at: { direction },
      value: { lagS, standingMm, fromMmPerS, toMmPerS },
      sigma: fastest.sigmaMm,
      cellIndex: null,
    };
    if (!dots.law || !dots.fastest) return [lag];
    const dotLength = {
      name: 'dotLength' as const,
      at: { direction },
      value: { slowOnS: dots.law.slowOnS, fromMmPerS: dots.law.fromMmPerS, toMmPerS: dots.law.toMmPerS },
      sigma: dots.fastest.shorterSigmaMm,
      cellIndex: null,
    };
    return [lag, dotLength];
  },
} as const satisfies CardKind<ScanOffsetPlan, object, ScanOffsetFinding, object>);
