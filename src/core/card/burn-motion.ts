import type { Point } from '../geometry/point';
import type { Machine } from '../machine/machine';
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
  const round = (mm: number): number => Math.round(Math.abs(mm) * 1000) / 1000;
  const go = (to: Point, speedMmPerS: number | null): void => {
    const [dxMm, dyMm] = [round(to.x - head.x), round(to.y - head.y)];
    head = to;
    if (dxMm === 0 && dyMm === 0) return;
    const key = `${dxMm} ${dyMm} ${speedMmPerS}`;
    ways.set(key, { count: (ways.get(key)?.count ?? 0) + 1, dxMm, dyMm, speedMmPerS });
  };
  for (const step of cardPath(layout, machine, scope)) {
    if (step.step === 'part' || step.step === 'hand') continue;
    const [first, ...rest] = wayOf(step);
    if (!first) continue;
    lines += movesOf(step, machine);
    go(first, null);
    for (const point of rest) go(point, step.speedMmPerS);
  }
  return { ways: [...ways.values()], lines };
}
