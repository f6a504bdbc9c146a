import { checkAxis, within } from '../../core/card/axis';
import { boundOfFills } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { barSettings, drawBars } from './draw';
import { findRunUp, RUN_UP_ASKS, type RunUpFinding } from './find';
import { RUN_UP_VERSION, upgradeRunUpPlan, type RunUpPlan } from './plan';
import { proposeRunUp } from './propose';

const MOST_REPEATS = 4;
const REPEATS_WORDS = `1 to ${MOST_REPEATS} bars of each run-up.`;
const MOST_STEPS = 12;

/** Run-up: from which run-up on are lines as even at their ends as in their middle? */
export const runUp = Object.freeze({
  kind: 'run-up',
  name: 'Run-up bars',
  purpose: 'long bars with less and less run-up: the shortest from which on their ends are no darker than their middle',
  rung: 'run-up',
  version: RUN_UP_VERSION,
  edges: () => [{ channel: 'runUp', edge: 'left', path: 'runUp', mostSteps: MOST_STEPS }],
  asks: RUN_UP_ASKS,
  propose: proposeRunUp,
  upgrade: upgradeRunUpPlan,
  check: (plan, on) => [
    ...checkAxis(plan.runUp, { path: 'runUp', word: 'Run-up', above: -Infinity, mostSteps: MOST_STEPS }),
    ...within('runUp.from', plan.runUp.from, 0, 300, 'Run-up is 0 mm or more.'),
    ...within('runUp.to', plan.runUp.to, 0, 300, 'Run-up is 300 mm at the most.'),
    ...(on.machine.head === 'galvo' || on.machine.addsRunUp
      ? [{ field: 'runUp.to', message: 'This machine’s programs have no run-up to change.' }]
      : []),
    ...checkSettings(barSettings(plan, 0), on, 'constants'),
    ...(Number.isInteger(plan.repeats)
      ? within('repeats', plan.repeats, 1, MOST_REPEATS, REPEATS_WORDS)
      : [{ field: 'repeats', message: REPEATS_WORDS }]),
    ...within('lengthMm', plan.lengthMm, 6, 200, 'Bars are 6 to 200 mm long: shorter ones have no middle.'),
    ...within('barMm', plan.barMm, 1, 20, 'Bars are 1 to 20 mm high.'),
  ],
  fields: (_plan, { machine }) => [
    { path: 'repeats', label: 'Bars of each run-up', as: 'count', group: 'cells' },
    { path: 'lengthMm', label: 'Bar length', as: 'length', group: 'cells' },
    { path: 'barMm', label: 'Bar height', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants', ['runUpMm', 'lineAngleDeg', 'crossHatch']),
    ...FRAME_FIELDS,
  ],
  draw: drawBars,
  bound: (plan, { machine }) => {
    const { runUp, repeats, lengthMm, barMm, constants } = plan;
    const lies = constants.direction === 'horizontal';
    return boundOfFills(
      runUp.count * repeats,
      { widthMm: lies ? lengthMm : barMm, heightMm: lies ? barMm : lengthMm },
      barSettings(plan, runUp.to),
      machine,
    );
  },
  eases: [
    EASES.interval('constants.intervalMm'),
    EASES.size('barMm', 'bars'),
    { path: 'repeats', by: 'less', step: 1, says: (count: number) => `${count} bars of each run-up` },
    EASES.passes('constants.passes'),
  ],
  wish: () => ({}),
  find: findRunUp,
  settle: ({ leastMm, speedMmPerS, direction, sigmaMm }) =>
    leastMm === null
      ? []
      : [
          {
            name: 'runUp',
            at: { direction },
            value: { runUpMm: leastMm, speedMmPerS },
            sigma: sigmaMm,
            cellIndex: null,
          },
        ],
} as const satisfies CardKind<RunUpPlan, object, RunUpFinding, object>);
