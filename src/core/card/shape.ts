import type { Point, Rect } from '../geometry/point';
import type { BurnSettings } from './settings';

/** Closed outlines; what lies in an odd number of them is inside. The last point of a ring is joined to its first. */
export type Region = readonly (readonly Point[])[];

/** What the head does with a burn: fill an area by sweeps, or follow lines (cut, score, draw). */
export type Shape =
  | { readonly do: 'sweep'; readonly area: Region }
  | { readonly do: 'follow'; readonly lines: readonly (readonly Point[])[] };

/** Something a hand must do before a burn goes on. */
export interface HandStep {
  readonly text: string;
}

export interface Burn {
  readonly shape: Shape;
  readonly settings: BurnSettings;
  readonly before?: HandStep;
}

/** The ring of a rectangle, clockwise from its upper left corner. */
export function rectRing({ x, y, width, height }: Rect): Point[] {
  return [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ];
}

/** The rectangle as a line that ends where it began. */
export function rectOutline(rect: Rect): Point[] {
  const ring = rectRing(rect);
  return [...ring, ring[0]!];
}

export const pointsOf = (shape: Shape): readonly (readonly Point[])[] =>
  shape.do === 'sweep' ? shape.area : shape.lines;

/** Bounding box of a shape; a box of no size at 0, 0 for one without points. */
export function boxOfShape(shape: Shape): Rect {
  let left = Infinity;
  let top = Infinity;
  let right = -Infinity;
  let bottom = -Infinity;
  for (const ring of pointsOf(shape)) {
    for (const { x, y } of ring) {
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  }
  return left > right
    ? { x: 0, y: 0, width: 0, height: 0 }
    : { x: left, y: top, width: right - left, height: bottom - top };
}

const moved = (lines: readonly (readonly Point[])[], dx: number, dy: number): Point[][] =>
  lines.map((line) => line.map(({ x, y }) => ({ x: round(x + dx), y: round(y + dy) })));

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** The burn at another place. Coordinates are kept to a tenth of a micrometre. */
export function movedBurn(burn: Burn, dx: number, dy: number): Burn {
  const { shape } = burn;
  return {
    ...burn,
    shape:
      shape.do === 'sweep'
        ? { do: 'sweep', area: moved(shape.area, dx, dy) }
        : { do: 'follow', lines: moved(shape.lines, dx, dy) },
  };
}
