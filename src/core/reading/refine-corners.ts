import { median } from '../stats/robust';
import type { Point } from '../geometry/point';
import { grayBetween } from '../image/gray-between';
import type { GrayImage } from '../image/raster';
import type { Quad } from './quad';

interface Line {
  readonly point: Point;
  readonly dx: number;
  readonly dy: number;
}

/** How far from a side its edge is looked for, below one module, and the window that the picture was softened with. */
export interface Reach {
  readonly reachPx: number;
  readonly softenedPx: number;
}

const SAMPLES = 28;

/**
 * Distance along the normal at which the profile steps from inside to outside: centre of its gradient around the steepest place, over as
 * much as the picture was softened, so that the ramp of a softened edge is weighed whole.
 */
function edgeOffset(
  image: GrayImage,
  x: number,
  y: number,
  nx: number,
  ny: number,
  { reachPx, softenedPx }: Reach,
): number | null {
  const count = Math.max(9, 2 * Math.ceil(reachPx / Math.max(1, softenedPx / 4)) + 1);
  const step = (2 * reachPx) / (count - 1);
  const profile = Float64Array.from({ length: count }, (_, k) => {
    const s = -reachPx + k * step;
    // Three parallel lines tame noise and single burn lines.
    let sum = 0;
    for (let shift = -1; shift <= 1; shift++)
      sum += grayBetween(image, x + nx * s - ny * shift, y + ny * s + nx * shift);
    return sum / 3;
  });
  let steepest = 0;
  let at = -1;
  for (let k = 1; k < count - 1; k++) {
    const slope = profile[k + 1]! - profile[k - 1]!;
    if (slope > steepest) {
      steepest = slope;
      at = k;
    }
  }
  if (at < 0 || !(steepest > 4)) return null;
  const half = Math.max(3, Math.ceil((0.75 * softenedPx) / step));
  let centre = at;
  // Noise moves the steepest place along a ramp: the second turn weighs around the ramp's own middle.
  for (let turn = 0; turn < 2; turn++) {
    let weight = 0;
    let moment = 0;
    const middle = Math.round(centre);
    for (let k = Math.max(1, middle - half); k <= Math.min(count - 2, middle + half); k++) {
      const slope = Math.max(0, profile[k + 1]! - profile[k - 1]!);
      weight += slope;
      moment += slope * k;
    }
    centre = moment / weight;
  }
  return -reachPx + centre * step;
}

/** Total least squares line, refitted twice without points farther than three robust sigmas. */
function fitLine(points: readonly Point[]): Line | null {
  let kept = points;
  let line: Line | null = null;
  for (let turn = 0; turn < 3; turn++) {
    if (kept.length < 6) return null;
    const n = kept.length;
    const cx = kept.reduce((sum, p) => sum + p.x, 0) / n;
    const cy = kept.reduce((sum, p) => sum + p.y, 0) / n;
    let sxx = 0;
    let sxy = 0;
    let syy = 0;
    for (const p of kept) {
      sxx += (p.x - cx) ** 2;
      sxy += (p.x - cx) * (p.y - cy);
      syy += (p.y - cy) ** 2;
    }
    const angle = 0.5 * Math.atan2(2 * sxy, sxx - syy);
    const fitted: Line = { point: { x: cx, y: cy }, dx: Math.cos(angle), dy: Math.sin(angle) };
    line = fitted;
    const distance = (p: Point): number => Math.abs((p.x - cx) * fitted.dy - (p.y - cy) * fitted.dx);
    const limit = Math.max(0.3, 3 * 1.4826 * median(kept.map(distance)));
    kept = kept.filter((p) => distance(p) <= limit);
  }
  return line;
}

/** Where two lines cross; no finite place where they run alike. */
function meet(a: Line, b: Line): Point {
  const det = a.dx * b.dy - a.dy * b.dx;
  const s = ((b.point.x - a.point.x) * b.dy - (b.point.y - a.point.y) * b.dx) / det;
  return { x: a.point.x + s * a.dx, y: a.point.y + s * a.dy };
}

/**
 * Corners of a dark quad on light ground, to a fraction of a pixel: edge places along each side, a robust line through them,
 * and the lines' crossings. A corner that cannot be
 * refined, or that would move by more than 1.5 reaches, stays as it is. Pixel centres are at whole coordinates.
 */
export function refineCorners(image: GrayImage, quad: Quad, reach: Reach): Quad {
  const centre = { x: quad.reduce((sum, p) => sum + p.x, 0) / 4, y: quad.reduce((sum, p) => sum + p.y, 0) / 4 };
  const lines = quad.map((from, side): Line | null => {
    const to = quad[(side + 1) % 4]!;
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    let nx = (to.y - from.y) / length;
    let ny = -(to.x - from.x) / length;
    if ((from.x - centre.x) * nx + (from.y - centre.y) * ny < 0) [nx, ny] = [-nx, -ny];
    const points: Point[] = [];
    for (let k = 0; k < SAMPLES; k++) {
      const share = 0.1 + (0.8 * k) / (SAMPLES - 1);
      const x = from.x + (to.x - from.x) * share;
      const y = from.y + (to.y - from.y) * share;
      const offset = edgeOffset(image, x, y, nx, ny, reach);
      if (offset !== null) points.push({ x: x + nx * offset, y: y + ny * offset });
    }
    return fitLine(points);
  });
  return quad.map((corner, index) => {
    const before = lines[(index + 3) % 4];
    const after = lines[index];
    const refined = before && after ? meet(before, after) : null;
    return refined && Math.hypot(refined.x - corner.x, refined.y - corner.y) < 1.5 * reach.reachPx ? refined : corner;
  }) as unknown as Quad;
}
