import { within } from '../../core/card/axis';
import { boundOfLines } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { cutFields } from '../../core/card/plan-fields';
import { MOST_COUNTED } from '../../core/card/usual-asks';
import { drawPassCount } from './draw';
import {
  findPassCount,
  PASS_COUNT_ASKS,
  USUAL_PASS_COUNT_WISH,
  type PassCountFinding,
  type PassCountWish,
} from './find';
import { PASS_COUNT_VERSION, upgradePassCountPlan, type PassCountPlan } from './plan';
import { proposePassCount } from './propose';

/** Pass after pass: how many drop a part, where a card of squares is too much? */
export const passCount = Object.freeze({
  kind: 'pass-count',
  name: 'Pass after pass',
  purpose: 'one square cut again and again, counted until it drops: where a card of squares is too much',
  rung: 'cut',
  version: PASS_COUNT_VERSION,
  edges: () => [],
  asks: PASS_COUNT_ASKS,
  propose: proposePassCount,
  upgrade: upgradePassCountPlan,
  check: (plan, on) => [
    ...within('sizeMm', plan.sizeMm, 5, 80, 'Squares are 5 to 80 mm wide.'),
    ...within('mostPasses', plan.mostPasses, 2, MOST_COUNTED, `2 to ${MOST_COUNTED} passes are counted.`),
    ...(plan.cut.passes === 1 ? [] : [{ field: 'cut.passes', message: 'Passes are counted one by one.' }]),
    ...checkSettings(plan.cut, on, 'cut', 'both'),
  ],
  fields: (_plan, { machine }) => [
    { path: 'sizeMm', label: 'Square size', as: 'length', group: 'cells' },
    { path: 'mostPasses', label: 'Passes at the most', as: 'count', group: 'cells' },
    ...cutFields(machine, ['passes']),
  ],
  draw: drawPassCount,
  bound: ({ sizeMm, mostPasses, cut }, { machine }) =>
    boundOfLines({ count: mostPasses, lengthMm: 4 * sizeMm, corners: 5, reachMm: sizeMm }, cut, machine),
  eases: [EASES.speed('cut.speedMmPerS'), EASES.size('sizeMm', 'squares')],
  wish: () => USUAL_PASS_COUNT_WISH,
  find: findPassCount,
  settle: ({ cut, window, outlineMm, thicknessMm, missing }) => {
    if (missing.length > 0 || !cut || !window) return [];
    const { settings, energy, chance } = cut;
    return [
      {
        name: 'cut',
        at: { shade: 'counted' },
        value: {
          settings,
          certainty: Math.round(chance.chance * 1000) / 1000,
          outlineMm,
          thicknessMm,
          comesThrough: window.comesThrough(settings.passes).energy,
          laidDown: energy,
          edge: null,
        },
        sigma: null,
        cellIndex: 0,
      },
    ];
  },
} as const satisfies CardKind<PassCountPlan, PassCountWish, PassCountFinding, object>);
