export interface OrderedCell {
  readonly index: number;
  readonly column: number;
  readonly row: number;
  /** What ranks cells by danger: energy per area or per length. */
  readonly risk: number;
}

type Neighbourhood = (a: OrderedCell, b: OrderedCell) => boolean;

const touching: Neighbourhood = (a, b) => Math.abs(a.column - b.column) <= 1 && Math.abs(a.row - b.row) <= 1;
const sharingAnEdge: Neighbourhood = (a, b) => Math.abs(a.column - b.column) + Math.abs(a.row - b.row) <= 1;

/**
 * Burn order, as cell indexes: the riskiest cells last, and no two cells that touch (even at a corner) directly after each
 * other. Built backwards: the riskiest cell ends the card, and before each cell stands the riskiest one left that does not
 * touch it; cells left over at the mild end are put in where they touch nothing. Cards too small for that keep apart cells
 * that share an edge, and failing that only the order by risk holds. Ties go to the lower index, so the order is deterministic.
 */
export function burnOrder(cells: readonly OrderedCell[]): number[] {
  const byRisk = [...cells].sort((a, b) => b.risk - a.risk || a.index - b.index);
  const order = tryOrder(byRisk, touching) ?? tryOrder(byRisk, sharingAnEdge) ?? byRisk;
  return order.map((cell) => cell.index).reverse();
}

/** Riskiest first; null when some cells cannot be kept apart. */
function tryOrder(byRisk: readonly OrderedCell[], near: Neighbourhood): OrderedCell[] | null {
  const left = [...byRisk];
  const chosen: OrderedCell[] = [];
  while (left.length > 0) {
    const last = chosen.at(-1);
    const next = left.findIndex((cell) => last === undefined || !near(cell, last));
    if (next < 0) break;
    chosen.push(...left.splice(next, 1));
  }
  for (const cell of left) {
    let place = chosen.length - 1;
    while (place > 0 && (near(cell, chosen[place - 1]!) || near(cell, chosen[place]!))) place--;
    if (place <= 0) return null;
    chosen.splice(place, 0, cell);
  }
  return chosen;
}
