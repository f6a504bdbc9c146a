import { within } from '../../core/card/axis';
import { boundOfLines } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { cutFields, type PlanField } from '../../core/card/plan-fields';
import { boundsToKeep } from '../../core/fit/fit-bounds';
import { knobOutline, knobReachMm, mostOffsetMm } from '../../core/joint/knob';
import { cutHereOf, drawKnobs } from './draw';
import { findKnobs, KNOBS_ASKS, USUAL_KNOBS_WISH, type KnobsFinding, type KnobsWish } from './find';
import { KNOBS_VERSION, MOST_MATES, mostMovedMm, upgradeKnobsPlan, type KnobsPlan } from './plan';
import { proposeKnobs } from './propose';

/** An outline is moved by no more than this share of its smallest radius: past it a round place is a corner. */
const MOST_MOVED = 0.9;
const LEAST_PAIRS = 4;

const fields = (plan: KnobsPlan): readonly PlanField[] => [
  {
    path: 'shape',
    label: 'Shape',
    as: 'choice',
    options: [
      { value: 'knob', name: 'a knob on a neck' },
      { value: 'round', name: 'a disc' },
      { value: 'square', name: 'a square, corners round' },
    ],
    group: 'cells',
  },
  { path: 'headMm', label: 'Across', as: 'length', group: 'cells', hint: 'of a knob its head' },
  { path: 'holes', label: 'Holes', as: 'count', group: 'cells' },
  { path: 'parts', label: 'Parts', as: 'count', group: 'cells' },
  {
    path: 'fromMm',
    label: 'Loosest pair, tighter a side',
    as: 'offset',
    group: 'cells',
    hint: 'what hole and part together are drawn tighter on every side; minus is looser',
  },
  { path: 'stepMm', label: 'Each next pair by', as: 'length', group: 'cells', hint: 'a side; twice that full width' },
  {
    path: 'cutHere',
    label: 'This sheet has',
    as: 'choice',
    options: [
      { value: 'both', name: 'holes and parts' },
      { value: 'holes', name: 'the holes of an inlay' },
      { value: 'parts', name: 'the parts of an inlay' },
    ],
    group: 'cells',
    hint: 'an inlay of two stocks is two cards: plan both with the same shape and steps',
  },
  ...(plan.cutHere === 'both'
    ? []
    : ([
        { path: 'otherStock', label: 'The other half is of', as: 'text', group: 'cells' },
        { path: 'otherKerfMm', label: 'Kerf of the other half, full width', as: 'length', group: 'cells' },
      ] as const)),
  { path: 'kerfMm', label: 'Kerf here, full width', as: 'length', group: 'cells' },
  { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
];

/** Knobs and inlays: how much tighter are a hole and a part drawn that shall hold together? */
export const knobs = Object.freeze({
  kind: 'knobs',
  name: 'Knobs and inlays',
  purpose:
    'holes and parts of one shape, put together in every way: only the sum of what they are drawn tighter counts',
  rung: 'fit',
  version: KNOBS_VERSION,
  edges: () => [],
  asks: KNOBS_ASKS,
  propose: proposeKnobs,
  upgrade: upgradeKnobsPlan,
  check: (plan, on) => {
    const { holes, parts, headMm, shape, cutHere, kerfMm, otherKerfMm, gapMm } = plan;
    const problems = [
      ...within('holes', holes, 1, MOST_MATES, `1 to ${MOST_MATES} holes.`),
      ...within('parts', parts, 1, MOST_MATES, `1 to ${MOST_MATES} parts.`),
      ...within('headMm', headMm, 6, 60, 'Heads are 6 to 60 mm across.'),
      ...within('stepMm', plan.stepMm, 0.001, 0.5, 'Steps are 0.001 to 0.5 mm.'),
    ];
    if (problems.length > 0) return problems;
    const most = MOST_MOVED * mostOffsetMm(shape, headMm);
    return [
      ...(holes * parts >= LEAST_PAIRS
        ? []
        : [{ field: 'parts', message: `Holes and parts make ${LEAST_PAIRS} pairs at the least.` }]),
      ...(mostMovedMm(plan) <= most
        ? []
        : [
            {
              field: 'stepMm',
              message: `The last outline would be moved by more than ${Math.round(most * 100) / 100} mm: its round places would be corners.`,
            },
          ]),
      ...within('kerfMm', kerfMm, 0, 2, 'A cut is 0 to 2 mm wide.'),
      ...(cutHere === 'both' ? [] : within('otherKerfMm', otherKerfMm, 0, 2, 'A cut is 0 to 2 mm wide.')),
      ...within('gapMm', gapMm, 3, 50, 'Gaps are 3 to 50 mm: thinner ones give way.'),
      ...checkSettings(plan.cut, on, 'cut', 'both'),
    ];
  },
  fields: (plan, { machine }) => [...fields(plan), ...cutFields(machine)],
  draw: drawKnobs,
  bound: (plan, { machine }) => {
    const { shape, headMm, gapMm } = plan;
    const { up, down } = knobReachMm(shape, headMm);
    const most = mostMovedMm(plan);
    const outlines = {
      count: cutHereOf(plan).length,
      // No outline is longer than the rectangle around it.
      lengthMm: 2 * (headMm + up + down + 4 * most),
      corners: knobOutline(shape, headMm, most).length + 1,
      reachMm: headMm + gapMm + up + down,
    };
    return boundOfLines(outlines, plan.cut, machine);
  },
  eases: [EASES.speed('cut.speedMmPerS'), EASES.passes('cut.passes')],
  wish: () => USUAL_KNOBS_WISH,
  find: findKnobs,
  settle: ({ bounds, mates, missing }, layout) => {
    const [first] = layout.cells;
    if (missing.length > 0 || !bounds || !mates || !first) return [];
    const { powerFraction, speedMmPerS, passes, focusOffsetMm } = mainBurn(first).settings;
    const { otherStock, kerfMm, own } = mates;
    return [
      {
        name: 'mating',
        // A joint holds for the cut that it was felt at, and for what the other half is of.
        at: {
          power: powerFraction,
          speed: speedMmPerS,
          passes,
          focus: focusOffsetMm,
          ...(otherStock === null
            ? {}
            : { part: `${own === 'hole' ? 'parts' : 'holes'} of ${otherStock.trim() || 'another stock'}` }),
        },
        value: { ...boundsToKeep(bounds), holeKerfMm: kerfMm.hole, partKerfMm: kerfMm.part },
        sigma: Math.max(bounds.from.snug.sigmaMm, bounds.from.slip.sigmaMm) / 2,
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<KnobsPlan, KnobsWish, KnobsFinding, object>);
