import type { Rect } from '../geometry/point';
import { meanAndSpread } from '../stats/robust';
import { meanRatio, type PhotoContext } from './photo-context';

/** How far to both sides of an edge is looked. */
const REACH_MM = 0.5;
/** Share of an edge that is looked at. */
const MIDDLE = 0.6;

/** 10-90 % width in mm of a burned area's left or upper edge, from the mean profile over its middle; null where no edge stands out. */
export function edgeWidth(context: PhotoContext, area: Rect, edge: 'left' | 'upper'): number | null {
  const step = 1 / context.rectified.pxPerMm;
  const count = Math.round((2 * REACH_MM) / step);
  const [wide, high] = [area.width * MIDDLE, area.height * MIDDLE];
  const profile = Float64Array.from({ length: count }, (_, k) => {
    const across = k * step - REACH_MM;
    const slice =
      edge === 'left'
        ? { x: area.x + across, y: area.y + (area.height - high) / 2, width: step, height: high }
        : { x: area.x + (area.width - wide) / 2, y: area.y + across, width: wide, height: step };
    const ratio = meanRatio(context, slice);
    return (ratio.red + ratio.green + ratio.blue) / 3;
  });
  const quarter = Math.max(1, Math.floor(count / 5));
  const outside = meanAndSpread(profile.slice(0, quarter)).mean;
  const inside = meanAndSpread(profile.slice(-quarter)).mean;
  const at = (share: number): number => {
    const level = outside + (inside - outside) * share;
    for (let k = 1; k < count; k++) {
      const before = profile[k - 1]!;
      const after = profile[k]!;
      if ((before - level) * (after - level) <= 0 && before !== after)
        return k - 1 + (level - before) / (after - before);
    }
    return NaN;
  };
  const width = Math.abs(at(0.9) - at(0.1)) * step;
  return Number.isFinite(width) ? width : null;
}
