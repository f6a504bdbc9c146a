import { boundOfFills, sumOfBounds, type Bound } from '../../core/card/bound';
import type { Pairing } from '../../core/card/contract';
import { RAMP, stripIntervals, type IntervalPlan } from './plan';

/** The work of the strips: each at its own interval, in its steps of power. */
export function boundIntervals(plan: IntervalPlan, { machine }: Pairing): Bound {
  const size = { widthMm: plan.stripWidthMm / RAMP.length, heightMm: plan.stripHeightMm };
  return sumOfBounds(
    stripIntervals(plan).map((intervalMm) =>
      boundOfFills(RAMP.length, size, { ...plan.constants, intervalMm }, machine),
    ),
  );
}
