import { within } from '../../core/card/axis';
import { boundOfFills, withStationFrames } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind, PlanProblem } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { constantFields, STATION_FRAME_FIELDS } from '../../core/card/plan-fields';
import { formatLength } from '../../core/quantities/format';
import { BED_CORNERS } from '../../core/book/fact-values';
import type { FactDraft } from '../../core/book/facts';
import { drawBed } from './draw';
import { BED_ASKS, findBed, type BedFinding } from './find';
import { BED_VERSION, leastSpanMm, upgradeBedPlan, type BedPlan } from './plan';
import { proposeBed } from './propose';

const PLACES = { least: 2, most: 5 } as const;

/** Whole numbers of places along an axis, and room for them. */
function checkPlaces(plan: BedPlan, field: 'columns' | 'rows'): PlanProblem[] {
  const words = `${PLACES.least} to ${PLACES.most} ${field} of places.`;
  return Number.isInteger(plan[field])
    ? within(field, plan[field], PLACES.least, PLACES.most, words)
    : [{ field, message: words }];
}

/** Bed: is the sheet level under the head, and the beam as strong all over? */
export const bed = Object.freeze({
  kind: 'bed',
  name: 'Bed',
  purpose:
    'three patches at each of nine places all over the bed, below, at and above the focus: is the bed level, and the beam even?',
  rung: 'bed',
  version: BED_VERSION,
  edges: () => [],
  asks: BED_ASKS,
  propose: proposeBed,
  upgrade: upgradeBedPlan,
  check: (plan, on) => {
    const { machine } = on;
    const sizes = [
      ...checkPlaces(plan, 'columns'),
      ...checkPlaces(plan, 'rows'),
      ...within('patchMm', plan.patchMm, 2, 20, 'Patches are 2 to 20 mm wide.'),
      ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
    ];
    const least = (count: number, axis: 'across' | 'down'): number => leastSpanMm(count, plan, axis);
    const span = (path: 'acrossMm' | 'downMm', count: number, axis: 'across' | 'down', bedMm: number): PlanProblem[] =>
      within(
        path,
        plan[path],
        least(count, axis),
        bedMm,
        `So many places need ${formatLength(least(count, axis), machine.likedUnits, 3)} at the least, and the bed is ${formatLength(bedMm, machine.likedUnits)}.`,
      );
    return [
      ...sizes,
      ...(sizes.length > 0
        ? []
        : [
            ...span('acrossMm', plan.columns, 'across', machine.bedWidthMm),
            ...span('downMm', plan.rows, 'down', machine.bedDepthMm),
          ]),
      ...within('offsetMm', plan.offsetMm, 0.1, 10, 'The head is lowered and raised by 0.1 to 10 mm.'),
      ...checkSettings({ ...plan.constants, focusOffsetMm: 0 }, on, 'constants'),
      ...(plan.frame.markers === 'on-sheet'
        ? [
            {
              field: 'frame.markers',
              message: 'Each place needs markers of its own: they tell which one a photo shows.',
            },
          ]
        : []),
    ];
  },
  fields: (_plan, { machine }) => [
    { path: 'columns', label: 'Places from left to right', as: 'count', group: 'cells' },
    { path: 'rows', label: 'Places from rear to front', as: 'count', group: 'cells' },
    { path: 'acrossMm', label: 'From the first to the last', as: 'length', group: 'cells' },
    { path: 'downMm', label: 'From rear to front', as: 'length', group: 'cells' },
    { path: 'offsetMm', label: 'Head lowered and raised by', as: 'length', group: 'cells' },
    { path: 'patchMm', label: 'Patch size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants', ['focusOffsetMm']),
    ...STATION_FRAME_FIELDS,
  ],
  draw: drawBed,
  bound: ({ columns, rows, patchMm, constants }, { machine }) => {
    const places = columns * rows;
    const patches = boundOfFills(
      3 * places,
      { widthMm: patchMm, heightMm: patchMm },
      { ...constants, focusOffsetMm: 0 },
      machine,
    );
    return withStationFrames(patches, places);
  },
  eases: [
    EASES.interval('constants.intervalMm'),
    EASES.size('patchMm', 'patches'),
    { path: 'columns', by: 'less', step: 1, says: (count: number) => `${count} places from left to right` },
    EASES.passes('constants.passes'),
  ],
  wish: () => ({}),
  find: findBed,
  settle: ({ verdict, corners, middle, focusDepthMm, drifts, widthMm, depthMm, missing }) => {
    if (verdict === null || !middle || missing.length > 0) return [];
    const rounded = (mm: number): number => Math.round(mm * 1000) / 1000 + 0;
    const toward = (side: 'right' | 'front', other: 'left' | 'rear'): number | null => {
      const drift = drifts.find((one) => one.toward === side || one.toward === other);
      return drift ? rounded(drift.toward === side ? drift.strongerL : -drift.strongerL) : null;
    };
    const heights = Object.fromEntries(
      BED_CORNERS.map((corner) => [corner, rounded(corners.find((one) => one.corner === corner)!.value)]),
    ) as Record<(typeof BED_CORNERS)[number], number>;
    const fact: FactDraft = {
      name: 'bed',
      at: {},
      value: {
        widthMm: rounded(widthMm),
        depthMm: rounded(depthMm),
        corners: heights,
        middleMm: rounded(middle.value),
        focusDepthMm: focusDepthMm === null ? null : rounded(focusDepthMm),
        verdict,
        strongerToRight: toward('right', 'left'),
        strongerToFront: toward('front', 'rear'),
      },
      // Of a corner over the opposite one, the less sure of both pairs.
      sigma: 2 * Math.max(...corners.map((one) => one.sigma)),
      cellIndex: null,
    };
    return [fact];
  },
} as const satisfies CardKind<BedPlan, object, BedFinding, object>);
