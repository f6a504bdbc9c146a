import { checkAxis, within } from '../../core/card/axis';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { boundIntervals } from './bound';
import { drawIntervals } from './draw';
import { findInterval, INTERVAL_ASKS, type IntervalFinding } from './find';
import { INTERVAL_VERSION, upgradeIntervalPlan, type IntervalPlan } from './plan';
import { proposeIntervals } from './propose';

const MOST_STRIPS = 12;

/** Interval: how far apart may lines be? */
export const interval = Object.freeze({
  kind: 'interval',
  name: 'Interval strips',
  purpose: 'strips from fine to coarse lines, weak to strong: the coarsest that looks even costs the least time',
  rung: 'interval',
  version: INTERVAL_VERSION,
  edges: () => [{ channel: 'interval', edge: 'left', path: 'interval', mostSteps: MOST_STRIPS }],
  asks: INTERVAL_ASKS,
  propose: proposeIntervals,
  upgrade: upgradeIntervalPlan,
  check: (plan, on) => {
    const ends = checkAxis(plan.interval, { path: 'interval', word: 'Line interval', mostSteps: MOST_STRIPS });
    const settings = { ...plan.constants, intervalMm: ends.length > 0 ? 0.1 : plan.interval.from };
    return [
      ...ends,
      ...(ends.length > 0 ? [] : within('interval.to', plan.interval.to, 0.01, 2, 'Line interval is 0.01 to 2 mm.')),
      ...checkSettings(settings, on, 'constants').map((problem) =>
        problem.field === 'constants.intervalMm' ? { ...problem, field: 'interval.from' } : problem,
      ),
      ...within('stripWidthMm', plan.stripWidthMm, 3, 200, 'Strips are 3 to 200 mm wide.'),
      ...within('stripHeightMm', plan.stripHeightMm, 1, 50, 'Strips are 1 to 50 mm high.'),
      ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
    ];
  },
  fields: (_plan, { machine }) => [
    { path: 'stripWidthMm', label: 'Strip width', as: 'length', group: 'cells' },
    { path: 'stripHeightMm', label: 'Strip height', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants', ['intervalMm']),
    ...FRAME_FIELDS,
  ],
  draw: drawIntervals,
  bound: boundIntervals,
  eases: [
    EASES.interval('interval.from'),
    EASES.size('stripHeightMm', 'strips with a height'),
    EASES.passes('constants.passes'),
  ],
  wish: () => ({}),
  find: findInterval,
  settle: ({ intervalMm, cellIndex, upToMm, sigmaMm }) =>
    intervalMm === null ? [] : [{ name: 'interval', at: {}, value: { intervalMm, upToMm }, sigma: sigmaMm, cellIndex }],
} as const satisfies CardKind<IntervalPlan, object, IntervalFinding, object>);
