import type { FactDraft } from '../../core/book/facts';
import { checkAxis, within } from '../../core/card/axis';
import { boundOfFills } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { drawFocus } from './draw';
import { findFocus, FOCUS_ASKS, type FocusFinding } from './find';
import { FOCUS_VERSION, upgradeFocusPlan, type FocusPlan } from './plan';
import { proposeFocus } from './propose';

const MOST_PATCHES = 15;

/** Focus: where is it sharp, and at which offset do the gaps of a fill close? */
export const focus = Object.freeze({
  kind: 'focus',
  name: 'Focus patches',
  purpose: 'the same patch above and below the focus you set: where it is sharp, and where the gaps of a fill close',
  rung: 'focus',
  version: FOCUS_VERSION,
  edges: () => [{ channel: 'focus', edge: 'below', path: 'focus', mostSteps: MOST_PATCHES }],
  asks: FOCUS_ASKS,
  propose: proposeFocus,
  upgrade: upgradeFocusPlan,
  check: (plan, on) => [
    ...checkAxis(plan.focus, { path: 'focus', word: 'Focus offset', above: -Infinity, mostSteps: MOST_PATCHES }),
    ...within('focus.from', plan.focus.from, -20, 20, 'Focus offset is -20 to 20 mm.'),
    ...within('focus.to', plan.focus.to, -20, 20, 'Focus offset is -20 to 20 mm.'),
    ...checkSettings({ ...plan.constants, focusOffsetMm: 0 }, on, 'constants'),
    ...within('patchMm', plan.patchMm, 1, 50, 'Patches are 1 to 50 mm wide.'),
    ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
  ],
  fields: (_plan, { machine }) => [
    { path: 'patchMm', label: 'Patch size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants', ['focusOffsetMm']),
    ...FRAME_FIELDS,
  ],
  draw: drawFocus,
  bound: ({ focus: { count }, patchMm, constants }, { machine }) =>
    boundOfFills(count, { widthMm: patchMm, heightMm: patchMm }, { ...constants, focusOffsetMm: 0 }, machine),
  eases: [EASES.interval('constants.intervalMm'), EASES.size('patchMm', 'patches'), EASES.passes('constants.passes')],
  wish: () => ({}),
  find: findFocus,
  settle: ({ fillMm, flat, sigmaMm, cellIndex, waistMm, waistSigmaMm, depthMm, missing }) => {
    const rounded = (mm: number): number => Math.round(mm * 100) / 100 + 0;
    const facts: FactDraft[] = [];
    if (fillMm !== null)
      facts.push({ name: 'focus', at: {}, value: { focusOffsetMm: rounded(fillMm), flat }, sigma: sigmaMm, cellIndex });
    // All offsets alike tell no waist.
    if (waistMm !== null && !flat && missing.length === 0)
      facts.push({
        name: 'waist',
        at: {},
        value: { offsetMm: rounded(waistMm), depthMm: depthMm === null ? null : rounded(depthMm) },
        sigma: waistSigmaMm,
        cellIndex: null,
      });
    return facts;
  },
} as const satisfies CardKind<FocusPlan, object, FocusFinding, object>);
