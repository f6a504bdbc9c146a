import { within } from '../../core/card/axis';
import { boundOfLines } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind, PlanProblem } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { cutFields, type PlanField } from '../../core/card/plan-fields';
import { drawFocusCuts } from './draw';
import { CUT_FOCUS_ASKS, findCutFocus, type CutFocusFinding } from './find';
import { burnsOf, CUT_FOCUS_VERSION, MOST_REPEATS, upgradeCutFocusPlan, waysOf, type CutFocusPlan } from './plan';
import { proposeCutFocus } from './propose';

/** Cut focus: where in the sheet does the sharp point cut straightest? */
export const cutFocus = Object.freeze({
  kind: 'cut-focus',
  name: 'Cut focus',
  purpose: 'squares cut with the focus on the face, in the middle, and lower with each pass: which edge is straightest',
  rung: 'cut-focus',
  version: CUT_FOCUS_VERSION,
  edges: () => [],
  asks: CUT_FOCUS_ASKS,
  propose: proposeCutFocus,
  upgrade: upgradeCutFocusPlan,
  check: (plan, on) => {
    const problems: PlanProblem[] = [
      ...within('repeats', plan.repeats, 1, MOST_REPEATS, `1 to ${MOST_REPEATS} of each.`),
      ...within('sizeMm', plan.sizeMm, 4, 40, 'Squares are 4 to 40 mm wide.'),
      ...within('gapMm', plan.gapMm, 1, 20, 'Gaps are 1 to 20 mm.'),
      ...within('thicknessMm', plan.thicknessMm, 0.3, 40, 'Sheets are 0.3 to 40 mm thick.'),
      ...(plan.steps && !on.machine.automaticFocus
        ? [{ field: 'steps', message: 'This machine does not focus by itself between passes.' }]
        : []),
      ...(plan.steps && plan.cut.passes < 2
        ? [{ field: 'cut.passes', message: 'In one pass there is nothing to step: take two at the least.' }]
        : []),
    ];
    if (problems.length > 0) return problems;
    return waysOf(plan)
      .flatMap((way) => burnsOf(plan, way))
      .flatMap((settings) => checkSettings(settings, on, 'cut', 'both'))
      .filter(({ field }, index, all) => all.findIndex((other) => other.field === field) === index)
      .map((problem) => (problem.field === 'cut.focusOffsetMm' ? { ...problem, field: 'thicknessMm' } : problem));
  },
  fields: (_plan, { machine }) => [
    ...(machine.automaticFocus
      ? ([{ path: 'steps', label: 'Lower with each pass, too', as: 'flag', group: 'cells' }] as const)
      : []),
    { path: 'repeats', label: 'Of each', as: 'count', group: 'cells' },
    { path: 'sizeMm', label: 'Square size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    { path: 'thicknessMm', label: 'Sheet, as measured', as: 'length', group: 'cells' } satisfies PlanField,
    ...cutFields(machine, ['focusOffsetMm']),
  ],
  draw: drawFocusCuts,
  bound: (plan, { machine }) => {
    const count = waysOf(plan).length * plan.repeats;
    const squares = { count, lengthMm: 4 * plan.sizeMm, corners: 6 + 8 * plan.cut.passes, reachMm: plan.sizeMm };
    return boundOfLines(squares, plan.cut, machine);
  },
  eases: [EASES.speed('cut.speedMmPerS'), EASES.passes('cut.passes'), EASES.size('sizeMm', 'squares')],
  wish: () => ({}),
  find: findCutFocus,
  settle: ({ best, missing }) => {
    if (missing.length > 0 || !best) return [];
    const { way, burns, taper, cells } = best;
    return [
      {
        name: 'cutFocus',
        at: {},
        value: { way, focusOffsetMm: burns[0]!.focusOffsetMm, taperMm: taper?.mm ?? null },
        sigma: taper?.sigmaMm ?? null,
        cellIndex: cells[0] ?? null,
      },
    ];
  },
} as const satisfies CardKind<CutFocusPlan, object, CutFocusFinding, object>);
