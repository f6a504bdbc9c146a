import { within } from '../../core/card/axis';
import { boundOfLines } from '../../core/card/bound';
import { checkSettings, checkSpeed } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { cutFields } from '../../core/card/plan-fields';
import { drawDiscs } from './draw';
import { CUT_CHECK_ASKS, findCutCheck, type CutCheckFinding } from './find';
import { CUT_CHECK_VERSION, settingsAt, upgradeCutCheckPlan, type CutCheckPlan } from './plan';
import { proposeCutCheck } from './propose';

/** Cut check: does a cut that is kept still hold on this sheet, by three discs? */
export const cutCheck = Object.freeze({
  kind: 'cut-check',
  name: 'Cut check',
  purpose: 'three discs around the kept cut: does it still hold on this sheet, and if not, how much slower?',
  rung: 'cut',
  renews: true,
  version: CUT_CHECK_VERSION,
  edges: () => [],
  asks: CUT_CHECK_ASKS,
  propose: proposeCutCheck,
  upgrade: upgradeCutCheckPlan,
  check: (plan, on) => {
    const [low, middle, full] = plan.shares;
    return [
      ...within('sizeMm', plan.sizeMm, 3, 40, 'Discs are 3 to 40 mm wide.'),
      ...within('gapMm', plan.gapMm, 1, 20, 'Gaps are 1 to 20 mm.'),
      ...(low >= 0.3 && low <= middle && middle < full && full === 1
        ? []
        : [
            {
              field: 'shares.0',
              message: 'The discs have 30 to 99 % of the kept energy, in order, and the last one all of it.',
            },
          ]),
      ...checkSettings(plan.cut, on, 'cut', 'both'),
      ...checkSpeed('shares.0', settingsAt(plan, low).speedMmPerS, 'both', on),
    ];
  },
  fields: (_plan, { machine }) => [
    { path: 'sizeMm', label: 'Disc size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...cutFields(machine),
  ],
  draw: drawDiscs,
  bound: (plan, { machine }) => {
    const disc = { count: 3, lengthMm: Math.PI * plan.sizeMm, corners: 73, reachMm: plan.sizeMm };
    return boundOfLines(disc, plan.cut, machine);
  },
  eases: [EASES.speed('cut.speedMmPerS'), EASES.passes('cut.passes'), EASES.size('sizeMm', 'discs')],
  wish: () => ({}),
  find: findCutCheck,
  settle: ({ kept, shift, laidDown, thicknessMm, settings, verdict, missing }) => {
    if (missing.length > 0 || !kept || !shift || !settings || laidDown === null || verdict === 'again') return [];
    const { comesThrough, thicknessMm: before } = kept.value;
    return [
      {
        name: 'cut',
        at: kept.at,
        value: {
          ...kept.value,
          settings,
          laidDown: laidDown * (kept.value.settings.speedMmPerS / settings.speedMmPerS),
          comesThrough: comesThrough * Math.exp(shift.mean),
          thicknessMm: { from: Math.min(before.from, thicknessMm), to: Math.max(before.to, thicknessMm) },
        },
        sigma: null,
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<CutCheckPlan, object, CutCheckFinding, object>);
