import { EVD, Matrix, solve } from 'ml-matrix';
import type { Point } from './point';

/** Row-major 3 x 3 projective map, last entry 1. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

/** Image of a point under the map. Points on the vanishing line give infinite coordinates. */
export function project(h: Homography, x: number, y: number): Point {
  const w = h[6] * x + h[7] * y + h[8];
  return { x: (h[0] * x + h[1] * y + h[2]) / w, y: (h[3] * x + h[4] * y + h[5]) / w };
}

export function invertHomography(h: Homography): Homography {
  const [a, b, c, d, e, f, g, i, j] = h;
  const out = [
    e * j - f * i,
    c * i - b * j,
    b * f - c * e,
    f * g - d * j,
    a * j - c * g,
    c * d - a * f,
    d * i - e * g,
    b * g - a * i,
    a * e - b * d,
  ];
  return scaled(out);
}

/** The same map for coordinates that count from another place: what was (x, y) is (0, 0). */
export function movedOrigin(h: Homography, { x, y }: Point): Homography {
  const [a, b, c, d, e, f, g, i, j] = h;
  return scaled([a, b, a * x + b * y + c, d, e, d * x + e * y + f, g, i, g * x + i * y + j]);
}

/** The same map into an image of so many pixels across that was mirrored, left and right exchanged; pixel centres at whole coordinates. */
export function intoMirrored(h: Homography, widthPx: number): Homography {
  const last = widthPx - 1;
  const [a, b, c, d, e, f, g, i, j] = h;
  return scaled([last * g - a, last * i - b, last * j - c, d, e, f, g, i, j]);
}

/** Whether a map turns what is clockwise around its origin the other way round, as a mirror does. */
export function isMirror(h: Homography): boolean {
  // The sign of its local area: the determinant over the cube of w, which is 1 at the origin.
  return determinant(h) < 0;
}

function determinant([a, b, c, d, e, f, g, i, j]: readonly number[]): number {
  return a! * (e! * j! - f! * i!) - b! * (d! * j! - f! * g!) + c! * (d! * i! - e! * g!);
}

function scaled(m: readonly number[]): Homography {
  const last = m[8]!;
  return m.map((value) => value / last) as unknown as Homography;
}

interface Normalisation {
  readonly points: Point[];
  readonly scale: number;
  readonly cx: number;
  readonly cy: number;
}

function normalised(points: readonly Point[]): Normalisation {
  const n = points.length;
  const cx = points.reduce((sum, p) => sum + p.x, 0) / n;
  const cy = points.reduce((sum, p) => sum + p.y, 0) / n;
  const distance = points.reduce((sum, p) => sum + Math.hypot(p.x - cx, p.y - cy), 0) / n;
  if (!(distance > 0)) throw new RangeError('invalid points: all in one place');
  const scale = Math.SQRT2 / distance;
  return { points: points.map((p) => ({ x: (p.x - cx) * scale, y: (p.y - cy) * scale })), scale, cx, cy };
}

/** What rounding leaves of nothing, of a map whose entries squared add to 1 and of eigenvalues beside the largest. */
const AS_NONE = 1e-12;

export interface FittedHomography {
  readonly homography: Homography;
  /** Root mean square distance, in target units, between the mapped and the given target points. */
  readonly rmsError: number;
}

/**
 * Least-squares homography from `from` to `to` (at least four pairs, no three of four collinear): normalised direct linear
 * transform, then Gauss-Newton on the distance in the target plane (at most ten steps).
 * Throws RangeError for fewer than four pairs, unequal counts, values that are not finite, points that lie on one line in either plane, and a map
 * that sends their middle to infinity.
 *
 * Source: R. Hartley, A. Zisserman, Multiple View Geometry in Computer Vision, 2nd ed. (2003), algorithms 4.2 and 4.3.
 */
