import { within } from '../../core/card/axis';
import { boundOfRuns, sumOfBounds } from '../../core/card/bound';
import { checkChosen } from '../../core/card/chosen-picture';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind, Pairing, PlanProblem } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { letterable } from '../../core/card/lettering';
import { constantFields, FRAME_FIELDS, type PlanField } from '../../core/card/plan-fields';
import { drawShowpiece, settingsOf } from './draw';
import { findShowpiece, SHOWPIECE_ASKS, type ShowpieceFinding } from './find';
import { SHOWPIECE_VERSION, sizedDrawing, sizesOf, upgradeShowpiecePlan, type ShowpiecePlan } from './plan';
import { proposeShowpiece, proveByShowpiece } from './propose';

const MOST_SIGNS = 24;
/** With fewer, bowls and arms of letters fall between lines of the fill, whatever the beam does. */
const LEAST_LINES = 7;

function checkWords({ words, heights, constants: { intervalMm } }: ShowpiecePlan): PlanProblem[] {
  const signs = letterable(words).replaceAll(' ', '').length;
  const { smallMm, middleMm, largeMm } = heights;
  return [
    ...(signs >= 2 && words.length <= MOST_SIGNS
      ? []
      : [{ field: 'words', message: `2 to ${MOST_SIGNS} signs, of A to Z and digits.` }]),
    ...within('heights.smallMm', smallMm, 0.3, 30, 'Capitals are 0.3 to 30 mm high.'),
    ...within('heights.middleMm', middleMm, 0.3, 30, 'Capitals are 0.3 to 30 mm high.'),
    ...within('heights.largeMm', largeMm, 0.3, 30, 'Capitals are 0.3 to 30 mm high.'),
    ...(smallMm >= LEAST_LINES * intervalMm - 1e-9
      ? []
      : [
          {
            field: 'heights.smallMm',
            message: `Capitals are at least ${LEAST_LINES} lines high: no letter has fewer.`,
          },
        ]),
    ...(smallMm < middleMm && middleMm < largeMm
      ? []
      : [{ field: 'heights.middleMm', message: 'The middle height lies between the small and the large one.' }]),
  ];
}

const fields = (_plan: ShowpiecePlan, { machine }: Pairing): readonly PlanField[] => [
  { path: 'drawing', label: 'Drawing', as: 'picture', group: 'cells' },
  { path: 'widthMm', label: 'Width', as: 'length', group: 'cells', hint: 'its height follows' },
  { path: 'crop.left', label: 'Crop from the left', as: 'share', group: 'cells' },
  { path: 'crop.top', label: 'Crop from the top', as: 'share', group: 'cells' },
  { path: 'crop.width', label: 'Crop width', as: 'share', group: 'cells' },
  { path: 'crop.height', label: 'Crop height', as: 'share', group: 'cells' },
  { path: 'words', label: 'Words', as: 'text', group: 'cells' },
  { path: 'heights.largeMm', label: 'Large capitals', as: 'length', group: 'cells' },
  { path: 'heights.middleMm', label: 'Middle capitals', as: 'length', group: 'cells' },
  { path: 'heights.smallMm', label: 'Small capitals', as: 'length', group: 'cells' },
  { path: 'hairlineMm', label: 'Thinnest hairline', as: 'length', group: 'cells', hint: 'and twice, and three times' },
  { path: 'pointMm', label: 'Smallest point', as: 'length', group: 'cells', hint: 'and twice, and three times' },
  { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
  ...constantFields(machine, 'constants', ['lineAngleDeg', 'crossHatch']),
  ...FRAME_FIELDS,
];

/** Showpiece: what do broad, small and pointed parts of a drawing do with a setting? */
export const showpiece = Object.freeze({
  kind: 'showpiece',
  name: 'Showpiece',
  purpose: 'a small drawing of yours with lettering, hairlines and points: what is the smallest that holds',
  rung: 'showpiece',
  version: SHOWPIECE_VERSION,
  edges: () => [],
  asks: SHOWPIECE_ASKS,
  propose: proposeShowpiece,
  prove: proveByShowpiece,
  upgrade: upgradeShowpiecePlan,
  check: (plan, on) => [
    ...within('widthMm', plan.widthMm, 3, 200, 'A drawing is 3 to 200 mm wide.'),
    ...checkChosen(sizedDrawing(plan), 'drawing'),
    ...checkWords(plan),
    ...within('hairlineMm', plan.hairlineMm, 0.01, 3, 'Hairlines are 0.01 to 3 mm wide.'),
    ...within('pointMm', plan.pointMm, 0.01, 3, 'Points are 0.01 to 3 mm wide.'),
    ...within('gapMm', plan.gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
    ...checkSettings(settingsOf(plan), on, 'constants'),
  ],
  fields,
  draw: drawShowpiece,
  bound: (plan, { machine }) =>
    sumOfBounds(sizesOf(plan).map((size) => boundOfRuns(size, size.runs, settingsOf(plan), machine))),
  eases: [EASES.interval('constants.intervalMm'), EASES.size('widthMm', 'drawings'), EASES.passes('constants.passes')],
  wish: () => ({}),
  find: findShowpiece,
  settle: ({ missing, settings, lettering, hairlines, points }) =>
    missing.length > 0
      ? []
      : [
          {
            name: 'showpiece',
            at: {},
            value: { settings, letteringMm: lettering, hairlineMm: hairlines, pointMm: points },
            sigma: null,
            cellIndex: null,
          },
        ],
} as const satisfies CardKind<ShowpiecePlan, object, ShowpieceFinding, object>);
