import type { Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { CutWindow } from '../../core/fit/cut-window';
import type { Point, Rect } from '../../core/geometry/point';
import { thicknessOf } from '../../core/stock/stock';

/** Where on a card so many parts just drop: a line down its rows, at the speed that lays down enough with the row's power and passes. */
export interface CutContour {
  readonly certainty: number;
  /** Two places for each row that it crosses, in card millimetres, from the top: left of it parts drop more surely. */
  readonly line: readonly Point[];
}

interface Row {
  readonly boxes: readonly Rect[];
  readonly energies: readonly number[];
  readonly passes: number;
}

/** The rows of a card of cut squares, each from its left. */
function rowsOf({ cells }: Layout, pairing: Pairing): Row[] {
  const thickness = thicknessOf(pairing.stock).meanMm;
  const tops = [...new Set(cells.map(({ box }) => box.y))].sort((a, b) => a - b);
  return tops.map((top) => {
    const row = cells.filter(({ box }) => box.y === top).sort((a, b) => a.box.x - b.box.x);
    return {
      boxes: row.map(({ box }) => box),
      energies: row.map((cell) => deliveredBy(mainBurn(cell).settings, pairing).lineJPerMm / thickness),
      passes: mainBurn(row[0]!).settings.passes,
    };
  });
}

/** Where an energy stands along a row, between the middles of its squares, evenly in its logarithm; null beyond them. */
function placeOf({ boxes, energies }: Row, energy: number): number | null {
  for (let k = 0; k + 1 < boxes.length; k++) {
    const [a, b] = [energies[k]!, energies[k + 1]!];
    if (energy > a || energy < b || a === b) continue;
    const share = Math.log(a / energy) / Math.log(a / b);
    const middle = (at: number): number => boxes[at]!.x + boxes[at]!.width / 2;
    return middle(k) + share * (middle(k + 1) - middle(k));
  }
  return null;
}

/** The line along which so many parts with such an outline drop, all doubt included; it ends where it leaves the card. */
export function cutContour(
  layout: Layout,
  window: CutWindow,
  { certainty, outlineMm }: { readonly certainty: number; readonly outlineMm: number },
  pairing: Pairing,
): CutContour {
  const line = rowsOf(layout, pairing).flatMap((row): Point[] => {
    const energy = window.energyFor(certainty, row.passes, outlineMm);
    const x = energy === null ? null : placeOf(row, energy);
    if (x === null) return [];
    const { y, height } = row.boxes[0]!;
    return [
      { x, y },
      { x, y: y + height },
    ];
  });
  return { certainty, line };
}
