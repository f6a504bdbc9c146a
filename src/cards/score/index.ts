import { axisValues, checkAxis, within } from '../../core/card/axis';
import { boundOfLines, sumOfBounds } from '../../core/card/bound';
import { checkSettings, checkSpeed } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { cutFields } from '../../core/card/plan-fields';
import { standingShare } from '../../core/joint/perforation';
import { drawFlaps } from './draw';
import { findScore, SCORE_ASKS, USUAL_SCORE_WISH, type ScoreFinding, type ScoreWish } from './find';
import {
  MOST_STEPS,
  SCORE_VERSION,
  scoreSettings,
  scoreShares,
  stitchesOf,
  upgradeScorePlan,
  type ScorePlan,
} from './plan';
import { proposeScore } from './propose';

/** Why dashes and skips of a plan are no perforation; null where they are one. */
function runsTogether({ dash, skip, kerfMm }: ScorePlan): string | null {
  try {
    standingShare({ dashMm: dash.from, skipMm: Math.min(...axisValues(skip)), kerfMm });
    return null;
  } catch (error) {
    return (error as RangeError).message;
  }
}

/** Score lines: which line folds, and which tears? */
export const score = Object.freeze({
  kind: 'score',
  name: 'Score lines',
  purpose:
    'flaps that hang by perforated and scored lines: which tears clean, which folds and holds; and dashes that look like stitching',
  rung: 'score',
  version: SCORE_VERSION,
  edges: () => [
    { channel: 'skip', edge: 'below', path: 'skip', mostSteps: MOST_STEPS },
    { channel: 'dash', edge: 'left', path: 'dash', mostSteps: MOST_STEPS },
  ],
  asks: SCORE_ASKS,
  propose: proposeScore,
  upgrade: upgradeScorePlan,
  check: (plan, on) => {
    const problems = [
      ...checkAxis(plan.dash, { path: 'dash', word: 'Dash', mostSteps: MOST_STEPS }),
      ...checkAxis(plan.skip, { path: 'skip', word: 'Skip', mostSteps: MOST_STEPS }),
    ];
    if (problems.length > 0) return problems;
    const together = runsTogether(plan);
    const longest = Math.max(...axisValues(plan.dash)) + Math.max(...axisValues(plan.skip));
    return [
      ...within('scoreFrom', plan.scoreFrom, 0.05, 0.95, 'Lines are scored with 5 to 95 % of a cut’s energy.'),
      ...within('scoreTo', plan.scoreTo, 0.05, 0.95, 'Lines are scored with 5 to 95 % of a cut’s energy.'),
      ...within('flapHeightMm', plan.flapHeightMm, 3, 60, 'Flaps are 3 to 60 mm high.'),
      ...within('flapWidthMm', plan.flapWidthMm, 5, 200, 'Flaps are 5 to 200 mm wide.'),
      ...(longest <= plan.flapWidthMm
        ? []
        : [{ field: 'flapWidthMm', message: 'A dash and a skip have room in a flap.' }]),
      ...within('stitchFromMm', plan.stitchFromMm, 1, 20, 'Stitches are 1 to 20 mm long.'),
      ...within('stitchToMm', plan.stitchToMm, 1, 20, 'Stitches are 1 to 20 mm long.'),
      ...(Math.max(...stitchesOf(plan).map(({ dashMm, skipMm }) => dashMm + skipMm)) <= plan.flapWidthMm
        ? []
        : [{ field: 'stitchToMm', message: 'A stitch and what is between two have room in a flap’s width.' }]),
      ...within('gapMm', plan.gapMm, 1, 20, 'Gaps are 1 to 20 mm.'),
      ...within('kerfMm', plan.kerfMm, 0, 2, 'A cut is 0 to 2 mm wide.'),
      ...(together === null ? [] : [{ field: 'skip.from', message: together }]),
      ...checkSettings(plan.cut, on, 'cut', 'both'),
      ...checkSpeed('scoreFrom', scoreSettings(plan, Math.min(...scoreShares(plan))).speedMmPerS, 'both', on),
    ];
  },
  fields: (_plan, { machine }) => [
    { path: 'scoreFrom', label: 'Scored from', as: 'share', group: 'cells', hint: 'of a cut’s energy, in one pass' },
    { path: 'scoreTo', label: 'Scored up to', as: 'share', group: 'cells' },
    {
      path: 'stitchFromMm',
      label: 'Stitches from',
      as: 'length',
      group: 'cells',
      hint: 'scored as shallow as the least',
    },
    { path: 'stitchToMm', label: 'Stitches up to', as: 'length', group: 'cells' },
    { path: 'flapWidthMm', label: 'Flap, along its line', as: 'length', group: 'cells' },
    { path: 'flapHeightMm', label: 'Flap, beside it', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    { path: 'kerfMm', label: 'Kerf, full width', as: 'length', group: 'cells' },
    ...cutFields(machine),
  ],
  draw: drawFlaps,
  bound: (plan, { machine }) => {
    const { dash, skip, flapWidthMm, flapHeightMm, cut } = plan;
    const flaps = (dash.count + 2) * skip.count;
    const stitches = stitchesOf(plan).map(({ dashMm }) => dashMm);
    const dashes = Math.ceil(flapWidthMm / Math.min(...axisValues(dash), ...stitches)) + 1;
    return sumOfBounds([
      boundOfLines(
        {
          count: flaps * dashes,
          lengthMm: Math.max(...axisValues(dash), ...stitches),
          corners: 2,
          reachMm: flapWidthMm,
        },
        cut,
        machine,
      ),
      boundOfLines(
        { count: flaps, lengthMm: 2 * (flapWidthMm + flapHeightMm), corners: 4, reachMm: flapWidthMm + flapHeightMm },
        cut,
        machine,
      ),
    ]);
  },
  eases: [EASES.speed('cut.speedMmPerS'), EASES.passes('cut.passes'), EASES.size('flapHeightMm', 'flaps')],
  wish: () => USUAL_SCORE_WISH,
  find: findScore,
  settle: ({ chosen, missing }) => {
    if (missing.length > 0 || !chosen) return [];
    const { settings, dashMm, skipMm, score: share, did, cellIndex } = chosen;
    return [
      {
        name: 'score',
        at: { either: did === 'folds' ? 'folds' : did === 'stitching' ? 'looks like stitching' : 'tears' },
        value: { settings, dashMm, skipMm, share },
        sigma: null,
        cellIndex,
      },
    ];
  },
} as const satisfies CardKind<ScorePlan, ScoreWish, ScoreFinding, object>);
