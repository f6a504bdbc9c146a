import type { Rect } from '../geometry/point';

export interface OrderedCell {
  readonly index: number;
  readonly box: Rect;
  /** What ranks cells by danger: energy per area or per length. */
  readonly risk: number;
  /** Cells of one group burn together, because a hand must do something between groups. */
  readonly group?: string;
  /** Whether nothing has to be done for its group before the first cell. */
  readonly isReady?: boolean;
}

type Neighbourhood = (a: OrderedCell, b: OrderedCell) => boolean;

/** Free stock between two boxes along each axis; negative where they overlap along it. */
function gaps(a: Rect, b: Rect): { x: number; y: number } {
  return {
    x: Math.max(a.x - (b.x + b.width), b.x - (a.x + a.width)),
    y: Math.max(a.y - (b.y + b.height), b.y - (a.y + a.height)),
  };
}

/** Cells are neighbours when no more stock lies between them than half as much again as between the closest two. */
function neighbourhoods(cells: readonly OrderedCell[]): { touching: Neighbourhood; sharingAnEdge: Neighbourhood } {
  let least = Infinity;
  cells.forEach((a, at) => {
    for (const b of cells.slice(at + 1)) {
      const { x, y } = gaps(a.box, b.box);
      least = Math.min(least, Math.max(x, y));
    }
  });
  const reach = Math.max(0, least) * 1.5 + 1e-6;
  const touching: Neighbourhood = (a, b) => {
    const { x, y } = gaps(a.box, b.box);
    return x <= reach && y <= reach;
  };
  return {
    touching,
    sharingAnEdge: (a, b) => touching(a, b) && Math.min(gaps(a.box, b.box).x, gaps(a.box, b.box).y) < 0,
  };
}

/**
 * Burn order, as cell indexes: the riskiest cells last, and no two neighbours (even at a corner) directly after each other. Built
 * backwards: the riskiest cell ends the card, and before each cell stands the riskiest one left that is not its neighbour; cells
 * left over at the mild end are put in where they have none. Cards too small for that keep apart cells that share an edge, and
 * failing that only the order by risk holds. Groups, where there are any, burn one after another, the one that holds the riskiest
 * cell last; of equals the one that is ready first. Ties go to the lower index, so the order is deterministic.
 */
export function burnOrder(cells: readonly OrderedCell[]): number[] {
  const groups = new Map<string, OrderedCell[]>();
  for (const cell of cells) groups.set(cell.group ?? '', [...(groups.get(cell.group ?? '') ?? []), cell]);
  const risk = (group: readonly OrderedCell[]): number => Math.max(...group.map((cell) => cell.risk));
  const waits = ([cell]: readonly OrderedCell[]): number => (cell!.isReady ? 0 : 1);
  return [...groups.values()]
    .sort((a, b) => risk(a) - risk(b) || waits(a) - waits(b) || a[0]!.index - b[0]!.index)
    .flatMap(orderWithin);
}

function orderWithin(cells: readonly OrderedCell[]): number[] {
  const { touching, sharingAnEdge } = neighbourhoods(cells);
  const byRisk = [...cells].sort((a, b) => b.risk - a.risk || a.index - b.index);
  const few = byRisk.length <= FEW;
  const apart = (near: Neighbourhood): OrderedCell[] | null =>
    tryOrder(byRisk, near) ?? (few ? searchOrder(byRisk.slice(0, 1), byRisk.slice(1), near) : null);
  const order = apart(touching) ?? apart(sharingAnEdge) ?? byRisk;
  return order.map((cell) => cell.index).reverse();
}

/** Up to this many cells every order is looked at before neighbours are let follow each other. */
const FEW = 10;

/** Riskiest first by trying every order, the riskier before the milder; null when there is none. */
function searchOrder(
  chosen: readonly OrderedCell[],
  left: readonly OrderedCell[],
  near: Neighbourhood,
): OrderedCell[] | null {
  if (left.length === 0) return [...chosen];
  for (const cell of left) {
    if (near(cell, chosen.at(-1)!)) continue;
    const rest = left.filter((other) => other !== cell);
    const found = searchOrder([...chosen, cell], rest, near);
    if (found) return found;
  }
  return null;
}

/** Riskiest first in one go; null when some cells cannot be kept apart. */
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
