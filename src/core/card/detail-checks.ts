import { familyOf } from '../stock/families';
import { thicknessOf, type Stock } from '../stock/stock';
import type { Point } from '../geometry/point';
import type { Layout } from './layout';

/** Cuts slower than this dwell long enough for a flame to stand on a tip (from memory, without a source). */
const SLOW_MM_PER_S = 12;
/** Sheets from this thickness on feed one. */
const THICK_MM = 4;
/** Cosine of the angle between both sides of a tip below which it is sharp: 60°. */
const SHARP = 0.5;

/** Whether a line turns back on itself so far that what lies between is a tip. */
function hasTip(line: readonly Point[]): boolean {
  return line.slice(1, -1).some((at, index) => {
    const [before, after] = [line[index]!, line[index + 2]!];
    const [ax, ay, bx, by] = [before.x - at.x, before.y - at.y, after.x - at.x, after.y - at.y];
    const lengths = Math.hypot(ax, ay) * Math.hypot(bx, by);
    return lengths > 0 && (ax * bx + ay * by) / lengths > SHARP;
  });
}

/** What is to be checked before slow cuts round fine detail in thick or grained stock, one line each: there fires begin. */
export function detailChecks({ cells }: Pick<Layout, 'cells'>, stock: Stock): string[] {
  if (thicknessOf(stock).meanMm < THICK_MM && !familyOf(stock.family).grained) return [];
  const dwells = cells.some(({ burns, leftOut }) =>
    burns.some(
      ({ shape, settings }) =>
        !leftOut && shape.do === 'follow' && settings.speedMmPerS < SLOW_MM_PER_S && shape.lines.some(hasTip),
    ),
  );
  return dwells ? ['Slow cuts round sharp tips: a flame can stand on them. Air is on, and I watch every tip.'] : [];
}
