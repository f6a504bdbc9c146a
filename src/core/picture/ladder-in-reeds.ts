import { drawnWhere, distanceToStrokes, placesOver } from './line-art';
import type { Greys } from './greys';

/** Of the drawing, as shares of its height. */
const WIDE = 8 / 7;
const PLACES_HIGH = 210;

const SUN = { x: 0.86, y: 0.3, radius: 0.17 };
const WATER = 0.74;
/** A ladder that leans: feet and heads of its two rails. */
const RAILS = [
  { foot: { x: 0.2, y: 0.95 }, head: { x: 0.42, y: 0.06 } },
  { foot: { x: 0.4, y: 0.95 }, head: { x: 0.55, y: 0.06 } },
] as const;
const RAIL_HALF = 0.022;
const RUNGS = 6;
const REEDS = [
  { foot: 0.72, head: 0.66, high: 0.62 },
  { foot: 0.82, head: 0.84, high: 0.5 },
  { foot: 0.97, head: 1.04, high: 0.7 },
] as const;

const along = (share: number): { x: number; y: number }[] =>
  RAILS.map(({ foot, head }) => ({ x: foot.x + (head.x - foot.x) * share, y: foot.y + (head.y - foot.y) * share }));
const LADDER = [
  ...RAILS.map(({ foot, head }) => [foot, head]),
  ...Array.from({ length: RUNGS }, (_, rung) => along((rung + 0.7) / (RUNGS + 0.4))),
];

/** Whether a place is drawn; x and y as shares of the height. */
function isDrawn(x: number, y: number): boolean {
  // What stands in front leaves a bare rim on what lies behind it.
  const ladder = distanceToStrokes(x, y, LADDER);
  if (ladder < RAIL_HALF) return true;
  if (ladder < 1.7 * RAIL_HALF) return false;
  for (const { foot, head, high } of REEDS) {
    const up = 1 - y;
    if (up > high) continue;
    const middle = foot + (head - foot) * (up / high) ** 2;
    const isEar = up > high - 0.17 && up < high - 0.02;
    const away = Math.abs(x - middle);
    if (away < (isEar ? 0.022 : 0.008)) return true;
    if (isEar && away < 0.034) return false;
  }
  if (Math.hypot(x - SUN.x, y - SUN.y) < SUN.radius) return true;
  // Water: broad, with bands of light that grow nearer.
  if (y < WATER) return false;
  const deep = (y - WATER) / (1 - WATER);
  return Math.sin(34 * Math.sqrt(deep) + 1.3 * Math.sin(5 * x)) > -0.72;
}

let drawn: Greys | undefined;

/** A ladder in the reeds before a low sun: broad areas, rails, stalks. Drawn by this code, burned or bare, 240 by 210. */
export const ladderInReeds = (): Greys =>
  (drawn ??= Object.freeze(
    drawnWhere(placesOver(WIDE * PLACES_HIGH, PLACES_HIGH, 1), (x, y) => isDrawn(x / PLACES_HIGH, y / PLACES_HIGH)),
  ));
