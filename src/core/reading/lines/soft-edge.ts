import { meanAndSpread } from '../../stats/robust';
import type { Across } from './across';

/** An edge between burned and bare, by the light across it. */
export interface SoftEdge {
  /** Standard deviation of the normal law whose sum the edge is as wide as, from 10 to 90 %, in mm. */
  readonly sigmaMm: number;
  /** Height of the edge over the scatter of what lies on both sides. */
  readonly clear: number;
}

/** From 10 to 90 % of a normal law's sum, in its standard deviations. */
const TENTH_TO_TENTH = 2.5631;
/** Share of an area at each end that is taken for one side of the edge. */
const SIDE = 0.25;

/** The one edge in the light across an area, whose outer quarters lie on its two sides; null where light does not change from one to the other. */
export function softEdge({ at, share }: Across): SoftEdge | null {
  const quarter = Math.floor(at.length * SIDE);
  if (quarter < 2) return null;
  const near = meanAndSpread(share.slice(0, quarter));
  const far = meanAndSpread(share.slice(-quarter));
  const height = far.mean - near.mean;
  const scatter = Math.hypot(near.spread, far.spread) / Math.SQRT2;
  // The last time it rises through 10 % and the first time after that through 90 %: noise on the flats is not an edge.
  const level = (k: number): number => (share[k]! - near.mean) / height;
  const crossing = (part: number, from: number, by: 1 | -1): number | null => {
    for (let k = from; k + by >= 0 && k + by < at.length; k += by) {
      const [a, b] = [level(k), level(k + by)];
      if ((a - part) * (b - part) <= 0 && a !== b) return at[k]! + ((part - a) / (b - a)) * (at[k + by]! - at[k]!);
    }
    return null;
  };
  const start = [...at.keys()].find((k) => k >= quarter && level(k) >= 0.5);
  if (height === 0 || start === undefined) return null;
  const low = crossing(0.1, start, -1);
  const high = crossing(0.9, start - 1, 1);
  if (low === null || high === null || high <= low) return null;
  return {
    sigmaMm: (high - low) / TENTH_TO_TENTH,
    clear: scatter > 0 ? Math.abs(height) / scatter : Infinity,
  };
}
