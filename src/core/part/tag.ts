import type { Point } from '../geometry/point';
import { FLATNESS_MM, lineOf, type Drawing } from './drawing';
import { arcPoints } from './flatten';

const turned = { turnedDeg: 0, isLarge: false, isClockwise: true } as const;

/** A rectangle with round corners, clockwise. */
function rounded(x: number, y: number, width: number, height: number, r: number): Point[] {
  const [right, bottom] = [x + width, y + height];
  const corner = (from: Point, to: Point): Point[] => [
    from,
    ...arcPoints(from, { rx: r, ry: r, ...turned }, to, FLATNESS_MM),
  ];
  return [
    ...corner({ x: right - r, y }, { x: right, y: y + r }),
    ...corner({ x: right, y: bottom - r }, { x: right - r, y: bottom }),
    ...corner({ x: x + r, y: bottom }, { x, y: bottom - r }),
    ...corner({ x, y: y + r }, { x: x + r, y }),
  ];
}

function circle(x: number, y: number, r: number): Point[] {
  const [left, right] = [
    { x: x - r, y },
    { x: x + r, y },
  ];
  const half = (from: Point, to: Point): Point[] => arcPoints(from, { rx: r, ry: r, ...turned }, to, FLATNESS_MM);
  return [...half(left, right), ...half(right, left)];
}

/** A drawing of our own to begin with: a tag with a round hole and a window, straight along its lower edge. */
export const tag = (): Drawing => ({
  name: 'Tag',
  sizeSaidIn: 'lengths',
  lines: [rounded(0, 0, 24, 16, 2), circle(5.5, 8, 2.5), rounded(12, 4.5, 8, 7, 0.5)].map((ring) => lineOf(ring, true)),
});
