import type { Point } from '../geometry/point';

/** A line of a drawing in millimetres, x right and y down, as x, y, x, y, …; a closed one does not say its first place twice. */
export interface DrawnLine {
  readonly closed: boolean;
  readonly at: readonly number[];
}

/** What the numbers of a drawing were taken to be: as it says itself, or pixels of which 96 make an inch, because it says nothing. */
export type SizeSaidIn = 'lengths' | 'pixels';

/** Lines to cut, as they are to come out. */
export interface Drawing {
  readonly name: string;
  readonly sizeSaidIn: SizeSaidIn;
  readonly lines: readonly DrawnLine[];
}

/** Drawings with more are refused: no sheet is cut along so many. */
export const MOST_LINES = 400;
export const MOST_POINTS = 20_000;

/** Curves are drawn as chords that leave them by no more than this: a tenth of what a kerf is told to. */
export const FLATNESS_MM = 0.002;

/** Ends that lie nearer to each other than this are one place to a cut. */
export const SAME_PLACE_MM = 0.02;

export function pointsOf({ at }: DrawnLine, scale = 1): Point[] {
  const points: Point[] = [];
  for (let index = 0; index + 1 < at.length; index += 2)
    points.push({ x: at[index]! * scale, y: at[index + 1]! * scale });
  return points;
}

/** To a micrometre: finer than any axis goes, and a drawing stays small as text. */
export const lineOf = (points: readonly Point[], closed: boolean): DrawnLine => ({
  closed,
  at: points.flatMap(({ x, y }) => [Math.round(x * 1000) / 1000, Math.round(y * 1000) / 1000]),
});

const apart = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/**
 * Lines whose ends meet joined to longer ones, and closed where they come back to their own start: drawings are often made of single strokes.
 * Ends meet within `SAME_PLACE_MM`. Places that a line says twice in a row are said once; a line that goes nowhere is left out.
 *
 * Four sides of a square, each a line of its own, in any order and sense, come out as one closed line of four places.
 */
export function joined(lines: readonly DrawnLine[]): DrawnLine[] {
  const whole: DrawnLine[] = [];
  const open: Point[][] = [];
  const take = (points: Point[], closed: boolean): void => {
    const places = points.filter((point, index) => index === 0 || apart(point, points[index - 1]!) > 1e-6);
    const endsMeet = places.length > 2 && apart(places[0]!, places.at(-1)!) <= SAME_PLACE_MM;
    if (closed || endsMeet) {
      const ring = endsMeet ? places.slice(0, -1) : places;
      if (ring.length > 2) whole.push(lineOf(ring, true));
    } else if (places.length > 1) open.push(places);
  };
  for (const line of lines) take(pointsOf(line), line.closed);
  while (open.length > 0) {
    let line = open.shift()!;
    for (let next = nextOf(line, open); next; next = nextOf(line, open)) {
      open.splice(next.index, 1);
      line = next.joined;
    }
    if (line.length > 3 && apart(line[0]!, line.at(-1)!) <= SAME_PLACE_MM) whole.push(lineOf(line.slice(0, -1), true));
    else whole.push(lineOf(line, false));
  }
  return whole;
}

/** The first of some lines that goes on from either end of one, and both as one. */
function nextOf(
  line: readonly Point[],
  others: readonly Point[][],
): { readonly index: number; readonly joined: Point[] } | null {
  const [start, end] = [line[0]!, line.at(-1)!];
  for (const [index, other] of others.entries()) {
    const [first, last] = [other[0]!, other.at(-1)!];
    const back = (): Point[] => [...other].reverse();
    if (apart(end, first) <= SAME_PLACE_MM) return { index, joined: [...line, ...other.slice(1)] };
    if (apart(end, last) <= SAME_PLACE_MM) return { index, joined: [...line, ...back().slice(1)] };
    if (apart(start, last) <= SAME_PLACE_MM) return { index, joined: [...other, ...line.slice(1)] };
    if (apart(start, first) <= SAME_PLACE_MM) return { index, joined: [...back(), ...line.slice(1)] };
  }
  return null;
}
