import type { Cell } from '../core/card/layout';

export type Step = 'left' | 'right' | 'up' | 'down';

/**
 * The cell that an arrow key leads to from another, whatever the layout: the nearest one that lies that way, nearer along the way
 * counting less than off to the side. Undefined when none does. Cells left out are passed over.
 */
export function neighbourOf(cells: readonly Cell[], from: Cell, step: Step): Cell | undefined {
  const middle = ({ box }: Cell): [number, number] => [box.x + box.width / 2, box.y + box.height / 2];
  const [x, y] = middle(from);
  const horizontal = step === 'left' || step === 'right';
  const sign = step === 'right' || step === 'down' ? 1 : -1;
  let best: Cell | undefined;
  let least = Infinity;
  for (const cell of cells) {
    if (cell.leftOut || cell.index === from.index) continue;
    const [cx, cy] = middle(cell);
    const along = sign * (horizontal ? cx - x : cy - y);
    const aside = Math.abs(horizontal ? cy - y : cx - x);
    // Within 45 degrees of the way, as the eye would go.
    if (along <= 1e-6 || aside > along) continue;
    const distance = along + 2 * aside;
    if (distance < least - 1e-9) {
      least = distance;
      best = cell;
    }
  }
  return best;
}
