import { checkAxis, within } from '../../core/card/axis';
import { boundOfLines } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { cutFields } from '../../core/card/plan-fields';
import { boundsToKeep } from '../../core/fit/fit-bounds';
import { drawSlots } from './draw';
import { findSlots, SLOTS_ASKS, USUAL_SLOTS_WISH, type SlotsFinding, type SlotsWish } from './find';
import { drawnWidthMm, MOST_SLOTS, SLOTS_VERSION, upgradeSlotsPlan, type SlotsPlan } from './plan';
import { proposeSlots } from './propose';

/** Narrower slots than this burn away, and no offcut finds them. */
const LEAST_WIDTH_MM = 0.4;
const MOST_CLEARANCE_MM = 2;

/** Slots: how wide is one drawn for the fit that is wanted? */
export const slots = Object.freeze({
  kind: 'slots',
  name: 'Slots',
  purpose:
    'a comb of slots around the sheet’s own thickness: an offcut pushed into each tells how wide each fit is drawn',
  rung: 'fit',
  version: SLOTS_VERSION,
  edges: () => [{ channel: 'clearance', edge: 'below', path: 'clearance', mostSteps: MOST_SLOTS }],
  asks: SLOTS_ASKS,
  propose: proposeSlots,
  upgrade: upgradeSlotsPlan,
  check: (plan, on) => {
    const problems = checkAxis(plan.clearance, {
      path: 'clearance',
      word: 'Clearance',
      above: -Infinity,
      mostSteps: MOST_SLOTS,
    });
    if (problems.length > 0) return problems;
    return [
      ...within('clearance.to', plan.clearance.to, -MOST_CLEARANCE_MM, MOST_CLEARANCE_MM, 'At most 2 mm.'),
      ...within('thicknessMm', plan.thicknessMm, 0.3, 40, 'Sheets are 0.3 to 40 mm thick.'),
      ...within('coatMm', plan.coatMm, 0, 2, 'Coats are 0 to 2 mm, both faces together.'),
      ...(drawnWidthMm(plan, plan.clearance.from) >= LEAST_WIDTH_MM
        ? []
        : [
            {
              field: 'clearance.from',
              message: 'The narrowest slot would be drawn under 0.4 mm wide: one cut alone is wider than that.',
            },
          ]),
      ...within('lengthMm', plan.lengthMm, 4, 100, 'Slots are 4 to 100 mm long.'),
      ...(plan.lengthMm > drawnWidthMm(plan, plan.clearance.to)
        ? []
        : [{ field: 'lengthMm', message: 'Slots are longer than they are wide.' }]),
      ...within('gapMm', plan.gapMm, 2, 50, 'Walls between slots are 2 to 50 mm: thinner ones give way.'),
      ...checkSettings(plan.cut, on, 'cut', 'both'),
    ];
  },
  fields: (_plan, { machine }) => [
    { path: 'thicknessMm', label: 'Sheet, as measured', as: 'length', group: 'cells' },
    {
      path: 'coatMm',
      label: 'Paint or masking',
      as: 'length',
      group: 'cells',
      hint: 'on both faces together, if parts are coated before they are put together',
    },
    { path: 'lengthMm', label: 'Slot length', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Walls between', as: 'length', group: 'cells' },
    ...cutFields(machine),
  ],
  draw: drawSlots,
  bound: (plan, { machine }) => {
    const { clearance, lengthMm, cut } = plan;
    const widthMm = drawnWidthMm(plan, clearance.to);
    const outlines = {
      count: clearance.count,
      lengthMm: 2 * (lengthMm + widthMm),
      corners: 5,
      reachMm: clearance.count * (widthMm + plan.gapMm) + lengthMm,
    };
    return boundOfLines(outlines, cut, machine);
  },
  eases: [EASES.speed('cut.speedMmPerS'), EASES.passes('cut.passes')],
  wish: () => USUAL_SLOTS_WISH,
  find: findSlots,
  settle: ({ bounds, sheetMm, missing }, layout) => {
    const [first] = layout.cells;
    if (missing.length > 0 || !bounds || !first) return [];
    const { powerFraction, speedMmPerS, passes, focusOffsetMm } = mainBurn(first).settings;
    return [
      {
        name: 'fit',
        // A fit holds for the cut that it was felt at: another one is wider, or narrower.
        at: { power: powerFraction, speed: speedMmPerS, passes, focus: focusOffsetMm },
        value: { ...boundsToKeep(bounds), thicknessMm: sheetMm },
        sigma: Math.max(bounds.from.snug.sigmaMm, bounds.from.slip.sigmaMm),
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<SlotsPlan, SlotsWish, SlotsFinding, object>);
