import type { Point } from '../geometry/point';
import { packGreys, unpackGreys, type Greys } from './greys';

/** A byte for what is burned, and one for what is left bare. */
export const BURNED = 255;
export const BARE = 0;
const HALF = 128;

/** Whether a picture has nothing between burned and bare: a drawing, and no picture in greys. */
export const isLineArt = (greys: Greys): boolean =>
  unpackGreys(greys).every((byte) => byte === BURNED || byte === BARE);

/** A place is burned where it is wanted by half or more. */
export const asLineArt = (greys: Greys): Greys =>
  packGreys(
    greys.columns,
    greys.rows,
    unpackGreys(greys).map((byte) => (byte >= HALF ? BURNED : BARE)),
  );

/** In how many stretches a line of a drawing is burned at the most: of its rows, or of its columns where lines run along Y. */
export function mostRuns(greys: Greys, lies: boolean): number {
  const { columns, rows } = greys;
  const bytes = unpackGreys(greys);
  const [lines, length] = lies ? [rows, columns] : [columns, rows];
  let most = 0;
  for (let line = 0; line < lines; line++) {
    let runs = 0;
    let before = false;
    for (let place = 0; place < length; place++) {
      const burned = bytes[lies ? line * columns + place : place * columns + line]! >= HALF;
      if (burned && !before) runs++;
      before = burned;
    }
    most = Math.max(most, runs);
  }
  return most;
}

/** A grid of square places over a box: its size as a whole number of them. */
export interface Places {
  readonly columns: number;
  readonly rows: number;
  readonly sideMm: number;
}

/** The fewest whole places that cover a size. Throws RangeError for a side that is not above zero. */
export function placesOver(widthMm: number, heightMm: number, sideMm: number): Places {
  if (!(sideMm > 0)) throw new RangeError(`invalid sideMm: ${sideMm}`);
  const over = (mm: number): number => Math.max(1, Math.ceil(mm / sideMm - 1e-6));
  return { columns: over(widthMm), rows: over(heightMm), sideMm };
}

/** Places whose middle, in mm from the upper left, a rule names. */
export function drawnWhere({ columns, rows, sideMm }: Places, isDrawn: (x: number, y: number) => boolean): Greys {
  const bytes = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      if (isDrawn((column + 0.5) * sideMm, (row + 0.5) * sideMm)) bytes[row * columns + column] = BURNED;
  return packGreys(columns, rows, bytes);
}

/** How far a point lies from the nearest of some strokes; Infinity from none. */
export function distanceToStrokes(x: number, y: number, strokes: readonly (readonly Point[])[]): number {
  let least = Infinity;
  for (const stroke of strokes)
    for (let index = 1; index < stroke.length; index++) {
      const [a, b] = [stroke[index - 1]!, stroke[index]!];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const length = dx * dx + dy * dy;
      const share = length === 0 ? 0 : Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / length));
      least = Math.min(least, Math.hypot(x - a.x - share * dx, y - a.y - share * dy));
    }
  return least;
}
