import type { PlanProblem } from '../../core/card/contract';
import { plainNumber } from '../../core/quantities/format';
import type { GridPlan } from './plan';

/** A grid's lines grow with the cells' side over the interval, and with passes. */
export function fitGrid({ constants, cellMm }: GridPlan, excess: number): PlanProblem {
  const intervalMm = Math.ceil(constants.intervalMm * excess * 1.02 * 1000) / 1000;
  const sideMm = Math.floor((cellMm / excess) * 0.98 * 10) / 10;
  const ways = [
    intervalMm <= 2 ? `a line interval of ${plainNumber(intervalMm)} mm` : '',
    sideMm >= 1 ? `cells of ${plainNumber(sideMm)} mm` : '',
    constants.passes > 1 && constants.passes / excess >= 1 ? `${Math.floor(constants.passes / excess)} passes` : '',
  ].filter(Boolean);
  return {
    field: 'constants.intervalMm',
    message: ways.length > 0 ? `It would fit with ${ways.join(', or with ')}.` : 'Take fewer and smaller cells.',
  };
}
