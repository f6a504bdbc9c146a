import type { Cell } from '../../core/card/layout';
import type { Rect } from '../../core/geometry/point';
import { isToneless } from '../../core/reading/lines/bars-of-cell';
import type { CellReading } from '../../core/reading/observations';
import { tonelessNumber } from './line-words';

/** A digit's width as a share of its height in the figures' type. */
const DIGIT_WIDTH = 0.62;

/** The number that stands on a cell by a photo: its tone, or what a cell without one shows; undefined where that is not told. */
export const numberOf = (cell: Cell, found: CellReading): string | undefined =>
  isToneless(cell) ? tonelessNumber(cell, found) : found.lightness.toFixed(0);

/** Height of what was said of a cell, in mm: small beside its number, and within the cell however much was said. */
export const saidSize = ({ width, height }: Pick<Rect, 'width' | 'height'>, said: string): number =>
  Math.min(0.24 * Math.min(width, height), 2, (0.92 * width) / (DIGIT_WIDTH * said.length));

/** Height of a number on its cell, in mm: readable from a step away where there is room, small enough to stay within the cell. */
export function numberSize({ width, height }: Pick<Rect, 'width' | 'height'>, number: string): number {
  const side = Math.min(width, height);
  return Math.min(Math.max(0.34 * side, Math.min(1.2, 0.7 * side)), (0.92 * width) / (DIGIT_WIDTH * number.length));
}
