import { checkAxis, within } from '../../core/card/axis';
import { boundOfLines, sumOfBounds } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { cutFields, type PlanField } from '../../core/card/plan-fields';
import { linksOf, type CutLattice } from '../../core/hinge/bend';
import { PATTERN_NAMES, pitchOf } from '../../core/hinge/lattice';
import { drawHinges } from './draw';
import { findHinge, HINGE_ASKS, USUAL_HINGE_WISH, type HingeFinding, type HingeWish } from './find';
import { HINGE_VERSION, MOST_SAMPLES, stripsOf, upgradeHingePlan, type HingePlan } from './plan';
import { proposeHinge, withPattern } from './propose';

/** Thinner links burn through, or break when they are lifted out (from memory, without a source). */
const LEAST_LINK_MM = 0.3;

/** Why a lattice cannot be cut; null where it can. */
function linkProblem(lattice: CutLattice): string | null {
  try {
    const { widthMm } = linksOf(lattice);
    return widthMm >= LEAST_LINK_MM ? null : 'The cut leaves less than 0.3 mm between two slits: nothing would hold.';
  } catch (error) {
    return (error as RangeError).message;
  }
}

const fields = (plan: HingePlan): readonly PlanField[] => [
  {
    path: 'pattern',
    label: 'Slits',
    as: 'choice',
    options: [
      { value: 'rows', name: 'in staggered rows: bends one way' },
      { value: 'crossed', name: 'crossed: bends both ways' },
      { value: 'both', name: 'both, side by side' },
    ],
    group: 'cells',
  },
  { path: 'slitMm', label: 'Slit length', as: 'length', group: 'cells', hint: 'longer ones bend further' },
  ...(plan.pattern === 'crossed'
    ? []
    : ([{ path: 'bridgeMm', label: 'Between their ends', as: 'length', group: 'cells' }] as const)),
  ...(plan.pattern === 'both'
    ? ([
        { path: 'crossed.slitMm', label: 'Crossed slits, length', as: 'length', group: 'cells' },
        { path: 'crossed.between.from', label: 'Between their ends, from', as: 'length', group: 'cells' },
        { path: 'crossed.between.to', label: 'Between their ends, to', as: 'length', group: 'cells' },
        { path: 'crossed.between.count', label: 'Strips of crossed slits', as: 'count', group: 'cells' },
      ] as const)
    : []),
  { path: 'widthMm', label: 'Strip width', as: 'length', group: 'cells' },
  { path: 'fieldMm', label: 'Slits over', as: 'length', group: 'cells' },
  { path: 'holdMm', label: 'To hold it by', as: 'length', group: 'cells', hint: 'at either end' },
  { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
  { path: 'thicknessMm', label: 'Sheet, as measured', as: 'length', group: 'cells' },
  { path: 'kerfMm', label: 'Kerf, full width', as: 'length', group: 'cells' },
];

/** Hinge: how far does a sheet bend that was slit? */
export const hinge = Object.freeze({
  kind: 'hinge',
  name: 'Hinge strips',
  purpose:
    'strips full of slits, bent round smaller and smaller things: what radius holds, and the hinge for a wanted bend',
  rung: 'hinge',
  version: HINGE_VERSION,
  edges: () => [{ channel: 'pitch', edge: 'below', path: 'pitch', mostSteps: MOST_SAMPLES }],
  follow: (plan, path, before) =>
    path === 'pattern' && plan.pattern !== before.pattern ? withPattern(plan, plan.pattern) : plan,
  asks: HINGE_ASKS,
  propose: proposeHinge,
  upgrade: upgradeHingePlan,
  check: (plan, on) => {
    const problems = [
      ...checkAxis(plan.pitch, { path: 'pitch', word: 'Pitch', mostSteps: MOST_SAMPLES }),
      ...(plan.pattern === 'both'
        ? checkAxis(plan.crossed.between, { path: 'crossed.between', word: 'Between ends', mostSteps: MOST_SAMPLES })
        : []),
    ];
    if (problems.length > 0) return problems;
    const strips = stripsOf(plan);
    const link = strips.flatMap(({ lattice }) => {
      const message = linkProblem(lattice);
      const isOther = plan.pattern === 'both' && lattice.pattern === 'crossed';
      return message === null ? [] : [{ field: isOther ? 'crossed.between.from' : 'pitch.from', message }];
    })[0];
    return [
      ...within('slitMm', plan.slitMm, 3, 100, 'Slits are 3 to 100 mm long.'),
      ...within('bridgeMm', plan.bridgeMm, 0.5, 50, '0.5 to 50 mm stand between the ends of slits.'),
      ...within('widthMm', plan.widthMm, 8, 200, 'Strips are 8 to 200 mm wide.'),
      ...within('fieldMm', plan.fieldMm, 6, 200, 'Slits are cut over 6 to 200 mm.'),
      ...within('holdMm', plan.holdMm, 3, 50, 'A strip is held by 3 to 50 mm.'),
      ...within('gapMm', plan.gapMm, 1, 20, 'Gaps are 1 to 20 mm.'),
      ...within('thicknessMm', plan.thicknessMm, 0.3, 40, 'Sheets are 0.3 to 40 mm thick.'),
      ...within('kerfMm', plan.kerfMm, 0, 2, 'A cut is 0 to 2 mm wide.'),
      ...(plan.pattern === 'both'
        ? within('crossed.slitMm', plan.crossed.slitMm, 3, 100, 'Slits are 3 to 100 mm long.')
        : []),
      ...(link === undefined ? [] : [link]),
      ...(plan.fieldMm >= 2 * Math.max(...strips.map(({ lattice }) => pitchOf(lattice)))
        ? []
        : [{ field: 'fieldMm', message: 'Two rows at the least have room in a field.' }]),
      ...checkSettings(plan.cut, on, 'cut', 'both'),
    ];
  },
  fields: (plan, { machine }) => [...fields(plan), ...cutFields(machine)],
  draw: drawHinges,
  bound: (plan, { machine }) =>
    sumOfBounds(
      stripsOf(plan).map(({ lattice }) => {
        const pitch = pitchOf(lattice);
        const rows = Math.ceil(plan.fieldMm / pitch) + 1;
        const inRow =
          Math.ceil(plan.widthMm / (lattice.pattern === 'rows' ? lattice.slitMm + lattice.bridgeMm : pitch)) + 2;
        const slits = { count: rows * inRow, lengthMm: lattice.slitMm, corners: 2, reachMm: lattice.slitMm + pitch };
        const strip = {
          count: 1,
          lengthMm: 2 * (plan.widthMm + plan.fieldMm + 2 * plan.holdMm),
          corners: 5,
          reachMm: plan.widthMm + plan.fieldMm,
        };
        return sumOfBounds([boundOfLines(slits, plan.cut, machine), boundOfLines(strip, plan.cut, machine)]);
      }),
    ),
  eases: [EASES.speed('cut.speedMmPerS'), EASES.passes('cut.passes')],
  wish: () => USUAL_HINGE_WISH,
  find: findHinge,
  settle: ({ strengths, missing }) => {
    if (missing.length > 0) return [];
    return strengths.map(({ pattern, strength: { median, logSpread, samples } }) => ({
      name: 'hinge' as const,
      at: { part: PATTERN_NAMES[pattern] },
      value: { strength: median, logSpread, samples },
      sigma: (median * logSpread) / Math.sqrt(samples),
      cellIndex: null,
    }));
  },
} as const satisfies CardKind<HingePlan, HingeWish, HingeFinding, object>);
