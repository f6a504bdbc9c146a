import {
  areaPaths,
  difference,
  EndType,
  FillRule,
  inflatePaths,
  intersect,
  JoinType,
  pointInPolygon,
  PointInPolygonResult,
  union,
  type Path64,
  type Paths64,
} from 'clipper2-ts';
import type { Point } from '../geometry/point';

/** The library reckons in whole numbers: so many of them to a millimetre. Products of two places on any bed stay exact. */
const STEPS_PER_MM = 100_000;
/**
 * Round corners leave the true arc by no more than this, in steps: 4 µm. Finer ones are told in stretches so short that a small controller cannot
 * take them as fast as the head goes.
 */
const ARC_STEPS = 400;

/** A closed outline; its last place is joined to its first. */
export type Ring = readonly Point[];

const toSteps = (ring: Ring): Path64 =>
  ring.map(({ x, y }) => ({ x: Math.round(x * STEPS_PER_MM), y: Math.round(y * STEPS_PER_MM) }));
const toMm = (path: Path64): Point[] => path.map(({ x, y }) => ({ x: x / STEPS_PER_MM, y: y / STEPS_PER_MM }));

const area = (paths: Paths64): number => Math.abs(areaPaths(paths)) / STEPS_PER_MM ** 2;

/** Area with a sign: above zero where a ring goes round clockwise as it is seen (y runs down). */
export function signedAreaMm2(ring: Ring): number {
  let sum = 0;
  for (const [index, a] of ring.entries()) {
    const b = ring[(index + 1) % ring.length]!;
    sum += a.x * b.y - b.x * a.y;
  }
  return sum / 2;
}

/** Area that rings share, in mm², whatever their sense. */
export const sharedAreaMm2 = (a: readonly Ring[], b: readonly Ring[]): number =>
  area(intersect(a.map(toSteps), b.map(toSteps), FillRule.NonZero));

/** Pieces of the area that is in `a` and not in `b`, each in mm² and with its middle. */
export function piecesLeft(
  a: readonly Ring[],
  b: readonly Ring[],
): { readonly areaMm2: number; readonly middle: Point }[] {
  return difference(a.map(toSteps), b.map(toSteps), FillRule.NonZero).map((path) => ({
    areaMm2: area([path]),
    middle: boxMiddle(toMm(path)),
  }));
}

function boxMiddle(ring: Ring): Point {
  const { x, y, width, height } = boxOfRing(ring);
  return { x: x + width / 2, y: y + height / 2 };
}

/** Whether a ring crosses or touches itself: the area that it goes round an odd number of times is not the one it goes round. */
export function crossesItself(ring: Ring): boolean {
  const path = toSteps(ring);
  const pieces = union([path], FillRule.EvenOdd);
  return pieces.length !== 1 || Math.abs(area(pieces) - Math.abs(signedAreaMm2(ring))) > 1e-4;
}

/** Whether a place lies within a ring; not on its line. */
export const isInside = ({ x, y }: Point, ring: Ring): boolean =>
  pointInPolygon({ x: Math.round(x * STEPS_PER_MM), y: Math.round(y * STEPS_PER_MM) }, toSteps(ring)) ===
  PointInPolygonResult.IsInside;

/** The box around a ring. Throws RangeError for one without places. */
export function boxOfRing(ring: Ring): {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
} {
  if (ring.length === 0) throw new RangeError('invalid ring: it has no places');
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of ring) {
    left = Math.min(left, x);
    right = Math.max(right, x);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y);
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** How far an outline is moved outward on either side, along each axis; below zero inward. */
export interface Offset {
  readonly xMm: number;
  readonly yMm: number;
}

/** No beam is so much wider along one axis that less than this is left of it along the other. */
const LEAST_SHARE = 1e-3;

/**
 * An outline moved outward by an offset, with round corners: the places that the middle of an oval beam of that half width passes when it touches
 * the outline from outside, or from inside where the offset is below zero. More rings than one, or none, where it does not go everywhere: the
 * outermost of them first. Throws RangeError for an offset that grows along one axis and shrinks along the other.
 *
 * A square of 10 mm by 0.1 both ways: 10.2 mm wide, its corners rounded by 0.1, 104 + 0.01 π mm².
 */
export function offsetRing(ring: Ring, { xMm, yMm }: Offset): Point[][] {
  if (xMm === 0 && yMm === 0) return [[...ring]];
  if (xMm * yMm < 0)
    throw new RangeError('invalid offset: an outline cannot grow along one axis and shrink along the other');
  const reach = Math.max(Math.abs(xMm), Math.abs(yMm));
  const floor = LEAST_SHARE * reach;
  const [x, y] = [Math.max(floor, Math.abs(xMm)), Math.max(floor, Math.abs(yMm))];
  // An oval beam is a round one on a drawing that is stretched along one axis.
  const stretch = x / y;
  const path = toSteps(ring.map((point) => ({ x: point.x, y: point.y * stretch })));
  const positive = areaPaths([path]) > 0 ? path : [...path].reverse();
  const by = Math.sign(xMm + yMm) * x * STEPS_PER_MM;
  return inflatePaths([positive], by, JoinType.Round, EndType.Polygon, 2, ARC_STEPS)
    .map(toMm)
    .map((moved) => moved.map((point) => ({ x: point.x, y: point.y / stretch })))
    .sort((a, b) => Math.abs(signedAreaMm2(b)) - Math.abs(signedAreaMm2(a)));
}
