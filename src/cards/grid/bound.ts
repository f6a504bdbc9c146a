import { boundOfFills, sumOfBounds, type Bound } from '../../core/card/bound';
import type { Pairing } from '../../core/card/contract';
import { gridFate, gridLevels, gridSettings } from './levels';
import type { GridPlan } from './plan';

/** A grid's work: of each row, which has one speed, the cells that are burned. */
export function boundGrid(plan: GridPlan, on: Pairing): Bound {
  const { powers, speeds } = gridLevels(plan);
  const size = { widthMm: plan.cellMm, heightMm: plan.cellMm };
  return sumOfBounds(
    speeds.map((speed) => {
      const burned = powers.filter((power) => !gridFate(plan, gridSettings(plan, power, speed), on).leftOut);
      return boundOfFills(burned.length, size, gridSettings(plan, powers[0]!, speed), on.machine);
    }),
  );
}
