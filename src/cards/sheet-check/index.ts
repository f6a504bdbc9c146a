import { within } from '../../core/card/axis';
import { boundOfFills } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { drawSheetCheck } from './draw';
import { findSheetCheck, SHEET_CHECK_ASKS, type SheetCheckFinding } from './find';
import { PATCH_STEPS, SHEET_CHECK_VERSION, upgradeSheetCheckPlan, type SheetCheckPlan } from './plan';
import { proposeSheetCheck } from './propose';

/** Sheet check: does a setting that is kept still hold on this sheet, by half a minute of burning? */
export const sheetCheck = Object.freeze({
  kind: 'sheet-check',
  name: 'Sheet check',
  purpose: 'six patches around the kept setting: does it still hold on this sheet, and if not, by how much is it off?',
  rung: 'grid',
  renews: true,
  version: SHEET_CHECK_VERSION,
  edges: () => [],
  asks: SHEET_CHECK_ASKS,
  propose: proposeSheetCheck,
  upgrade: upgradeSheetCheckPlan,
  check: (plan, on) => [
    ...within('stepFraction', plan.stepFraction, 0.02, 0.25, 'Power changes by 2 to 25 % from patch to patch.'),
    ...within('patchMm', plan.patchMm, 1.5, 20, 'Patches are 1.5 to 20 mm wide.'),
    ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
    ...checkSettings(plan.constants, on, 'constants'),
  ],
  fields: (_plan, { machine }) => [
    { path: 'stepFraction', label: 'Power changes by', as: 'power', group: 'cells' },
    { path: 'patchMm', label: 'Patch size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants'),
    ...FRAME_FIELDS,
  ],
  draw: drawSheetCheck,
  bound: ({ patchMm, constants }, { machine }) =>
    boundOfFills(PATCH_STEPS.length, { widthMm: patchMm, heightMm: patchMm }, constants, machine),
  eases: [
    EASES.interval('constants.intervalMm'),
    EASES.size('patchMm', 'patches'),
    EASES.passes('constants.passes'),
    EASES.speed('constants.speedMmPerS'),
  ],
  wish: () => ({}),
  find: findSheetCheck,
  settle: ({ powerFraction, wanted, photo }, layout) => {
    const first = layout.cells[PATCH_STEPS.indexOf(0)];
    if (powerFraction === null || !first) return [];
    return [
      {
        name: 'engrave',
        at: wanted?.at ?? {},
        // The tone that is wanted stays what it was: checks would wander with it otherwise.
        value: {
          settings: { ...mainBurn(first).settings, powerFraction },
          lightness: wanted?.lightness ?? null,
          lightnessSigma: wanted ? Math.max(wanted.sigma, photo?.sigma ?? 0) : null,
          confidence: null,
        },
        sigma: wanted ? Math.max(wanted.sigma, photo?.sigma ?? 0) : null,
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<SheetCheckPlan, object, SheetCheckFinding, object>);
