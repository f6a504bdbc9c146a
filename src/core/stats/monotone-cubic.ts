/**
 * A smooth curve through points that never rises above or falls below what its two neighbouring points have: cubics whose slopes are the weighted
 * harmonic means of the slopes beside each point, 0 where those change sign. Before the first point and after the last it is as high as there.
 * Throws RangeError for fewer than two points, or places that do not rise.
 *
 * Through (0, 0), (1, 1), (2, 1.5), (4, 5), (7, 5.2): 0.57292 at 0.5, 3.39892 at 3.
 * Sources: F. N. Fritsch, R. E. Carlson, SIAM J. Numer. Anal. 17 (1980) 238; F. N. Fritsch, J. Butland, SIAM J. Sci. Stat. Comput. 5 (1984) 300.
 */
export function monotoneCubic(points: readonly { readonly x: number; readonly y: number }[]): (x: number) => number {
  if (points.length < 2) throw new RangeError(`invalid curve: ${points.length} points`);
  const steps = points.slice(1).map((point, index) => {
    const before = points[index]!;
    const width = point.x - before.x;
    if (!(width > 0)) throw new RangeError(`invalid curve: ${point.x} comes after ${before.x}`);
    return { width, slope: (point.y - before.y) / width };
  });
  const slopes = points.map((_, index) => {
    const [left, right] = [steps[index - 1], steps[index]];
    if (!left || !right) return endSlope(left ? [left, steps[index - 2]] : [right!, steps[index + 1]]);
    if (left.slope * right.slope <= 0) return 0;
    const [a, b] = [2 * right.width + left.width, right.width + 2 * left.width];
    return (a + b) / (a / left.slope + b / right.slope);
  });
  return (x) => {
    if (x <= points[0]!.x) return points[0]!.y;
    const next = points.findIndex((point) => point.x >= x);
    if (next < 0) return points.at(-1)!.y;
    const [from, { width, slope }] = [points[next - 1]!, steps[next - 1]!];
    const t = (x - from.x) / width;
    const [s0, s1] = [slopes[next - 1]!, slopes[next]!];
    return from.y + width * t * (s0 + t * (3 * slope - 2 * s0 - s1 + t * (s0 + s1 - 2 * slope)));
  };
}

interface Stretch {
  readonly width: number;
  readonly slope: number;
}

/** At an end: a parabola's slope over the two stretches beside it, held so that the curve does not turn. */
function endSlope([beside, after]: readonly [Stretch, Stretch | undefined]): number {
  if (!after) return beside.slope;
  const slope =
    ((2 * beside.width + after.width) * beside.slope - beside.width * after.slope) / (beside.width + after.width);
  if (slope * beside.slope <= 0) return 0;
  return beside.slope * after.slope <= 0 && Math.abs(slope) > 3 * Math.abs(beside.slope) ? 3 * beside.slope : slope;
}
