import { boundOfFills, sumOfBounds, type Bound } from '../../core/card/bound';
import type { Pairing } from '../../core/card/contract';
import { lineSettings, SOLID, solidSettings } from './draw';
import type { LineWidthPlan } from './plan';

/** The work of the lines, each one sweep a pass, and of the fills beside them. */
export function boundLines(plan: LineWidthPlan, { machine }: Pairing): Bound {
  const { power, repeats, lineMm, constants } = plan;
  const lies = constants.direction === 'horizontal';
  const size = {
    widthMm: lies ? lineMm : constants.intervalMm,
    heightMm: lies ? constants.intervalMm : lineMm,
  };
  const solid = {
    widthMm: lies ? lineMm : SOLID.acrossMm,
    heightMm: lies ? SOLID.acrossMm : lineMm,
  };
  return sumOfBounds([
    boundOfFills(power.count * repeats, size, lineSettings(plan, power.to), machine),
    boundOfFills(repeats, solid, solidSettings(plan), machine),
  ]);
}