export function fitHomography(from: readonly Point[], to: readonly Point[]): FittedHomography {
  if (from.length !== to.length || from.length < 4) {
    throw new RangeError(`invalid point pairs: ${from.length} and ${to.length}, four or more pairs are needed`);
  }
  for (const p of [...from, ...to]) {
    if (!Number.isFinite(p.x) || !Number.isFinite(p.y)) throw new RangeError(`invalid point: ${p.x}, ${p.y}`);
  }
  const source = normalised(from);
  const target = normalised(to);
  const rows: number[][] = [];
  source.points.forEach((p, index) => {
    const q = target.points[index]!;
    rows.push([-p.x, -p.y, -1, 0, 0, 0, q.x * p.x, q.x * p.y, q.x]);
    rows.push([0, 0, 0, -p.x, -p.y, -1, q.y * p.x, q.y * p.y, q.y]);
  });
  const design = new Matrix(rows);
  // The smallest singular vector of the design is the smallest eigenvector of its 9 x 9 normal matrix; after the
  // normalisation that matrix is well enough conditioned, and the refinement below removes what is lost.
  const evd = new EVD(design.transpose().mmul(design), { assumeSymmetric: true });
  const sizes = evd.realEigenvalues;
  const [least, second] = [...sizes.keys()].sort((a, b) => sizes[a]! - sizes[b]!);
  const told = evd.eigenvectorMatrix.getColumn(least!);
  // Places of one line are mapped by many planes alike, and onto a line by none that could be mapped back.
  if (sizes[second!]! < AS_NONE * Math.max(...sizes) || Math.abs(determinant(told)) < AS_NONE)
    throw new RangeError('invalid points: three or more on one line');
  if (Math.abs(told[8]!) < AS_NONE) throw new RangeError('invalid points: their middle is mapped to infinity');

  const refined = refine(scaled(told), source.points, target.points);
  const map = compose(refined, source, target);
  let squares = 0;
  from.forEach((p, index) => {
    const q = project(map, p.x, p.y);
    squares += (q.x - to[index]!.x) ** 2 + (q.y - to[index]!.y) ** 2;
  });
  const rmsError = Math.sqrt(squares / from.length);
  return { homography: map, rmsError };
}

function refine(start: readonly number[], from: readonly Point[], to: readonly Point[]): number[] {
  let h = [...start];
  let error = squaredError(h, from, to);
  for (let step = 0; step < 10; step++) {
    const normal = Matrix.zeros(8, 8);
    const gradient = Matrix.zeros(8, 1);
    from.forEach((p, index) => {
      const w = h[6]! * p.x + h[7]! * p.y + 1;
      const u = (h[0]! * p.x + h[1]! * p.y + h[2]!) / w;
      const v = (h[3]! * p.x + h[4]! * p.y + h[5]!) / w;
      const rowU = [p.x / w, p.y / w, 1 / w, 0, 0, 0, (-u * p.x) / w, (-u * p.y) / w];
      const rowV = [0, 0, 0, p.x / w, p.y / w, 1 / w, (-v * p.x) / w, (-v * p.y) / w];
      const du = to[index]!.x - u;
      const dv = to[index]!.y - v;
      for (let i = 0; i < 8; i++) {
        gradient.set(i, 0, gradient.get(i, 0) + rowU[i]! * du + rowV[i]! * dv);
        for (let j = 0; j < 8; j++) {
          normal.set(i, j, normal.get(i, j) + rowU[i]! * rowU[j]! + rowV[i]! * rowV[j]!);
        }
      }
    });
    for (let i = 0; i < 8; i++) normal.set(i, i, normal.get(i, i) + 1e-12);
    const change = solve(normal, gradient);
    const next = h.map((value, i) => (i < 8 ? value + change.get(i, 0) : 1));
    const nextError = squaredError(next, from, to);
    if (!(nextError < error)) break;
    const gained = error - nextError;
    h = next;
    error = nextError;
    if (gained < 1e-18) break;
  }
  return h;
}

function squaredError(h: readonly number[], from: readonly Point[], to: readonly Point[]): number {
  return from.reduce((sum, p, index) => {
    const q = project(h as unknown as Homography, p.x, p.y);
    return sum + (q.x - to[index]!.x) ** 2 + (q.y - to[index]!.y) ** 2;
  }, 0);
}

function compose(h: readonly number[], source: Normalisation, target: Normalisation): Homography {
  const fromSource = new Matrix([
    [source.scale, 0, -source.scale * source.cx],
    [0, source.scale, -source.scale * source.cy],
    [0, 0, 1],
  ]);
  const toTarget = new Matrix([
    [1 / target.scale, 0, target.cx],
    [0, 1 / target.scale, target.cy],
    [0, 0, 1],
  ]);
  const middle = new Matrix([h.slice(0, 3), h.slice(3, 6), h.slice(6, 9)] as number[][]);
  return scaled(toTarget.mmul(middle).mmul(fromSource).to1DArray());
}
