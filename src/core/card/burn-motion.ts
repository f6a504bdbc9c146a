import type { Point } from '../geometry/point';
import type { Machine } from '../machine/machine';
import type { Leg } from '../motion/corners';
import type { AlikeWays, BurnMotion } from '../motion/pace-fit';
import { movesOf, wayOf } from './estimate';
import type { Layout } from './layout';
import { cardPath, type BurnScope } from './path';

/**
 * What the head does in a burn, ways that are alike told once: what its time is made of, small enough to fit a machine's pace to many
 * burns. The same ways as `estimateCard` times, to a micrometre.
 */
export function burnMotion(layout: Layout, machine: Machine, scope: BurnScope | null = null): BurnMotion {
  const ways = new Map<string, AlikeWays>();
  let lines = 0;
  let head: Point = { x: 0, y: 0 };
  const go = (points: readonly Point[], speedMmPerS: number | null): void => {
    const legs = alikeLegs([head, ...points]);
    head = points.at(-1) ?? head;
    if (legs.length === 0) return;
    const key = `${legs.join(' ')} ${speedMmPerS}`;
    ways.set(key, { count: (ways.get(key)?.count ?? 0) + 1, legs, speedMmPerS });
  };
  for (const step of cardPath(layout, machine, scope)) {
    if (step.step === 'part' || step.step === 'hand') continue;
    const [first, ...rest] = wayOf(step);
    if (!first) continue;
    lines += movesOf(step, machine);
    go([first], null);
    go(rest, step.speedMmPerS);
  }
  return { ways: [...ways.values()], lines };
}

/** Legs between points to a micrometre, turned so that ways which are each other's mirror image are one. */
function alikeLegs(points: readonly Point[]): Leg[] {
  const round = (mm: number): number => Math.round(mm * 1000) / 1000;
  const legs = points
    .slice(1)
    .map(({ x, y }, k): Leg => [round(x - points[k]!.x), round(y - points[k]!.y)])
    .filter(([dxMm, dyMm]) => dxMm !== 0 || dyMm !== 0);
  const signOf = (axis: 0 | 1): number => Math.sign(legs.find((leg) => leg[axis] !== 0)?.[axis] ?? 1);
  const [signX, signY] = [signOf(0), signOf(1)];
  // Adding nothing makes no zero negative.
  return legs.map(([dxMm, dyMm]) => [signX * dxMm + 0, signY * dyMm + 0]);
}
