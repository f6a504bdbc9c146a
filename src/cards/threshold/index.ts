import { checkAxis, within } from '../../core/card/axis';
import { boundOfFills } from '../../core/card/bound';
import { checkConstants, checkPower, checkSpeed } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { THRESHOLD_ASKS } from './asks';
import { drawThreshold, SEARCH_PLACES } from './draw';
import { findThreshold, MANY, type ThresholdFinding } from './find';
import { THRESHOLD_VERSION, upgradeThresholdPlan, type ThresholdPlan } from './plan';
import { proposeThreshold } from './propose';
import { followWay } from './firing';
import { nextPatch } from './search';

const MOST_ROWS = 6;

/** Threshold: what is the least power that leaves a mark? */
export const threshold = Object.freeze({
  kind: 'threshold',
  name: 'Threshold strip',
  purpose: 'small patches from almost nothing up, all at once or one at a time: the minimum power that marks',
  rung: 'threshold',
  version: THRESHOLD_VERSION,
  edges: () => [{ channel: 'power', edge: 'below', path: 'power', mostSteps: 20 }],
  asks: THRESHOLD_ASKS,
  propose: proposeThreshold,
  upgrade: upgradeThresholdPlan,
  check: (plan, on) => {
    const ends = checkAxis(plan.power, { path: 'power', word: 'Power' });
    return [
      ...ends,
      ...(ends.length > 0 ? [] : checkPower('power.to', plan.power.to, on)),
      ...checkSpeed('constants.speedMmPerS', plan.constants.speedMmPerS, plan.constants.direction, on),
      ...(Number.isInteger(plan.repeats) && plan.repeats >= 1 && plan.repeats <= MOST_ROWS
        ? []
        : [{ field: 'repeats', message: `1 to ${MOST_ROWS} rows.` }]),
      ...within('patchMm', plan.patchMm, 1, 20, 'Patches are 1 to 20 mm wide.'),
      ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
      ...checkConstants(plan.constants, on),
    ];
  },
  fields: ({ way }, { machine }) => [
    {
      path: 'way',
      label: 'How',
      as: 'choice',
      options: [
        { value: 'strip', name: 'all patches at once' },
        { value: 'search', name: 'one patch at a time' },
        { value: 'firing', name: 'where the source begins to fire' },
      ],
      group: 'cells',
    },
    ...(way !== 'search'
      ? [
          {
            path: 'repeats',
            label: 'Rows',
            as: 'count',
            group: 'cells',
            hint: `the strip again under itself: from ${MANY} patches on the floor is where one patch in fifty marks`,
          } as const,
        ]
      : []),
    { path: 'patchMm', label: 'Patch size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants', ['powerFraction']),
    // A search has no card to be seen in a photo until it is over.
    ...FRAME_FIELDS.filter(({ path }) => way !== 'search' || path !== 'frame.markers'),
  ],
  draw: drawThreshold,
  bound: (plan, { machine }) => {
    const { patchMm, constants, way, power } = plan;
    const count = way !== 'search' ? power.count * plan.repeats : SEARCH_PLACES;
    return boundOfFills(
      count,
      { widthMm: patchMm, heightMm: patchMm },
      { ...constants, powerFraction: power.to },
      machine,
    );
  },
  eases: [EASES.interval('constants.intervalMm'), EASES.size('patchMm', 'patches'), EASES.passes('constants.passes')],
  follow: followWay,
  next: nextPatch,
  wish: () => ({}),
  find: findThreshold,
  settle: ({ floor, half, faint, patches, firing }, layout) => {
    const first = layout.cells[0];
    if (firing !== null) {
      const { power, low, high } = firing;
      // An interval that is open at one end is as wide, at the least, as to the other.
      const away = Math.max(low === null ? 0 : power - low, high === null ? 0 : high - power);
      return [
        { name: 'firing', at: {}, value: { command: power }, sigma: away > 0 ? away / 2 : null, cellIndex: null },
      ];
    }
    if (floor === null || half === null || !first) return [];
    const { speedMmPerS, intervalMm, passes } = mainBurn(first).settings;
    // Where enough patches were burned to tell the floor itself, it is as sure as that; else as the first mark.
    const { low, high } = faint ?? half;
    // Beyond the strongest patch nothing was seen: few patches bound no interval that goes on past it.
    const strongest = Math.max(...patches.map(({ powerFraction }) => powerFraction));
    const width = low !== null && high !== null && high <= strongest ? high - low : null;
    return [
      {
        name: 'floor',
        at: { speed: speedMmPerS, interval: intervalMm, passes },
        value: { powerFraction: floor },
        // The interval is about four standard uncertainties wide.
        sigma: width === null ? null : width / 4,
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<ThresholdPlan, object, ThresholdFinding, object>);
