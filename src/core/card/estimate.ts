import type { Point } from '../geometry/point';
import type { Machine } from '../machine/machine';
import { moveTimeS } from '../motion/move';
import type { Layout } from './layout';
import { cardPath, type BurnScope, type PathStep } from './path';

export interface Estimate {
  /** Machine time; what a hand takes at its stops is not in it. */
  readonly totalS: number;
  readonly frameS: number;
  /** Seconds by cell index; 0 for cells left out. */
  readonly cellsS: readonly number[];
  /** How often the burn waits for a hand. */
  readonly handStops: number;
  /** Area that head and run-up sweep over, in card millimetres. */
  readonly reach: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number };
}

/** Time of a straight move in which each axis keeps its own limits and the slower axis decides. */
function straightMoveS(from: Point, to: Point, speed: number, machine: Machine): number {
  const dx = Math.abs(to.x - from.x);
  const dy = Math.abs(to.y - from.y);
  const length = Math.hypot(dx, dy);
  if (length === 0) return 0;
  const alongX = dx / length;
  const alongY = dy / length;
  const top = Math.min(
    speed,
    alongX > 0 ? machine.topSpeedXMmPerS / alongX : Infinity,
    alongY > 0 ? machine.topSpeedYMmPerS / alongY : Infinity,
  );
  const acceleration = Math.min(
    alongX > 0 ? machine.accelerationXMmPerS2 / alongX : Infinity,
    alongY > 0 ? machine.accelerationYMmPerS2 / alongY : Infinity,
  );
  return moveTimeS(length, top, acceleration);
}

/** The point `distance` mm beyond `to` on the straight way from `from`. */
export function beyond(from: Point, to: Point, distance: number): Point {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  if (length === 0 || distance === 0) return to;
  return { x: to.x + ((to.x - from.x) / length) * distance, y: to.y + ((to.y - from.y) / length) * distance };
}

/** The points of a step that the head goes to, run-up included; none for steps without motion. */
export function wayOf(step: PathStep): readonly Point[] {
  if (step.step === 'sweep')
    return [beyond(step.to, step.from, step.runUpMm), beyond(step.from, step.to, step.runUpMm)];
  if (step.step !== 'stroke') return [];
  const { points, runUpMm } = step;
  if (runUpMm === 0 || points.length < 2) return points;
  return [beyond(points[1]!, points[0]!, runUpMm), ...points, beyond(points.at(-2)!, points.at(-1)!, runUpMm)];
}

/**
 * Burn time of a card from the motion model: each sweep runs from rest to rest over mark and run-up, strokes rest at each corner,
 * and travel between them is at the machine's top speed. The head starts at the card's upper left corner. What controllers add for
 * each line, and hands at their stops, is not in it; logged burns show by how much.
 */
export function estimateCard(layout: Layout, machine: Machine, scope: BurnScope | null = null): Estimate {
  const cellsS = layout.cells.map(() => 0);
  let frameS = 0;
  let handStops = 0;
  let focus = 0;
  let cellIndex: number | null = null;
  let head: Point = { x: 0, y: 0 };
  const reach = { left: 0, top: 0, right: layout.widthMm, bottom: layout.heightMm };
  const go = (to: Point, speed: number): void => {
    const s = straightMoveS(head, to, speed, machine);
    if (cellIndex === null) frameS += s;
    else cellsS[cellIndex]! += s;
    head = to;
    reach.left = Math.min(reach.left, to.x);
    reach.right = Math.max(reach.right, to.x);
    reach.top = Math.min(reach.top, to.y);
    reach.bottom = Math.max(reach.bottom, to.y);
  };
  const rapid = Math.hypot(machine.topSpeedXMmPerS, machine.topSpeedYMmPerS);
  for (const step of cardPath(layout, machine, scope)) {
    if (step.step === 'part') {
      cellIndex = step.cellIndex;
      if (step.focusOffsetMm !== focus && !machine.automaticFocus) handStops++;
      focus = step.focusOffsetMm;
    } else if (step.step === 'hand') handStops++;
    else {
      const [first, ...rest] = wayOf(step);
      if (!first) continue;
      go(first, rapid);
      for (const point of rest) go(point, step.speedMmPerS);
    }
  }
  const totalS = frameS + cellsS.reduce((sum, s) => sum + s, 0);
  return { totalS, frameS, cellsS, handStops, reach };
}
