import { boundOfLines, sumOfBounds, type Bound } from '../../core/card/bound';
import type { Pairing } from '../../core/card/contract';
import { NUMBER_MM, sizesOf, type KerfPlan } from './plan';

/** No number has longer or more strokes than this: two digits of five short strokes each. */
const NUMBER = { lines: 10, lengthMm: 4 * NUMBER_MM, corners: 12 };

/** The work of the squares: four sides each, and the number that is lettered on it. */
export function boundKerf(plan: KerfPlan, { machine }: Pairing): Bound {
  const { sizeMm, count, cut, frame } = plan;
  const square = (mm: number): Bound =>
    boundOfLines({ count, lengthMm: 4 * mm, corners: 5, reachMm: mm }, cut, machine);
  const number = {
    count: sizesOf(plan).length * NUMBER.lines,
    lengthMm: NUMBER.lengthMm,
    corners: NUMBER.corners,
    reachMm: sizeMm,
  };
  return sumOfBounds([
    square(sizeMm),
    ...(plan.smallMm === null ? [] : [square(plan.smallMm)]),
    boundOfLines(number, { ...frame.lettering, passes: 1 }, machine),
  ]);
}
