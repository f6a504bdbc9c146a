import type { CardKind } from '../../core/card/contract';
import { shadeConditions } from '../../core/book/facts';
import { mainBurn } from '../../core/card/layout';
import { constantFields, FRAME_FIELDS } from '../../core/card/plan-fields';
import { AXIS_COUNTS } from '../../core/card/axis';
import { DEPTH, GRADE, OUTCOME, THROUGH } from '../../core/card/usual-asks';
import { adoptGrid } from './adopt';
import { boundGrid } from './bound';
import { checkGridPlan } from './check';
import { drawGrid } from './draw';
import { findInGrid, type GridFinding, type GridWish } from './find';
import { GRID_EASES, GRID_VERSION, upgradeGridPlan, type GridPlan } from './plan';
import { proposeGrid } from './propose';
import { proveSetting } from './prove';

export interface GridChoice {
  readonly cellIndex: number;
  /** The shade that it is kept as, beside others; empty or left out for the usual one. */
  readonly shade?: string;
}

/** Power x speed: which power and speed engrave this stock well? */
export const grid = Object.freeze({
  kind: 'grid',
  name: 'Power × speed card',
  purpose: 'squares at many powers and speeds: which engrave this stock well?',
  rung: 'grid',
  version: GRID_VERSION,
  edges: [
    { channel: 'power', edge: 'below', path: 'power', mostSteps: AXIS_COUNTS.most },
    { channel: 'speed', edge: 'left', path: 'speed', mostSteps: AXIS_COUNTS.most },
  ],
  asks: [{ field: 'tone', by: 'photo', measure: 'tone' }, THROUGH, GRADE, OUTCOME, DEPTH],
  propose: proposeGrid,
  prove: proveSetting,
  adopt: adoptGrid,
  upgrade: upgradeGridPlan,
  check: checkGridPlan,
  fields: (_plan, { machine }) => [
    { path: 'cellMm', label: 'Cell size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    { path: 'leaveOutFailing', label: 'Leave out cells bound to fail', as: 'flag', group: 'cells' },
    {
      path: 'sweeps',
      label: 'Filled',
      as: 'choice',
      options: [
        { value: 'cells', name: 'cell by cell, the riskiest last' },
        { value: 'rows', name: 'a row at a time, in one sweep' },
      ],
      group: 'cells',
      hint: 'a row’s power changes at the borders of its cells; rows go by risk, neighbours in a row follow each other',
    },
    ...constantFields(machine, 'constants', ['powerFraction', 'speedMmPerS']),
    ...FRAME_FIELDS,
  ],
  draw: drawGrid,
  bound: boundGrid,
  eases: GRID_EASES,
  wish: ({ machine }) => ({ lightness: null, powerCap: machine.powerCap, pace: 'fast-and-strong' }),
  find: findInGrid,
  settle: (_finding, layout, seen, { cellIndex, shade = '' }) => {
    const cell = layout.cells[cellIndex];
    if (!cell || cell.leftOut) return [];
    const reading = seen.readings.find((candidate) => candidate.cellIndex === cellIndex);
    return [
      {
        name: 'engrave',
        at: shadeConditions(shade),
        value: {
          settings: mainBurn(cell).settings,
          lightness: reading?.lightness ?? null,
          lightnessSigma: reading?.lightnessSigma ?? null,
          confidence: reading?.confidence ?? null,
        },
        sigma: reading?.lightnessSigma ?? null,
        cellIndex,
      },
    ];
  },
} as const satisfies CardKind<GridPlan, GridWish, GridFinding, GridChoice>);
