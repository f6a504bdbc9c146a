import type { Point } from '../geometry/point';

export type Quad = readonly [Point, Point, Point, Point];

const cross = (o: Point, a: Point, b: Point): number => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);

/**
 * Convex hull, clockwise on a screen (y down), no collinear points.
 * Source: A. M. Andrew, "Another efficient algorithm for convex hulls in two dimensions", Information Processing Letters 9 (1979) 216.
 */
export function convexHull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const point of list) {
      while (chain.length >= 2 && cross(chain.at(-2)!, chain.at(-1)!, point) <= 0) chain.pop();
      chain.push(point);
    }
    chain.pop();
    return chain;
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

export function polygonArea(points: readonly Point[]): number {
  let twice = 0;
  points.forEach((p, index) => {
    const q = points[(index + 1) % points.length]!;
    twice += p.x * q.y - q.x * p.y;
  });
  return Math.abs(twice) / 2;
}

/**
 * The quadrilateral that a blob's outline fills, clockwise on a screen, or null when its hull is no quadrilateral: the two
 * hull points farthest apart and the farthest one on either side of their line, which must cover 88 % of the hull.
 */
export function quadOfOutline(outline: readonly Point[]): Quad | null {
  const hull = convexHull(outline);
  if (hull.length < 4) return null;
  let a = hull[0]!;
  let c = hull[0]!;
  let longest = 0;
  for (let i = 0; i < hull.length; i++) {
    for (let j = i + 1; j < hull.length; j++) {
      const distance = (hull[i]!.x - hull[j]!.x) ** 2 + (hull[i]!.y - hull[j]!.y) ** 2;
      if (distance > longest) {
        longest = distance;
        a = hull[i]!;
        c = hull[j]!;
      }
    }
  }
  let b = a;
  let d = a;
  let mostLeft = 0;
  let mostRight = 0;
  for (const point of hull) {
    const side = cross(a, c, point);
    if (side < mostLeft) [mostLeft, b] = [side, point];
    if (side > mostRight) [mostRight, d] = [side, point];
  }
  const quad: Quad = [a, b, c, d];
  const area = polygonArea(quad);
  if (!(area > 0.88 * polygonArea(hull))) return null;
  const sides = quad.map((p, index) => Math.hypot(p.x - quad[(index + 1) % 4]!.x, p.y - quad[(index + 1) % 4]!.y));
  if (Math.min(...sides) < 0.35 * Math.max(...sides)) return null;
  // Clockwise: the farthest point to the left of the way from a to c comes between them.
  return quad;
}

/** Whether four points go round a convex area clockwise on a screen, with every turn and side clearly there. */
export function isClockwiseQuad(points: readonly Point[]): boolean {
  if (points.length !== 4) return false;
  const side = (index: number): number => {
    const a = points[index]!;
    const b = points[(index + 1) % 4]!;
    return Math.hypot(b.x - a.x, b.y - a.y);
  };
  return points.every((_, index) => {
    const turn = cross(points[index]!, points[(index + 1) % 4]!, points[(index + 2) % 4]!);
    // The sine of the turn: below 0.1 (6 degrees) three corners lie on a line.
    return turn > 0.1 * side(index) * side((index + 1) % 4);
  });
}
