import { grid } from '../../src/cards/grid';
import type { GridPlan } from '../../src/cards/grid/plan';
import type { Pairing } from '../../src/core/card/contract';
import { layCard } from '../../src/core/card/lay';
import type { Layout } from '../../src/core/card/layout';

/** The grid that is proposed for a pairing, of fewer cells between the same ends: quick to draw and to read. None of them is left out. */
export function gridOfFew(pairing: Pairing, columns: number, rows: number): GridPlan {
  const { plan } = grid.propose({ pairing, facts: [] });
  return {
    ...plan,
    leaveOutFailing: false,
    across: { ...plan.across, count: columns },
    down: { ...plan.down, count: rows },
  };
}

/** That grid as a card. */
export const cardOfFew = (pairing: Pairing, columns: number, rows: number, cardNumber = 5): Layout =>
  layCard(grid, gridOfFew(pairing, columns, rows), pairing, { cardNumber });
