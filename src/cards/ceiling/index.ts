import { checkAxis, within } from '../../core/card/axis';
import { boundOfFills } from '../../core/card/bound';
import { checkConstants, checkPower, checkSpeed } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { drawWedges } from './draw';
import { CEILING_ASKS, findCeiling, type CeilingFinding } from './find';
import { CEILING_VERSION, upgradeCeilingPlan, type CeilingPlan } from './plan';
import { proposeCeiling } from './propose';

const STEPS = { least: 4, most: 16 } as const;
const STEPS_WORDS = `${STEPS.least} to ${STEPS.most} steps a wedge.`;
const MOST_WEDGES = 8;

/** Ceiling: past which power does more only go deeper, and get no darker? */
export const ceiling = Object.freeze({
  kind: 'ceiling',
  name: 'Step wedges',
  purpose: 'grey step wedges up to several top powers: past which power nothing gets darker, only deeper',
  rung: 'ceiling',
  version: CEILING_VERSION,
  edges: () => [{ channel: 'top', edge: 'left', path: 'top', mostSteps: MOST_WEDGES }],
  asks: CEILING_ASKS,
  propose: proposeCeiling,
  upgrade: upgradeCeilingPlan,
  check: (plan, on) => {
    const { top, floorFraction, steps, constants } = plan;
    const ends = checkAxis(top, { path: 'top', word: 'Top power', mostSteps: MOST_WEDGES });
    return [
      ...ends,
      ...(ends.length > 0 ? [] : checkPower('top.to', top.to, on)),
      ...(floorFraction >= 0 && floorFraction < top.from
        ? []
        : [{ field: 'floorFraction', message: 'Wedges begin below the lowest top power, at 0 % or more.' }]),
      ...(Number.isInteger(steps)
        ? within('steps', steps, STEPS.least, STEPS.most, STEPS_WORDS)
        : [{ field: 'steps', message: STEPS_WORDS }]),
      ...within('patchMm', plan.patchMm, 1.5, 20, 'Steps are 1.5 to 20 mm wide.'),
      ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
      ...checkSpeed('constants.speedMmPerS', constants.speedMmPerS, constants.direction, on),
      ...checkConstants(constants, on),
    ];
  },
  fields: (_plan, { machine }) => [
    { path: 'floorFraction', label: 'Wedges begin at', as: 'power', group: 'cells' },
    { path: 'steps', label: 'Steps a wedge', as: 'count', group: 'cells' },
    { path: 'patchMm', label: 'Step size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants', ['powerFraction']),
    ...FRAME_FIELDS,
  ],
  draw: drawWedges,
  bound: ({ top, steps, patchMm, constants }, { machine }) =>
    boundOfFills(
      top.count * steps,
      { widthMm: patchMm, heightMm: patchMm },
      { ...constants, powerFraction: top.to },
      machine,
    ),
  eases: [EASES.interval('constants.intervalMm'), EASES.size('patchMm', 'steps'), EASES.passes('constants.passes')],
  wish: () => ({}),
  find: findCeiling,
  settle: ({ ceiling: powerFraction, low, high, edges }, layout) => {
    const first = layout.cells[0];
    if (powerFraction === null || low === null || high === null || !first) return [];
    const { speedMmPerS, intervalMm, passes } = mainBurn(first).settings;
    return [
      {
        name: 'ceiling',
        at: { speed: speedMmPerS, interval: intervalMm, passes },
        value: { powerFraction, edgesFraction: edges?.from ?? null },
        // The range is about four standard uncertainties wide.
        sigma: (high - low) / 4,
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<CeilingPlan, object, CeilingFinding, object>);
