import type { Point } from '../geometry/point';
import type { Machine } from '../machine/machine';
import type { Leg } from '../motion/corners';
import { wayTimeS } from '../motion/head-motion';
import { UNTIMED, type Pace } from '../motion/pace';
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

/** Moves of a step as a program tells them, one to a line: each of them takes a controller some time of its own. */
export function movesOf(step: PathStep, { addsRunUp }: Pick<Machine, 'addsRunUp'>): number {
  if (step.step !== 'sweep' && step.step !== 'stroke') return 0;
  const runUp = addsRunUp || step.runUpMm === 0 ? 0 : 1;
  if (step.step === 'stroke') return step.points.length < 2 ? 0 : step.points.length + 2 * runUp;
  let moves = 1 + runUp;
  let head = runUp === 0 ? 0 : -step.runUpMm;
  for (const { fromMm, toMm } of step.lit) {
    moves += fromMm > head + 1e-9 ? 2 : 1;
    head = toMm;
  }
  return moves;
}

/**
 * Burn time of a card from the motion model: each sweep runs from rest to rest over mark and run-up, strokes run from rest to rest too,
 * round their corners as fast as these allow, and travel between them is as fast as the head goes. The head starts at the card's upper
 * left corner. What hands take at their stops is not in it. `pace` is what logged burns told of this machine; without it the machine moves as its record says, and controllers add
 * nothing for each move.
 */
export function estimateCard(
  layout: Layout,
  machine: Machine,
  scope: BurnScope | null = null,
  pace: Pace = UNTIMED,
): Estimate {
  const cellsS = layout.cells.map(() => 0);
  let frameS = 0;
  let handStops = 0;
  let focus = 0;
  let cells: readonly number[] = [];
  let head: Point = { x: 0, y: 0 };
  const reach = { left: 0, top: 0, right: layout.widthMm, bottom: layout.heightMm };
  const take = (s: number): void => {
    if (cells.length === 0) frameS += s * pace.scale;
    for (const index of cells) cellsS[index]! += (s * pace.scale) / cells.length;
  };
  const go = (points: readonly Point[], speed: number | null): void => {
    const legs = points.map(({ x, y }, k): Leg => [x - (points[k - 1] ?? head).x, y - (points[k - 1] ?? head).y]);
    take(wayTimeS(legs, speed, machine, pace.shares));
    head = points.at(-1) ?? head;
    for (const { x, y } of points) {
      reach.left = Math.min(reach.left, x);
      reach.right = Math.max(reach.right, x);
      reach.top = Math.min(reach.top, y);
      reach.bottom = Math.max(reach.bottom, y);
    }
  };
  for (const step of cardPath(layout, machine, scope)) {
    if (step.step === 'part') {
      cells = step.cells;
      if (step.focusOffsetMm !== focus && !machine.automaticFocus) handStops++;
      focus = step.focusOffsetMm;
    } else if (step.step === 'hand') handStops++;
    else {
      const [first, ...rest] = wayOf(step);
      if (!first) continue;
      take(movesOf(step, machine) * pace.shares.lineOverheadS);
      go([first], null);
      go(rest, step.speedMmPerS);
    }
  }
  const totalS = frameS + cellsS.reduce((sum, s) => sum + s, 0);
  return { totalS, frameS, cellsS, handStops, reach };
}
