import type { Point } from './point';

/**
 * Lines in the order and the sense in which little way lies between them: from `start` always on to the nearest free end, the line
 * that begins there followed from that end. Not the least way there is (a nearest-neighbour tour), but far below the written order.
 * Every line comes out once, unchanged but for its sense; lines without points are left out.
 *
 * From (0, 0), the lines (9,0)-(5,0) and (1,0)-(4,0) come out as (1,0)-(4,0), (5,0)-(9,0).
 */
export function visitNearest(lines: readonly (readonly Point[])[], start: Point): (readonly Point[])[] {
  const left = lines.filter((line) => line.length > 0);
  const visited: (readonly Point[])[] = [];
  let head = start;
  while (left.length > 0) {
    let best = { index: 0, distance: Infinity, back: false };
    left.forEach((line, index) => {
      for (const back of [false, true]) {
        const end = back ? line.at(-1)! : line[0]!;
        const distance = Math.hypot(end.x - head.x, end.y - head.y);
        if (distance < best.distance) best = { index, distance, back };
      }
    });
    const [line] = left.splice(best.index, 1);
    visited.push(best.back ? [...line!].reverse() : line!);
    head = visited.at(-1)!.at(-1)!;
  }
  return visited;
}
