import { isLoose, rimFrom, type Box } from './gauges';
import type { Piece } from './piece';
import { randomFrom } from './random';
import { feelOf, givesOf, type TriedSlot } from './try-slot';

interface Place {
  readonly x: number;
  readonly y: number;
}

/** A hole or a part by its edge at the lower face, about a place on it that holes and parts of one drawing share; null where it has not come loose. */
export type CutEdge = readonly Place[] | null;

/** A beam lies no further beside the line that it was sent along. */
const SEARCH_MM = 0.6;
/** An edge is looked at so often. */
const STEP_MM = 0.25;

/** Where the edge of a hole or a part stands once it is cut, all along its outline. */
export function edgeOfMate(piece: Piece, box: Box, side: 'hole' | 'part'): CutEdge {
  const { shape } = box;
  if (!shape || !isLoose(piece, box)) return null;
  const ring = shape.outline;
  const area = ring.reduce((sum, a, k) => {
    const b = ring[(k + 1) % ring.length]!;
    return sum + a.x * b.y - b.x * a.y;
  }, 0);
  // A hole's edge is looked for outward from what fell out of it, a part's inward from the sheet around it.
  const way = side === 'hole' ? 1 : -1;
  const edge: Place[] = [];
  let since = Infinity;
  ring.forEach((a, k) => {
    const b = ring[(k + 1) % ring.length]!;
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    since += length;
    if (length === 0 || since < STEP_MM) return;
    since = 0;
    const [ux, uy] = [((b.y - a.y) / length) * Math.sign(area) * way, (-(b.x - a.x) / length) * Math.sign(area) * way];
    const start = { x: (a.x + b.x) / 2 - ux * SEARCH_MM, y: (a.y + b.y) / 2 - uy * SEARCH_MM };
    const reach = rimFrom(piece, start.x, start.y, ux, uy, 2 * SEARCH_MM);
    if (Number.isFinite(reach))
      edge.push({ x: start.x + ux * reach - shape.on.x, y: start.y + uy * reach - shape.on.y });
  });
  return edge.length < 8 ? null : edge;
}

/** How far a place lies inside a ring; less than nothing outside of it. */
function depthIn(ring: readonly Place[], { x, y }: Place): number {
  let nearestSquared = Infinity;
  let isInside = false;
  let a = ring.at(-1)!;
  for (const b of ring) {
    const dx = b.x - a.x;
    const dy = b.y - a.y;
    const along = Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / Math.max(1e-12, dx * dx + dy * dy)));
    const besideX = x - a.x - along * dx;
    const besideY = y - a.y - along * dy;
    nearestSquared = Math.min(nearestSquared, besideX * besideX + besideY * besideY);
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * dx) isInside = !isInside;
    a = b;
  }
  return isInside ? Math.sqrt(nearestSquared) : -Math.sqrt(nearestSquared);
}

/** How much room a part has on every side of a hole at the least, moved to where it has most; less than nothing where it must be forced. */
function roomFor(part: readonly Place[], hole: readonly Place[]): number {
  const roomAt = (dx: number, dy: number): number =>
    part.reduce((least, { x, y }) => Math.min(least, depthIn(hole, { x: x + dx, y: y + dy })), Infinity);
  let best = { dx: 0, dy: 0, room: roomAt(0, 0) };
  for (let step = 0.1; step > 0.001; step /= 2) {
    for (let moved = true; moved;) {
      moved = false;
      for (const [ux, uy] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ] as const) {
        const [dx, dy] = [best.dx + ux * step, best.dy + uy * step];
        const room = roomAt(dx, dy);
        if (room > best.room) {
          best = { dx, dy, room };
          moved = true;
        }
      }
    }
  }
  return best.room;
}

/** No hand puts two together alike. */
const UNSTEADY_MM = 0.008;

/** A hole and a part of it, each of its stock. */
export interface MatePair {
  readonly hole: CutEdge;
  readonly part: CutEdge;
  readonly families: readonly [string, string];
  readonly seed: string;
}

/** Puts a part into a hole of the same or another sheet: what gives most decides how far it can be forced. */
export function tryMate({ hole, part, families, seed }: MatePair): TriedSlot {
  if (!hole) return { cannot: 'The hole is not open: what was cut out of it still hangs.' };
  if (!part) return { cannot: 'The part has not come loose.' };
  const random = randomFrom(`put together ${seed}`);
  const unsteady = UNSTEADY_MM * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  return { goes: feelOf(2 * roomFor(part, hole) + unsteady, Math.max(...families.map(givesOf))) };
}
