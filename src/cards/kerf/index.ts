import { within } from '../../core/card/axis';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { cutFields } from '../../core/card/plan-fields';
import { boundKerf } from './bound';
import { drawKerf } from './draw';
import { findKerf, KERF_ASKS, type KerfFinding } from './find';
import { KERF_VERSION, upgradeKerfPlan, type KerfPlan } from './plan';
import { proposeKerf } from './propose';

const MOST_SQUARES = 12;
/** The large squares are wider than the small ones by so much at the least. */
const LEAST_RATIO = 1.5;

/** Kerf: how much does a cut take away? */
export const kerf = Object.freeze({
  kind: 'kerf',
  name: 'Kerf squares',
  purpose: 'squares cut out and measured with calipers: what they lack is the kerf',
  rung: 'kerf',
  version: KERF_VERSION,
  edges: () => [],
  asks: KERF_ASKS,
  propose: proposeKerf,
  upgrade: upgradeKerfPlan,
  check: (plan, on) => [
    ...within('sizeMm', plan.sizeMm, 5, 100, 'Squares are 5 to 100 mm wide.'),
    ...(plan.smallMm === null
      ? []
      : [
          ...within('smallMm', plan.smallMm, 5, 100, 'Squares are 5 to 100 mm wide.'),
          ...(plan.smallMm * LEAST_RATIO <= plan.sizeMm
            ? []
            : [
                {
                  field: 'smallMm',
                  message: 'Small squares are at most two thirds as wide: sizes too near tell nothing apart.',
                },
              ]),
        ]),
    ...within('gapMm', plan.gapMm, 1, 50, 'Gaps are 1 to 50 mm.'),
    ...(Number.isInteger(plan.count) && plan.count >= 1 && plan.count <= MOST_SQUARES
      ? []
      : [{ field: 'count', message: `1 to ${MOST_SQUARES} squares.` }]),
    ...checkSettings(plan.cut, on, 'cut', 'both'),
  ],
  fields: (_plan, { machine }) => [
    { path: 'sizeMm', label: 'Square size', as: 'length', group: 'cells' },
    {
      path: 'smallMm',
      label: 'Small squares',
      as: 'length',
      optional: true,
      group: 'cells',
      hint: 'a second size tells the kerf from an axis that goes too far; empty for none',
    },
    { path: 'count', label: 'Squares of each size', as: 'count', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...cutFields(machine),
  ],
  draw: drawKerf,
  bound: boundKerf,
  eases: [EASES.speed('cut.speedMmPerS'), EASES.passes('cut.passes')],
  wish: () => ({}),
  find: findKerf,
  settle: ({ x, y, missing }, layout) => {
    const first = layout.cells[0];
    if (missing.length > 0 || !first || (!x && !y)) return [];
    const { powerFraction, speedMmPerS, passes, focusOffsetMm } = mainBurn(first).settings;
    return [
      {
        name: 'kerf',
        // A kerf holds for the cut that it was measured at.
        at: { power: powerFraction, speed: speedMmPerS, passes, focus: focusOffsetMm },
        value: { xMm: x?.kerf.mean ?? null, yMm: y?.kerf.mean ?? null },
        sigma: Math.max(x?.kerf.combined ?? 0, y?.kerf.combined ?? 0),
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<KerfPlan, object, KerfFinding, object>);
