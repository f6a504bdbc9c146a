import { checkAxis, within } from '../../core/card/axis';
import { checkPower, checkSettings } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { boundLines } from './bound';
import { drawLines, lineSettings } from './draw';
import { findLineWidth, LINE_WIDTH_ASKS, type LineWidthFinding } from './find';
import { LINE_WIDTH_VERSION, upgradeLineWidthPlan, type LineWidthPlan } from './plan';
import { proposeLines } from './propose';

const MOST_REPEATS = 8;

/** Line width: how wide does one line mark, and what does that say of the beam? */
export const lineWidth = Object.freeze({
  kind: 'line-width',
  name: 'Single lines',
  purpose:
    'single lines from faint to strong: how wide each marks, the beam across them, and from which power on it marks',
  rung: 'line',
  version: LINE_WIDTH_VERSION,
  edges: () => [{ channel: 'power', edge: 'left', path: 'power', mostSteps: 20 }],
  asks: LINE_WIDTH_ASKS,
  propose: proposeLines,
  upgrade: upgradeLineWidthPlan,
  check: (plan, on) => {
    const ends = checkAxis(plan.power, { path: 'power', word: 'Power' });
    const settings = lineSettings(plan, ends.length > 0 ? on.machine.powerCap : plan.power.to);
    return [
      ...ends,
      ...(ends.length > 0 ? [] : checkPower('power.to', plan.power.to, on)),
      ...checkSettings(settings, on, 'constants').filter(({ field }) => field !== 'constants.powerFraction'),
      ...(Number.isInteger(plan.repeats)
        ? within('repeats', plan.repeats, 1, MOST_REPEATS, `1 to ${MOST_REPEATS} lines of each power.`)
        : [{ field: 'repeats', message: `1 to ${MOST_REPEATS} lines of each power.` }]),
      ...within('lineMm', plan.lineMm, 3, 100, 'Lines are 3 to 100 mm long.'),
      ...within(
        'pitchMm',
        plan.pitchMm,
        2,
        20,
        'Lines lie 2 to 20 mm apart: bare stock on both sides of each is what it is told by.',
      ),
    ];
  },
  fields: (_plan, { machine }) => [
    { path: 'repeats', label: 'Lines of each power', as: 'count', group: 'cells' },
    { path: 'lineMm', label: 'Line length', as: 'length', group: 'cells' },
    { path: 'pitchMm', label: 'Apart', as: 'length', group: 'cells' },
    ...constantFields(machine, 'constants', [
      'powerFraction',
      'bothWays',
      'scanOffsetMm',
      'lengthenMm',
      'lineAngleDeg',
      'crossHatch',
    ]),
    ...FRAME_FIELDS,
  ],
  draw: drawLines,
  bound: boundLines,
  eases: [
    EASES.interval('constants.intervalMm'),
    { path: 'repeats', by: 'less', step: 1, says: (count: number) => `${count} lines of each power` },
    EASES.passes('constants.passes'),
  ],
  wish: () => ({}),
  find: findLineWidth,
  settle: ({ strongest, law }, layout) => {
    if (strongest === null) return [];
    const { speedMmPerS, passes, direction } = mainBurn(layout.cells[strongest.cellIndex]!).settings;
    return [
      {
        name: 'line',
        at: { speed: speedMmPerS, passes },
        value: {
          widthMm: strongest.widthMm,
          powerFraction: strongest.powerFraction,
          direction,
          spotMm: law?.spotMm ?? null,
          thresholdFraction: law?.thresholdFraction ?? null,
        },
        sigma: strongest.sigmaMm,
        cellIndex: strongest.cellIndex,
      },
    ];
  },
} as const satisfies CardKind<LineWidthPlan, object, LineWidthFinding, object>);
