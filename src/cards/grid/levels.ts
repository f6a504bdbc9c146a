import type { Pairing } from '../../core/card/contract';
import type { Levels } from '../../core/card/channels';
import { fateOfFill } from '../../core/card/energy';
import type { Fate } from '../../core/card/layout';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import { scatteredPlaces } from '../../core/card/scatter';
import type { BurnSettings } from '../../core/card/settings';
import type { Rect } from '../../core/geometry/point';
import { levelsOf, withLevel } from './axes';
import type { GridPlan } from './plan';

/** What one cell of a grid is burned with, and what it stands for. */
export interface GridLevel {
  readonly settings: BurnSettings;
  readonly levels: Levels;
}

/** Levels of the columns, and of the rows from the top, where the high end is. */
export const edgeLevels = ({ across, down }: GridPlan): { readonly columns: number[]; readonly rows: number[] } => ({
  columns: levelsOf(across),
  rows: levelsOf(down).reverse(),
});

/** Each pair of levels once, row by row from the top. */
export function gridLevels(plan: GridPlan): GridLevel[] {
  const { across, down, constants } = plan;
  const { columns, rows } = edgeLevels(plan);
  return rows.flatMap((low) =>
    columns.map((side) => ({
      settings: withLevel(withLevel(constants, across, side), down, low),
      levels: { [across.channel]: side, [down.channel]: low },
    })),
  );
}

/** Where each pair of levels lies, one box for each repeat: in blocks under one another where they are ordered. */
export function gridBoxes(plan: GridPlan): Rect[][] {
  const { cellMm, gapMm, repeats, placing } = plan;
  const [columns, rows] = [plan.across.count, plan.down.count];
  const across = rowOfBoxes(columns, cellMm, cellMm, gapMm);
  const down = columnOfBoxes(rows * repeats, cellMm, cellMm, gapMm);
  const boxAt = (place: number): Rect => ({ ...across[place % columns]!, y: down[Math.floor(place / columns)]!.y });
  const places =
    placing === 'scattered'
      ? scatteredPlaces(columns, rows, repeats)
      : Array.from({ length: columns * rows }, (_, level) =>
          Array.from({ length: repeats }, (_unused, repeat) => repeat * columns * rows + level),
        );
  return places.map((own) => own.map(boxAt));
}

/** What is expected of a cell, and whether it is left out for that. */
export function gridFate(
  plan: GridPlan,
  settings: BurnSettings,
  on: Pairing,
): { readonly expected: Fate | null; readonly leftOut: boolean } {
  const expected = fateOfFill(settings, on);
  return { expected, leftOut: plan.leaveOutFailing && expected !== null };
}
