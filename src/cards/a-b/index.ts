import { within } from '../../core/card/axis';
import { boundOfFills, sumOfBounds } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind, PlanProblem } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { constantFields, FRAME_FIELDS, type PlanField } from '../../core/card/plan-fields';
import type { Machine } from '../../core/machine/machine';
import { drawAB } from './draw';
import { A_B_ASKS, findAB, outcomeOf, type ABFinding } from './find';
import { A_B_VERSION, cleanedSetup, sidesOf, upgradeABPlan, type ABPlan } from './plan';
import { proposeAB } from './propose';

const NAMES: Readonly<Record<ABPlan['what'], string>> = {
  air: 'air',
  direction: 'direction of lines',
  bothWays: 'one way or both',
  passes: 'passes',
  intervalMm: 'line interval',
  focusOffsetMm: 'focus offset',
  lineAngleDeg: 'angle of lines',
  crossHatch: 'cross-hatch',
  frequencyKHz: 'pulses',
  prepared: 'how stock was made ready',
  cleaned: 'before and after cleaning',
};

/** What can be compared on a machine. */
function choicesOn(machine: Machine): ABPlan['what'][] {
  const only: Partial<Record<ABPlan['what'], boolean>> = {
    air: machine.airAssist !== 'none',
    lineAngleDeg: machine.head === 'galvo',
    crossHatch: machine.head === 'galvo',
    frequencyKHz: machine.galvo?.frequencyKHz != null,
  };
  return (Object.keys(NAMES) as ABPlan['what'][]).filter((what) => only[what] ?? true);
}

/** The fields of what B has instead. */
function otherFields({ what }: ABPlan, machine: Machine): PlanField[] {
  if (what === 'prepared')
    return [
      {
        path: 'prepared.a',
        label: 'A, the upper row',
        as: 'text',
        group: 'cells',
        hint: 'as “masked”, “coated”, “wiped before”; the simulated bench leaves both rows bare',
      },
      { path: 'prepared.b', label: 'B, the lower row', as: 'text', group: 'cells' },
    ];
  return constantFields(machine, 'other')
    .filter(({ path }) => path === `other.${what}`)
    .map((field) => ({ ...field, label: `B has: ${field.label.toLowerCase()}`, group: 'cells' }));
}

function checkSides(plan: ABPlan, liked: Machine['likedUnits']): PlanProblem[] {
  const { a, b } = sidesOf(plan, liked);
  if (plan.what === 'prepared') {
    const problems = (['a', 'b'] as const)
      .filter((side) => plan.prepared[side].trim() === '')
      .map((side) => ({ field: `prepared.${side}`, message: 'Say how this row was made ready.' }));
    if (problems.length === 0 && a.words === b.words)
      problems.push({ field: 'prepared.b', message: 'Both rows are called the same: nothing would be compared.' });
    return problems;
  }
  if (plan.what === 'cleaned')
    return [
      ...(plan.setup.finish === 'none'
        ? [{ field: 'setup.finish', message: 'Say how it is cleaned after the burn: wiped, washed or brushed.' }]
        : []),
      ...(plan.setup.lookedAt === 'both'
        ? []
        : [{ field: 'setup.lookedAt', message: 'Cleaning is told by a photo before it and one after: look at both.' }]),
    ];
  return a.settings[plan.what] === b.settings[plan.what]
    ? [{ field: `other.${plan.what}`, message: 'B has the same as A: nothing would be compared.' }]
    : [];
}

/** A against B: does one change make a difference, by how much, and how sure is that? */
export const aB = Object.freeze({
  kind: 'a-b',
  name: 'A against B',
  purpose:
    'air on or off, lines along or across, masked or bare, cleaned or not: does it make a difference, and how large a one is excluded?',
  rung: 'grid',
  version: A_B_VERSION,
  edges: () => [],
  asks: A_B_ASKS,
  propose: proposeAB,
  upgrade: upgradeABPlan,
  follow: (plan, path) =>
    path === 'what' && plan.what === 'cleaned' ? { ...plan, setup: cleanedSetup(plan.setup) } : plan,
  check: (plan, on) => {
    const own = checkSettings(plan.constants, on, 'constants');
    const { b } = sidesOf(plan, on.machine.likedUnits);
    return [
      ...(Number.isInteger(plan.pairs) ? [] : [{ field: 'pairs', message: 'A whole number of patches.' }]),
      ...within('pairs', plan.pairs, 2, 60, '2 to 60 patches of each.'),
      ...within('patchMm', plan.patchMm, 1.5, 20, 'Patches are 1.5 to 20 mm wide.'),
      ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
      ...own,
      // What B has as A has it was told of A.
      ...checkSettings(b.settings, on, 'other').filter(({ field }) => field === `other.${plan.what}`),
      ...checkSides(plan, on.machine.likedUnits),
    ];
  },
  fields: (plan, { machine }) => [
    {
      path: 'what',
      label: 'Compare',
      as: 'choice',
      options: choicesOn(machine).map((value) => ({ value, name: NAMES[value] })),
      group: 'cells',
    },
    ...otherFields(plan, machine),
    { path: 'pairs', label: 'Patches of each', as: 'count', group: 'cells' },
    { path: 'patchMm', label: 'Patch size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants'),
    ...FRAME_FIELDS,
  ],
  draw: drawAB,
  bound: (plan, { machine }) => {
    const patch = { widthMm: plan.patchMm, heightMm: plan.patchMm };
    const { a, b } = sidesOf(plan, machine.likedUnits);
    if (plan.what === 'cleaned') return boundOfFills(plan.pairs, patch, a.settings, machine);
    return sumOfBounds([a, b].map(({ settings }) => boundOfFills(plan.pairs, patch, settings, machine)));
  },
  eases: [
    EASES.interval('constants.intervalMm'),
    EASES.size('patchMm', 'patches'),
    EASES.passes('constants.passes'),
    EASES.speed('constants.speedMmPerS'),
  ],
  wish: () => ({}),
  find: findAB,
  settle: (finding) => {
    const { a, b, sides, looks, told, eye } = finding;
    if (told === null && eye === null) return [];
    const { darker, numbers, more } = outcomeOf(finding);
    const { powerFraction, speedMmPerS, intervalMm } = sides.a;
    return [
      {
        name: 'compared',
        // The same change at another power, speed or interval is another comparison.
        at: { a, b, power: powerFraction, speed: speedMmPerS, interval: intervalMm },
        value: {
          a,
          b,
          sides,
          looks,
          darker,
          difference: numbers?.difference ?? null,
          largest: numbers?.largest ?? null,
          more,
        },
        sigma: numbers?.sigma ?? null,
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<ABPlan, object, ABFinding, object>);
