import { boundOfLines, sumOfBounds, type Bound } from '../../core/card/bound';
import type { Pairing } from '../../core/card/contract';
import { NUMBER_MM, type KerfPlan } from './plan';

/** No number has longer or more strokes than this: two digits of five short strokes each. */
const NUMBER = { lines: 10, lengthMm: 4 * NUMBER_MM, corners: 12 };

/** The work of the squares: four sides each, and the number that is lettered on it. */
export function boundKerf({ sizeMm, count, cut, frame }: KerfPlan, { machine }: Pairing): Bound {
  const square = { count, lengthMm: 4 * sizeMm, corners: 5, reachMm: sizeMm };
  const number = {
    count: count * NUMBER.lines,
    lengthMm: NUMBER.lengthMm,
    corners: NUMBER.corners,
    reachMm: sizeMm,
  };
  return sumOfBounds([
    boundOfLines(square, cut, machine),
    boundOfLines(number, { ...frame.lettering, passes: 1 }, machine),
  ]);
}
