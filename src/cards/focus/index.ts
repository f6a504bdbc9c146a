import type { FactDraft } from '../../core/book/facts';
import { checkAxis, within } from '../../core/card/axis';
import { boundOfFills } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind, PlanProblem } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { drawFocus } from './draw';
import { findFocus, FOCUS_ASKS, type FocusFinding } from './find';
import { STEEPEST } from '../../core/card/tilt';
import { fallOf, FOCUS_VERSION, leastSpacerMm, upgradeFocusPlan, type FocusPlan } from './plan';
import { proposeFocus, withWay } from './propose';

const MOST_PATCHES = 15;

/** What cannot be laid over a tilted board. */
const tiltProblems = (plan: FocusPlan): PlanProblem[] => [
  ...within(
    'spacerMm',
    plan.spacerMm,
    leastSpacerMm(plan),
    60,
    `A spacer of ${leastSpacerMm(plan)} to 60 mm: a thinner one would stand under the card, and the board tip over.`,
  ),
  ...(plan.focus.from < 0 && plan.focus.to > 0
    ? []
    : [{ field: 'focus.from', message: 'Over a tilted board offsets go through 0, where you set the focus.' }]),
  ...(fallOf(plan) <= STEEPEST
    ? []
    : [
        {
          field: 'focus.to',
          message: 'Steeper than 1 in 6: boards slide. Take less of a range, more or wider patches.',
        },
      ]),
];

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
    ...(plan.way === 'tilt' ? tiltProblems(plan) : []),
  ],
  follow: (plan, path, before, on) => (path === 'way' && plan.way !== before.way ? withWay(plan, on) : plan),
  fields: (plan, { machine }) => [
    {
      path: 'way',
      label: 'Offsets come by',
      as: 'choice',
      options: [
        { value: 'stops', name: machine.automaticFocus ? 'the motor, patch by patch' : 'your hand, patch by patch' },
        { value: 'tilt', name: 'a tilted board, in one burn' },
      ],
      group: 'cells',
      hint: 'over a tilted board nothing stops: its left end stands on a spacer, and the card says where',
    },
    ...(plan.way === 'tilt'
      ? [
          {
            path: 'spacerMm',
            label: 'Spacer',
            as: 'length',
            group: 'cells',
            hint: 'any that you have: the card says where it stands',
          } as const,
        ]
      : []),
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
    if (waistMm !== null && missing.length === 0)
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
