import type { CardKind } from '../../core/card/contract';
import { findInGrid, type GridFinding, type GridWish } from './find';
import { layGrid } from './lay';
import type { GridPlan } from './plan';
import { proposeGrid } from './propose';

/** Power x speed: which power and speed engrave this stock well? */
export const grid = Object.freeze({
  kind: 'grid',
  name: 'Power × speed',
  rung: 'grid',
  propose: proposeGrid,
  lay: layGrid,
  find: findInGrid,
  settle: (_finding, layout, seen, cellIndex) => {
    const cell = layout.cells[cellIndex];
    if (!cell || cell.leftOut) return null;
    const reading = seen.cells.find((candidate) => candidate.cellIndex === cellIndex);
    return {
      process: 'engrave',
      settings: cell.settings,
      lightness: reading?.lightness ?? null,
      lightnessSigma: reading?.lightnessSigma ?? null,
      cellIndex,
    };
  },
} as const satisfies CardKind<GridPlan, GridFinding, GridWish>);
