import type { Point } from '../geometry/point';

/** Outlines that a hole and a part share: a round head on a neck that swells again, a disc, a square with round corners. */
export const KNOB_SHAPES = ['knob', 'round', 'square'] as const;
export type KnobShape = (typeof KNOB_SHAPES)[number];

/** Of a knob, by its head's radius: half of the neck, the fillet on either side of it, and where the round end of the neck has its middle. */
const NECK = 0.5;
const FILLET = 0.25;
const END = 1.7;
/** Of a square, by half of its width: how round its corners are. */
const CORNER = 0.25;
/** Nearer to an outline than this no machine goes. */
const TOLERANCE_MM = 0.002;

/** A piece of a circle, from one direction to another; degrees grow from x towards y, which points down. */
interface Arc {
  readonly x: number;
  readonly y: number;
  readonly radiusMm: number;
  readonly fromDeg: number;
  readonly toDeg: number;
}

/** Where a fillet touches a head: its middle stands as high as the head is round, since (1 + 1/4)² − (1/2 + 1/4)² = 1. */
const TOUCH_DEG = (Math.atan2(1, NECK + FILLET) * 180) / Math.PI;

/** Everything convex grows by what an outline is moved outward, everything concave shrinks: all of them are arcs, and stay arcs. */
function arcsOf(shape: KnobShape, headMm: number, outwardMm: number): Arc[] {
  const [radius, by] = [headMm / 2, outwardMm];
  const arc = (x: number, y: number, radiusMm: number, fromDeg: number, toDeg: number): Arc => ({
    x: x * radius,
    y: y * radius,
    radiusMm,
    fromDeg,
    toDeg,
  });
  if (shape === 'round') return [arc(0, 0, radius + by, -90, 270)];
  if (shape === 'square') {
    const at = 1 - CORNER;
    const round = CORNER * radius + by;
    return [
      arc(at, -at, round, -90, 0),
      arc(at, at, round, 0, 90),
      arc(-at, at, round, 90, 180),
      arc(-at, -at, round, 180, 270),
    ];
  }
  const aside = NECK + FILLET;
  return [
    arc(0, 0, radius + by, 180 - TOUCH_DEG, 360 + TOUCH_DEG),
    arc(aside, 1, FILLET * radius - by, 180 + TOUCH_DEG, 180),
    arc(0, END, NECK * radius + by, 0, 180),
    arc(-aside, 1, FILLET * radius - by, 0, -TOUCH_DEG),
  ];
}

/** The most that an outline can be moved inward or outward and keep its shape, in mm. */
export const mostOffsetMm = (shape: KnobShape, headMm: number): number =>
  ({ knob: FILLET, round: 1, square: CORNER })[shape] * (headMm / 2);

/**
 * The outline of a shape whose head is so wide, moved outward on every side, about the middle of its head; closed, its last point left out, no chord
 * further than 2 µm from its arc. Moved exactly: every piece of it is an arc with a radius of its own. Throws RangeError where the outline would be
 * moved further than its smallest radius.
 *
 * knobOutline('round', 10, 0.1): a circle of 10.2 mm across.
 */
export function knobOutline(shape: KnobShape, headMm: number, outwardMm: number): Point[] {
  if (!(Math.abs(outwardMm) < mostOffsetMm(shape, headMm)))
    throw new RangeError(`invalid offset: ${outwardMm} mm is more than the smallest radius of a ${headMm} mm ${shape}`);
  const points = arcsOf(shape, headMm, outwardMm).flatMap(({ x, y, radiusMm, fromDeg, toDeg }) => {
    const turn = ((toDeg - fromDeg) * Math.PI) / 180;
    const steps = Math.ceil(Math.abs(turn) / (2 * Math.acos(1 - Math.min(1, TOLERANCE_MM / radiusMm))));
    return Array.from({ length: steps + 1 }, (_, k) => {
      const angle = (fromDeg * Math.PI) / 180 + (turn * k) / steps;
      return { x: x + radiusMm * Math.cos(angle), y: y + radiusMm * Math.sin(angle) };
    });
  });
  // One arc ends where the next begins.
  return points.filter(({ x, y }, k) => {
    const before = points.at(k - 1)!;
    return Math.hypot(x - before.x, y - before.y) > 1e-6;
  });
}

/** How long it is along its neck, from the middle of its head upward and downward, in mm. */
export const knobReachMm = (shape: KnobShape, headMm: number): { readonly up: number; readonly down: number } => ({
  up: headMm / 2,
  down: (shape === 'knob' ? END + NECK : 1) * (headMm / 2),
});
