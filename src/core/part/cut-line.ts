import type { Point } from '../geometry/point';
import { isInside, signedAreaMm2, type Ring } from './polygons';

/** Bridges that hold a part, so that it does not drop or tip up into the head's way. */
export interface Tabs {
  readonly count: number;
  /** What of the stock is left of each. */
  readonly widthMm: number;
}

export interface CutLine {
  /** How far into the waste the cut begins; 0 for on the line. */
  readonly leadMm: number;
  /** None for what need not be held. */
  readonly tabs: Tabs | null;
  /** Where the waste lies. */
  readonly waste: 'outside' | 'inside';
  /** What the beam burns of a tab from either end of its gap. */
  readonly kerfMm: number;
}

/** Turned less than this from one stretch to the next, a line still goes straight on. */
const STRAIGHT = Math.cos(0.05);

/**
 * A closed path as lines that are cut one after another: begun in the middle of its longest straight stretch, away from detail, where a start that
 * burns a little wider harms least; led in from the waste; broken where tabs hold. A line without tabs ends where it began.
 *
 * A square of 10 mm, no lead, no tabs: one line from the middle of a side, round, and back.
 */
export function cutLines(path: Ring, { leadMm, tabs, waste, kerfMm }: CutLine): Point[][] {
  const ring = begunAwayFromDetail(path);
  const around = [...ring, ring[0]!];
  const lines = tabs && tabs.count > 0 ? broken(around, tabs.count, tabs.widthMm + kerfMm) : [around];
  if (leadMm <= 0) return lines;
  return lines.map((line) => [...leadIn(line, ring, leadMm, waste), ...line]);
}

function begunAwayFromDetail(path: Ring): Point[] {
  const count = path.length;
  const place = (index: number): Point => path[((index % count) + count) % count]!;
  const heading = (index: number): { x: number; y: number; length: number } => {
    const [a, b] = [place(index), place(index + 1)];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    return { x: (b.x - a.x) / (length || 1), y: (b.y - a.y) / (length || 1), length };
  };
  let best = { from: 0, stretches: 1, length: 0 };
  for (let from = 0; from < count; from++) {
    const first = heading(from);
    let length = first.length;
    let stretches = 1;
    while (stretches < count) {
      const next = heading(from + stretches);
      if (first.x * next.x + first.y * next.y < STRAIGHT) break;
      length += next.length;
      stretches++;
    }
    if (length > best.length + 1e-9) best = { from, stretches, length };
  }
  // The middle of it, by length.
  let left = best.length / 2;
  for (let index = best.from; ; index++) {
    const { x, y, length } = heading(index);
    if (left <= length) {
      const start = { x: place(index).x + x * left, y: place(index).y + y * left };
      return [start, ...Array.from({ length: count }, (_, step) => place(index + 1 + step))].filter(
        (point, at) => at === 0 || Math.hypot(point.x - start.x, point.y - start.y) > 1e-6,
      );
    }
    left -= length;
  }
}

/** A gap is on a straight stretch when its ends lie this share of its length apart. */
const LIES_STRAIGHT = 0.98;

/**
 * A line that comes back to its start, without gaps of a width at about even places: each on the nearest straight stretch, since a tab across a corner
 * is hard to clean. The start stays cut.
 */
function broken(around: readonly Point[], count: number, gapMm: number): Point[][] {
  const lengths = around.slice(1).map((b, index) => Math.hypot(b.x - around[index]!.x, b.y - around[index]!.y));
  const whole = lengths.reduce((sum, length) => sum + length, 0);
  const gap = Math.min(gapMm, (0.5 * whole) / count);
  const isStraight = (middle: number): boolean => {
    const stretch = between(around, lengths, middle - gap / 2, middle + gap / 2);
    const [a, b] = [stretch[0]!, stretch.at(-1)!];
    return Math.hypot(b.x - a.x, b.y - a.y) >= LIES_STRAIGHT * gap;
  };
  const middles = Array.from({ length: count }, (_, k) => {
    const even = ((k + 0.5) * whole) / count;
    for (let aside = 0; aside < whole / count / 2 - gap; aside += gap / 2)
      for (const middle of [even + aside, even - aside]) if (isStraight(middle)) return middle;
    return even;
  });
  const bounds = [0, ...middles.flatMap((middle) => [middle - gap / 2, middle + gap / 2]), whole];
  const pieces: Point[][] = [];
  for (let k = 0; k + 1 < bounds.length; k += 2) pieces.push(between(around, lengths, bounds[k]!, bounds[k + 1]!));
  // The first and the last meet at the start: they are one.
  const last = pieces.pop()!;
  return [[...last, ...pieces[0]!.slice(1)], ...pieces.slice(1)];
}

/** The stretch of a line from one way along it to another. */
function between(line: readonly Point[], lengths: readonly number[], from: number, to: number): Point[] {
  const points: Point[] = [];
  let at = 0;
  lengths.forEach((length, index) => {
    const [a, b] = [line[index]!, line[index + 1]!];
    const along = (way: number): Point => {
      const share = length === 0 ? 0 : (way - at) / length;
      return { x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share };
    };
    if (at + length > from && at < to) {
      if (points.length === 0) points.push(along(Math.max(from, at)));
      points.push(along(Math.min(to, at + length)));
    }
    at += length;
  });
  return points;
}

/** Where a line is led in from: square to its first stretch, in the waste; shorter where that leaves it, none where there is no room. */
function leadIn(line: readonly Point[], ring: Ring, leadMm: number, waste: CutLine['waste']): Point[] {
  const [a, b] = [line[0]!, line[1]!];
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  // Clockwise as it is seen, the inside lies to the right of the way.
  const sense = Math.sign(signedAreaMm2(ring)) * (waste === 'inside' ? 1 : -1);
  const square = { x: (-(b.y - a.y) / length) * sense, y: ((b.x - a.x) / length) * sense };
  for (let lead = leadMm; lead >= leadMm / 8; lead /= 2) {
    const from = { x: a.x + square.x * lead, y: a.y + square.y * lead };
    // Twice as far out as well: a lead that ends just short of the far wall burns it.
    const beyond = { x: a.x + square.x * 2 * lead, y: a.y + square.y * 2 * lead };
    const isInWaste = [from, beyond].every((place) => isInside(place, ring) === (waste === 'inside'));
    if (isInWaste) return [from];
  }
  return [];
}
