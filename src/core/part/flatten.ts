import type { Point } from '../geometry/point';

/** More chords than this are drawn of no curve. */
const MOST_CHORDS = 2000;

/** Places along a curve, its start left out, as many as keep its chords within a flatness of it. */
function chords(count: number, at: (share: number) => Point): Point[] {
  const steps = Math.max(1, Math.min(MOST_CHORDS, Math.ceil(count)));
  return Array.from({ length: steps }, (_, step) => at((step + 1) / steps));
}

/**
 * A cubic Bézier curve as chords that leave it by no more than `flatnessMm`; its start is left out. By the bound on its second derivative: a chord
 * over a share h of a curve is off by at most h²/8 times that.
 */
export function cubicPoints(from: Point, a: Point, b: Point, to: Point, flatnessMm: number): Point[] {
  const bend = Math.max(
    Math.hypot(from.x - 2 * a.x + b.x, from.y - 2 * a.y + b.y),
    Math.hypot(a.x - 2 * b.x + to.x, a.y - 2 * b.y + to.y),
  );
  return chords(Math.sqrt((6 * bend) / (8 * flatnessMm)), (t) => {
    const [s, u] = [1 - t, t];
    const mix = (p: number, q: number, r: number, v: number): number =>
      s * s * s * p + 3 * s * s * u * q + 3 * s * u * u * r + u * u * u * v;
    return { x: mix(from.x, a.x, b.x, to.x), y: mix(from.y, a.y, b.y, to.y) };
  });
}

/** A quadratic Bézier curve as chords, by the cubic one that it equals. */
export function quadraticPoints(from: Point, a: Point, to: Point, flatnessMm: number): Point[] {
  const towards = (end: Point): Point => ({ x: end.x + (2 / 3) * (a.x - end.x), y: end.y + (2 / 3) * (a.y - end.y) });
  return cubicPoints(from, towards(from), towards(to), to, flatnessMm);
}

/** An elliptical arc as SVG tells it. */
export interface Arc {
  readonly rx: number;
  readonly ry: number;
  /** Of its first axis against x. */
  readonly turnedDeg: number;
  readonly isLarge: boolean;
  /** As it is seen: y runs down. */
  readonly isClockwise: boolean;
}

/**
 * An elliptical arc as chords that leave it by no more than `flatnessMm`; its start is left out. Radii too small to reach are made larger, an arc
 * without a radius is a straight line. Source: SVG 2, appendix B.2.4 and B.2.5, conversion from endpoint to center parametrization.
 *
 * From (1, 0) about a radius of 1 to (-1, 0), clockwise with y down: through (0, 1).
 */
export function arcPoints(from: Point, arc: Arc, to: Point, flatnessMm: number): Point[] {
  let [rx, ry] = [Math.abs(arc.rx), Math.abs(arc.ry)];
  if (rx === 0 || ry === 0 || (from.x === to.x && from.y === to.y)) return [to];
  const turn = (arc.turnedDeg * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const [dx, dy] = [(from.x - to.x) / 2, (from.y - to.y) / 2];
  const [x, y] = [cos * dx + sin * dy, cos * dy - sin * dx];
  const reach = Math.sqrt((x / rx) ** 2 + (y / ry) ** 2);
  if (reach > 1) [rx, ry] = [rx * reach, ry * reach];
  const [a, b] = [(rx * y) ** 2, (ry * x) ** 2];
  const away = Math.sqrt(Math.max(0, ((rx * ry) ** 2 - a - b) / (a + b))) * (arc.isLarge === arc.isClockwise ? -1 : 1);
  const [cx, cy] = [(away * rx * y) / ry, (-away * ry * x) / rx];
  const first = Math.atan2((y - cy) / ry, (x - cx) / rx);
  const last = Math.atan2((-y - cy) / ry, (-x - cx) / rx);
  const full = 2 * Math.PI;
  const way = arc.isClockwise ? (((last - first) % full) + full) % full : -((((first - last) % full) + full) % full);
  // A chord over an angle w of a circle of radius r leaves it by r (1 - cos w/2).
  const widest = 2 * Math.acos(Math.max(0, 1 - flatnessMm / Math.max(rx, ry)));
  const points = chords(Math.abs(way) / widest, (share) => {
    const angle = first + share * way;
    const [px, py] = [rx * Math.cos(angle) + cx, ry * Math.sin(angle) + cy];
    return { x: cos * px - sin * py + (from.x + to.x) / 2, y: sin * px + cos * py + (from.y + to.y) / 2 };
  });
  return [...points.slice(0, -1), to];
}
