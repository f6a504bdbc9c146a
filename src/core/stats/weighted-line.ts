/** A measured point of a line: `sigma` is the standard uncertainty of `y`. */
export interface LinePoint {
  readonly x: number;
  readonly y: number;
  readonly sigma: number;
}

/** A straight line through points, about their weighted middle: there its height and its slope are not correlated. */
export interface WeightedLine {
  readonly middleX: number;
  readonly middleY: number;
  readonly slope: number;
  /** Standard uncertainties by the points' own sigmas alone. */
  readonly middleSigma: number;
  readonly slopeSigma: number;
  /** Points scatter about the line by so many of their own sigmas; 0 where two points leave nothing to scatter. */
  readonly misfit: number;
  readonly degrees: number;
}

/**
 * The straight line that weighted squares are least about, each point by one over its sigma squared. Null for points that share one x. Throws
 * RangeError for a sigma that is not above 0. (0, 1), (1, 3), (2, 5) with equal sigmas: through (1, 3) with slope 2.
 * Source: P. R. Bevington, D. K. Robinson, Data Reduction and Error Analysis for the Physical Sciences (2003), 6.3.
 */
export function weightedLine(points: readonly LinePoint[]): WeightedLine | null {
  for (const { sigma } of points) if (!(sigma > 0)) throw new RangeError(`invalid sigma: ${sigma}`);
  if (new Set(points.map(({ x }) => x)).size < 2) return null;
  const weighed = points.map(({ x, y, sigma }) => ({ x, y, weight: 1 / sigma ** 2 }));
  const total = weighed.reduce((sum, { weight }) => sum + weight, 0);
  const middleX = weighed.reduce((sum, { x, weight }) => sum + weight * x, 0) / total;
  const middleY = weighed.reduce((sum, { y, weight }) => sum + weight * y, 0) / total;
  const spread = weighed.reduce((sum, { x, weight }) => sum + weight * (x - middleX) ** 2, 0);
  const slope = weighed.reduce((sum, { x, y, weight }) => sum + weight * (x - middleX) * (y - middleY), 0) / spread;
  const rest = weighed.reduce((sum, { x, y, weight }) => sum + weight * (y - middleY - slope * (x - middleX)) ** 2, 0);
  const degrees = points.length - 2;
  return {
    middleX,
    middleY,
    slope,
    middleSigma: 1 / Math.sqrt(total),
    slopeSigma: 1 / Math.sqrt(spread),
    misfit: degrees > 0 ? Math.sqrt(rest / degrees) : 0,
    degrees,
  };
}
