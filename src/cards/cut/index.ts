import { shadeConditions } from '../../core/book/conditions';
import { axisValues, checkAxis, within } from '../../core/card/axis';
import { boundOfLines } from '../../core/card/bound';
import { checkPower, checkSettings, checkSpeed } from '../../core/card/check-settings';
import type { CardKind } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { cutFields } from '../../core/card/plan-fields';
import { drawSquares } from './draw';
import { CUT_ASKS } from './squares';
import { findCut, USUAL_CUT_WISH, type CutFinding, type CutWish } from './find';
import { CUT_VERSION, MOST_STEPS, outlineOf, rowLevels, upgradeCutPlan, type CutPlan } from './plan';
import { proposeCut, withRows } from './propose';

/** Cut: which power and speed drop a part, and how surely? */
export const cut = Object.freeze({
  kind: 'cut',
  name: 'Cut squares',
  purpose: 'small squares cut at many energies; the sheet is tapped, and what drops tells the least that surely does',
  rung: 'cut',
  version: CUT_VERSION,
  edges: ({ rows }) => [
    { channel: 'speed', edge: 'below', path: 'speed', mostSteps: MOST_STEPS },
    { channel: rows.channel, edge: 'left', path: 'rows', mostSteps: MOST_STEPS },
  ],
  asks: CUT_ASKS,
  propose: proposeCut,
  upgrade: upgradeCutPlan,
  check: (plan, on) => {
    const { speed, rows } = plan;
    const problems = [
      ...checkAxis(speed, { path: 'speed', word: 'Speed', mostSteps: MOST_STEPS }),
      ...checkAxis(rows, {
        path: 'rows',
        word: rows.channel === 'power' ? 'Power' : 'Passes',
        mostSteps: MOST_STEPS,
      }),
    ];
    if (problems.length > 0) return problems;
    const whole =
      rowLevels(plan).every((level, at, all) => level !== all[at + 1]) &&
      axisValues(rows).every((level) => Number.isInteger(level));
    return [
      ...checkSpeed('speed.to', speed.to, 'both', on),
      ...(rows.channel === 'power'
        ? checkPower('rows.to', rows.to, on)
        : [
            ...within('rows.to', rows.to, 1, 20, '1 to 20 passes.'),
            ...(whole ? [] : [{ field: 'rows.count', message: 'Rows differ by whole passes: take as many rows.' }]),
          ]),
      ...within('sizeMm', plan.sizeMm, 3, 40, 'Squares are 3 to 40 mm wide.'),
      ...within('gapMm', plan.gapMm, 1, 20, 'Gaps are 1 to 20 mm.'),
      ...checkSettings(plan.cut, on, 'cut', 'both'),
    ];
  },
  follow: (plan, path, before, on) =>
    path === 'rows.channel' && plan.rows.channel !== before.rows.channel ? withRows(plan, on) : plan,
  fields: ({ rows }, { machine }) => [
    {
      path: 'rows.channel',
      label: 'Rows differ in',
      as: 'choice',
      options: [
        { value: 'power', name: 'power' },
        { value: 'passes', name: 'passes' },
      ],
      group: 'cells',
    },
    { path: 'sizeMm', label: 'Square size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    ...cutFields(machine, ['speedMmPerS', rows.channel === 'power' ? 'powerFraction' : 'passes']),
  ],
  draw: drawSquares,
  bound: (plan, { machine }) => {
    const { speed, rows, cut: settings } = plan;
    const passes = rows.channel === 'passes' ? Math.max(...rowLevels(plan)) : settings.passes;
    const squares = { count: speed.count * rows.count, lengthMm: outlineOf(plan), corners: 5, reachMm: plan.sizeMm };
    // Slow squares take long along their sides, fast ones at their corners.
    const [slow, fast] = [speed.from, speed.to].map((speedMmPerS) =>
      boundOfLines(squares, { speedMmPerS, passes }, machine),
    );
    return slow!.seconds > fast!.seconds ? slow! : fast!;
  },
  eases: [EASES.speed('speed.from'), EASES.passes('cut.passes'), EASES.size('sizeMm', 'squares')],
  wish: () => USUAL_CUT_WISH,
  find: findCut,
  settle: ({ chosen, window, outlineMm, thicknessMm, missing }) => {
    if (missing.length > 0 || !chosen || !window) return [];
    const { settings, energy, chance, edge, cellIndex } = chosen;
    return [
      {
        name: 'cut',
        // The fast and the clean one stand side by side.
        at: shadeConditions(chosen.wants[0]!),
        value: {
          settings,
          certainty: Math.round(chance.chance * 1000) / 1000,
          outlineMm,
          thicknessMm,
          comesThrough: window.comesThrough(settings.passes).energy,
          laidDown: energy,
          edge,
        },
        sigma: null,
        cellIndex,
      },
    ];
  },
} as const satisfies CardKind<CutPlan, CutWish, CutFinding, object>);
