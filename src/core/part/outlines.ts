import polylabel from 'polylabel';
import type { Point, Rect } from '../geometry/point';
import { rectsOverlap } from '../geometry/point';
import { pointsOf, type Drawing } from './drawing';
import { boxOfRing, crossesItself, sharedAreaMm2, signedAreaMm2, type Ring } from './polygons';

/** A closed line of a drawing: the edge of a part, or of a hole in one. */
export interface Outline {
  readonly ring: Ring;
  readonly side: 'part' | 'hole';
  /** The outline directly around it, by its place in the list; null for what lies in none. */
  readonly within: number | null;
  readonly box: Rect;
  /** A place of what comes loose when it is cut, well away from its edges. */
  readonly on: Point;
}

/** A line that ends: no part comes out of it. */
export interface OpenLine {
  readonly points: readonly Point[];
  readonly lengthMm: number;
}

/** What makes it impossible to say what is part and what is hole; at a place, so that it can be looked at. */
export interface DrawingFault {
  readonly what: 'crosses-itself' | 'crosses-another' | 'too-small';
  readonly at: Point;
}

export interface SortedDrawing {
  /** The largest first: what lies in another comes after it. */
  readonly outlines: readonly Outline[];
  readonly open: readonly OpenLine[];
  /** How many closed lines were left out because the same line is there already: cut twice, an edge is charred and wide. */
  readonly twice: number;
  readonly faults: readonly DrawingFault[];
}

/** Smaller things than this burn away. */
const LEAST_MM = 0.2;
/** Of areas: what rounding leaves. */
const SLIVER_MM2 = 1e-3;

/**
 * Closed lines sorted by nesting: what lies in none, or in an even number of others, is the edge of a part, the others are holes. Lines that stand
 * there twice are taken once. With faults there are no outlines: what crosses cannot be told apart.
 *
 * A square with a round hole, and in the hole a smaller square: part, hole, part.
 */
export function sortedDrawing({ lines }: Drawing, scale = 1): SortedDrawing {
  const open = lines
    .filter(({ closed }) => !closed)
    .map((line): OpenLine => {
      const points = pointsOf(line, scale);
      return { points, lengthMm: lengthOf(points) };
    });
  const all = lines.filter(({ closed }) => closed).map((line) => pointsOf(line, scale));
  const rings = all
    .filter((ring, index) => !all.slice(0, index).some((other) => isSame(ring, other)))
    .sort((a, b) => Math.abs(signedAreaMm2(b)) - Math.abs(signedAreaMm2(a)));
  const faults = faultsOf(rings);
  return {
    outlines: faults.length > 0 ? [] : nested(rings),
    open,
    twice: all.length - rings.length,
    faults,
  };
}

export const lengthOf = (points: readonly Point[]): number =>
  points.slice(1).reduce((sum, { x, y }, index) => sum + Math.hypot(x - points[index]!.x, y - points[index]!.y), 0);

/** Of two rings that go the same way round the same stock so much of the area is shared: what is left lies within a kerf. */
const SAME_SHARE = 0.998;

/** Whether two rings are one and the same line, whatever places each is told by: their areas are alike, and lie on each other. */
function isSame(a: Ring, b: Ring): boolean {
  const [areaA, areaB] = [Math.abs(signedAreaMm2(a)), Math.abs(signedAreaMm2(b))];
  const least = Math.min(areaA, areaB);
  const most = Math.max(areaA, areaB);
  if (most === 0 || least / most < SAME_SHARE || !rectsOverlap(boxOfRing(a), boxOfRing(b))) return false;
  return sharedAreaMm2([a], [b]) / most > SAME_SHARE;
}

function faultsOf(rings: readonly Ring[]): DrawingFault[] {
  const boxes = rings.map(boxOfRing);
  const faults = rings.flatMap((ring, index): DrawingFault[] => {
    const { width, height } = boxes[index]!;
    if (Math.min(width, height) < LEAST_MM) return [{ what: 'too-small', at: ring[0]! }];
    if (crossesItself(ring)) return [{ what: 'crosses-itself', at: ring[0]! }];
    return Math.abs(signedAreaMm2(ring)) < LEAST_MM ** 2 ? [{ what: 'too-small', at: ring[0]! }] : [];
  });
  if (faults.length > 0) return faults;
  rings.forEach((ring, a) =>
    rings.slice(0, a).forEach((other, b) => {
      if (!rectsOverlap(boxes[a]!, boxes[b]!)) return;
      const shared = sharedAreaMm2([ring], [other]);
      const least = Math.min(Math.abs(signedAreaMm2(ring)), Math.abs(signedAreaMm2(other)));
      if (shared > SLIVER_MM2 && least - shared > SLIVER_MM2) faults.push({ what: 'crosses-another', at: ring[0]! });
    }),
  );
  return faults;
}

/** Rings none of which cross: of two that share an area, the smaller one lies in the other. */
function nested(rings: readonly Ring[]): Outline[] {
  const areas = rings.map((ring) => Math.abs(signedAreaMm2(ring)));
  const boxes = rings.map(boxOfRing);
  const around = rings.map((ring, index) =>
    rings
      .map((_, other) => other)
      .filter(
        (other) =>
          areas[other]! > areas[index]! &&
          rectsOverlap(boxes[index]!, boxes[other]!) &&
          sharedAreaMm2([ring], [rings[other]!]) > areas[index]! / 2,
      )
      .sort((a, b) => areas[a]! - areas[b]!),
  );
  return rings.map((ring, index) => ({
    ring,
    side: around[index]!.length % 2 === 0 ? 'part' : 'hole',
    within: around[index]![0] ?? null,
    box: boxes[index]!,
    on: placeOn(
      ring,
      boxes[index]!,
      rings.filter((_, other) => around[other]![0] === index),
    ),
  }));
}

/** To so much of a part's size the place on it is the one furthest from every edge. */
const PLACE_SHARE = 0.01;

/** A place on what is inside a ring and in none of the rings in it, as far from every edge as there is one. */
function placeOn(ring: Ring, { width, height }: Rect, holes: readonly Ring[]): Point {
  const closed = (one: Ring): [number, number][] => [...one, one[0]!].map(({ x, y }) => [x, y]);
  const [x, y] = polylabel([closed(ring), ...holes.map(closed)], PLACE_SHARE * Math.min(width, height));
  return { x: x, y: y };
}

/** Outlines in the order they are cut, by their places in the list: all that lies in one before it, since what has dropped moves; then the nearest. */
export function cutOrder(
  outlines: readonly Pick<Outline, 'within' | 'ring'>[],
  from: Point = { x: 0, y: 0 },
): number[] {
  const order: number[] = [];
  let head = from;
  const cutAllIn = (parent: number | null): void => {
    const left = outlines.map((_, index) => index).filter((index) => outlines[index]!.within === parent);
    while (left.length > 0) {
      const away = left.map((index) =>
        Math.min(...outlines[index]!.ring.map(({ x, y }) => Math.hypot(x - head.x, y - head.y))),
      );
      const [next] = left.splice(away.indexOf(Math.min(...away)), 1);
      cutAllIn(next!);
      order.push(next!);
      head = outlines[next!]!.ring[0]!;
    }
  };
  cutAllIn(null);
  return order;
}
