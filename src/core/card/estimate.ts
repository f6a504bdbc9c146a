import type { Point } from '../geometry/point';
import type { Machine } from '../machine/machine';
import { moveTimeS } from '../motion/move';
import type { Layout } from './layout';
import { cardPath } from './path';

export interface Estimate {
  readonly totalS: number;
  readonly markersAndLetteringS: number;
  /** Seconds by cell index; 0 for cells left out. */
  readonly cellsS: readonly number[];
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

/**
 * Burn time of a card from the motion model: each sweep runs from rest to rest over mark and run-up, strokes rest at each
 * corner, and travel between them is at the machine's top speed. The head starts at the card's upper left corner. What
 * controllers add for each line is not in it; logged burns show by how much.
 */
export function estimateCard(layout: Layout, machine: Machine): Estimate {
  const cellsS = layout.cells.map(() => 0);
  let other = 0;
  let cellIndex: number | null = null;
  let head: Point = { x: 0, y: 0 };
  const reach = { left: 0, top: 0, right: layout.widthMm, bottom: layout.heightMm };
  const spend = (s: number): void => {
    if (cellIndex === null) other += s;
    else cellsS[cellIndex]! += s;
  };
  const go = (to: Point, speed: number): void => {
    spend(straightMoveS(head, to, speed, machine));
    head = to;
    reach.left = Math.min(reach.left, to.x);
    reach.right = Math.max(reach.right, to.x);
    reach.top = Math.min(reach.top, to.y);
    reach.bottom = Math.max(reach.bottom, to.y);
  };
  const rapid = Math.hypot(machine.topSpeedXMmPerS, machine.topSpeedYMmPerS);
  for (const step of cardPath(layout, machine)) {
    if (step.step === 'part') cellIndex = step.cellIndex;
    else if (step.step === 'stroke') {
      go(step.points[0]!, rapid);
      for (const point of step.points.slice(1)) go(point, step.speedMmPerS);
    } else {
      const length = Math.hypot(step.to.x - step.from.x, step.to.y - step.from.y);
      const ux = (step.to.x - step.from.x) / length;
      const uy = (step.to.y - step.from.y) / length;
      go({ x: step.from.x - ux * step.runUpMm, y: step.from.y - uy * step.runUpMm }, rapid);
      go({ x: step.to.x + ux * step.runUpMm, y: step.to.y + uy * step.runUpMm }, step.speedMmPerS);
    }
  }
  const totalS = other + cellsS.reduce((sum, s) => sum + s, 0);
  return { totalS, markersAndLetteringS: other, cellsS, reach };
}
