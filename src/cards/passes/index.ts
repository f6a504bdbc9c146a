import { within } from '../../core/card/axis';
import { boundOfLines } from '../../core/card/bound';
import { checkSettings, checkSpeed } from '../../core/card/check-settings';
import type { CardKind, Pairing } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { cutFields, type PlanField } from '../../core/card/plan-fields';
import { atTip } from '../../core/motion/tip';
import { formatSpeed, plainNumber } from '../../core/quantities/format';
import { drawPasses, widthOf } from './draw';
import { findPasses, PASSES_ASKS, type PassesFinding } from './find';
import {
  MOST_PASSES_TRIED,
  MOST_REPEATS,
  PASSES_VERSION,
  settingsFor,
  upgradePassesPlan,
  type PassesPlan,
} from './plan';
import { proposePasses } from './propose';

/** What a head does at the tips, in words: the sharper, the slower. */
function tipHint({ tipDeg, cut }: PassesPlan, { machine }: Pairing): string {
  if (!(tipDeg > 0 && tipDeg < 180)) return '';
  const { speedMmPerS, energyTimes } = atTip(tipDeg, cut.speedMmPerS, machine);
  const slows = `the head goes round them at ${formatSpeed(speedMmPerS, machine.likedUnits)}`;
  return energyTimes > 1.05
    ? `${slows}: ${plainNumber(energyTimes, 2)} times the energy there, in one pass. A flame can stand on them`
    : slows;
}

const fields = (plan: PassesPlan, on: Pairing): readonly PlanField[] => [
  { path: 'most', label: 'Up to passes', as: 'count', group: 'cells' },
  { path: 'repeats', label: 'Of each', as: 'count', group: 'cells' },
  { path: 'sizeMm', label: 'Height of a shape', as: 'length', group: 'cells' },
  { path: 'tipDeg', label: 'Angle of its tip', as: 'number', unit: '°', group: 'cells', hint: tipHint(plan, on) },
  { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
  ...cutFields(on.machine, ['passes']),
];

/** Passes: how many keep fine detail, at one energy? */
export const passes = Object.freeze({
  kind: 'passes',
  name: 'Passes',
  purpose: 'sharp shapes cut with one energy in one pass, in two, in more: which is the first that drops them whole',
  rung: 'passes',
  version: PASSES_VERSION,
  edges: () => [],
  asks: PASSES_ASKS,
  propose: proposePasses,
  upgrade: upgradePassesPlan,
  check: (plan, on) => [
    ...within('most', plan.most, 2, MOST_PASSES_TRIED, `2 to ${MOST_PASSES_TRIED} passes are tried.`),
    ...within('repeats', plan.repeats, 1, MOST_REPEATS, `1 to ${MOST_REPEATS} of each.`),
    ...within('sizeMm', plan.sizeMm, 4, 40, 'Shapes are 4 to 40 mm high.'),
    ...within('tipDeg', plan.tipDeg, 15, 90, 'Tips have 15 to 90°.'),
    ...within('gapMm', plan.gapMm, 1, 20, 'Gaps are 1 to 20 mm.'),
    ...checkSettings(plan.cut, on, 'cut', 'both'),
    ...(plan.cut.passes === 1 ? [] : [{ field: 'cut.passes', message: 'The first column is one pass.' }]),
    ...checkSpeed('most', settingsFor(plan, plan.most).speedMmPerS, 'both', on),
  ],
  fields,
  draw: drawPasses,
  bound: (plan, { machine }) => {
    const side = plan.sizeMm / Math.cos((plan.tipDeg / 2) * (Math.PI / 180));
    const outline = {
      count: plan.most * plan.repeats,
      lengthMm: 2 * side + widthOf(plan),
      corners: 4,
      reachMm: plan.sizeMm + widthOf(plan),
    };
    // All lay down one energy: each takes about as long as one pass, and its corners.
    return boundOfLines(outline, { speedMmPerS: plan.cut.speedMmPerS, passes: plan.most }, machine);
  },
  eases: [EASES.speed('cut.speedMmPerS'), EASES.size('sizeMm', 'shapes')],
  wish: () => ({}),
  find: findPasses,
  settle: ({ best, missing }) => {
    if (missing.length > 0 || !best) return [];
    return [
      {
        name: 'passes',
        at: {},
        value: { settings: best.settings, dropped: best.dropped },
        sigma: null,
        cellIndex: best.cells[0] ?? null,
      },
    ];
  },
} as const satisfies CardKind<PassesPlan, object, PassesFinding, object>);
