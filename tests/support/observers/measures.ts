import { randomFrom } from '../../../src/bench/random';
import type { Piece } from '../../../src/bench/piece';
import type { Rect } from '../../../src/core/geometry/point';

/** A standard normal number of a seed. */
export function normalOf(seed: string): number {
  const random = randomFrom(seed);
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** Luminance after the burn over luminance before it, mean along each row of the middle of a box: lines along x show as waves. */
function rowsOf(piece: Piece, box: Rect): number[] {
  const px = (mm: number): number => Math.round((mm + piece.marginMm) * piece.pxPerMm);
  const luminance = (image: Float32Array, at: number): number =>
    0.2126 * image[at]! + 0.7152 * image[at + 1]! + 0.0722 * image[at + 2]!;
  const rows: number[] = [];
  for (let y = px(box.y + 0.2 * box.height); y < px(box.y + 0.8 * box.height); y++) {
    let before = 0;
    let after = 0;
    for (let x = px(box.x + 0.25 * box.width); x < px(box.x + 0.75 * box.width); x++) {
      const at = 3 * (y * piece.width + x);
      before += luminance(piece.before, at);
      after += luminance(piece.after, at);
    }
    rows.push(after / before);
  }
  return rows;
}

/** What a line along x in the middle of a box takes of the light, or adds, as a share of bare stock's, across it in mm. */
export function acrossLine(piece: Piece, box: Rect): { at: number[]; taken: number[] } {
  const px = (mm: number): number => Math.round((mm + piece.marginMm) * piece.pxPerMm);
  const shares: number[] = [];
  for (let y = px(box.y); y < px(box.y + box.height); y++) {
    let [before, after] = [0, 0];
    for (let x = px(box.x + 0.2 * box.width); x < px(box.x + 0.8 * box.width); x++) {
      before += piece.before[3 * (y * piece.width + x) + 1]!;
      after += piece.after[3 * (y * piece.width + x) + 1]!;
    }
    shares.push(1 - after / before);
  }
  const sign = Math.sign(shares.reduce((sum, share) => sum + share, 0));
  return { at: shares.map((_, k) => k / piece.pxPerMm), taken: shares.map((share) => sign * share) };
}

/** How strongly lines along x stand out in a box: the standard deviation of its rows over their mean. */
export function lineContrast(piece: Piece, box: Rect): number {
  const rows = rowsOf(piece, box);
  const mean = rows.reduce((sum, row) => sum + row, 0) / rows.length;
  return Math.sqrt(rows.reduce((sum, row) => sum + (row - mean) ** 2, 0) / rows.length) / mean;
}

/** The amplitude of the wave of a pitch in the rows of a box over their mean, over as many whole periods as there are. */
export function rippleAt(piece: Piece, box: Rect, pitchMm: number): number {
  const rows = rowsOf(piece, box);
  const perRow = (2 * Math.PI) / pitchMm / piece.pxPerMm;
  const count = Math.floor(Math.floor(rows.length / piece.pxPerMm / pitchMm) * pitchMm * piece.pxPerMm);
  let [cosine, sine, sum] = [0, 0, 0];
  for (const [row, value] of rows.slice(0, count).entries()) {
    cosine += value * Math.cos(perRow * row);
    sine += value * Math.sin(perRow * row);
    sum += value;
  }
  return (2 * Math.hypot(cosine, sine)) / sum;
}

/** Whether this look is at a photo: one of five is, the others are by eye. */
export const looksAtPhoto = (seed: string): boolean => seed.endsWith('4');

/** Where a curve through points, ascending in x, first crosses a level, by straight lines between them; NaN where it does not. */
export function crossing(points: readonly (readonly [x: number, y: number])[], level: number): number {
  for (let index = 1; index < points.length; index++) {
    const [x0, y0] = points[index - 1]!;
    const [x1, y1] = points[index]!;
    if ((y0 - level) * (y1 - level) <= 0 && y0 !== y1) return x0 + ((level - y0) / (y1 - y0)) * (x1 - x0);
  }
  return NaN;
}

/** Mean L* of an area of a piece after its burn, by CIE 15. */
export function lightnessOfPiece(
  { after, width, pxPerMm, marginMm }: Piece,
  { x, y, width: wide, height }: Rect,
): number {
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  let [sum, count] = [0, 0];
  for (let row = px(y); row < px(y + height); row++)
    for (let column = px(x); column < px(x + wide); column++, count++) {
      const at = 3 * (row * width + column);
      sum += 0.2126 * after[at]! + 0.7152 * after[at + 1]! + 0.0722 * after[at + 2]!;
    }
  return 116 * Math.cbrt(sum / count) - 16;
}
