import { boundOfFills, sumOfBounds, type Bound } from '../../core/card/bound';
import type { Pairing } from '../../core/card/contract';
import { gridFate, gridLevels } from './levels';
import type { GridPlan } from './plan';

/** A grid's work: each pair of levels that is burned, as often as it is repeated. */
export function boundGrid(plan: GridPlan, on: Pairing): Bound {
  const size = { widthMm: plan.cellMm, heightMm: plan.cellMm };
  return sumOfBounds(
    gridLevels(plan)
      .filter(({ settings }) => !gridFate(plan, settings, on).leftOut)
      .map(({ settings }) => boundOfFills(plan.repeats, size, settings, on.machine)),
  );
}
