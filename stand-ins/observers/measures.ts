import { randomFrom } from '../../src/bench/random';
import type { Piece } from '../../src/bench/piece';
import type { Rect } from '../../src/core/geometry/point';

/** A standard normal number of a seed. */
export function normalOf(seed: string): number {
  const random = randomFrom(seed);
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

type Direction = 'horizontal' | 'vertical';

/** Light after the burn over light before it, mean along each line of a direction through part of a box, across those lines. */
function profileOf(
  piece: Piece,
  box: Rect,
  direction: Direction,
  {
    across,
    along,
    light,
  }: { across: [number, number]; along: [number, number]; light: (image: Float32Array, at: number) => number },
): number[] {
  const px = (mm: number): number => Math.round((mm + piece.marginMm) * piece.pxPerMm);
  const lies = direction === 'horizontal';
  const span = (from: number, size: number, [low, high]: [number, number]): [number, number] => [
    px(from + low * size),
    px(from + high * size),
  ];
  const [firstLine, endLine] = lies ? span(box.y, box.height, across) : span(box.x, box.width, across);
  const [first, end] = lies ? span(box.x, box.width, along) : span(box.y, box.height, along);
  return Array.from({ length: endLine - firstLine }, (_, index) => {
    const line = firstLine + index;
    let [before, after] = [0, 0];
    for (let place = first; place < end; place++) {
      const at = 3 * (lies ? line * piece.width + place : place * piece.width + line);
      before += light(piece.before, at);
      after += light(piece.after, at);
    }
    return after / before;
  });
}

/** Luminance after the burn over luminance before it in the middle of a box, across lines of a direction: they show as waves. */
const linesOf = (piece: Piece, box: Rect, direction: Direction): number[] =>
  profileOf(piece, box, direction, {
    across: [0.2, 0.8],
    along: [0.25, 0.75],
    light: (image, at) => 0.2126 * image[at]! + 0.7152 * image[at + 1]! + 0.0722 * image[at + 2]!,
  });

/** What a line in the middle of a box takes of the light, or adds, as a share of bare stock's, across it in mm. */
export function acrossLine(piece: Piece, box: Rect, direction: Direction): { at: number[]; taken: number[] } {
  const shares = profileOf(piece, box, direction, {
    across: [0, 1],
    along: [0.2, 0.8],
    light: (image, at) => image[at + 1]!,
  }).map((ratio) => 1 - ratio);
  const sign = Math.sign(shares.reduce((sum, share) => sum + share, 0));
  return { at: shares.map((_, k) => k / piece.pxPerMm), taken: shares.map((share) => sign * share) };
}

/** How strongly lines of a direction stand out in a box: the standard deviation across them over their mean. */
export function lineContrast(piece: Piece, box: Rect, direction: Direction): number {
  const rows = linesOf(piece, box, direction);
  const mean = rows.reduce((sum, row) => sum + row, 0) / rows.length;
  return Math.sqrt(rows.reduce((sum, row) => sum + (row - mean) ** 2, 0) / rows.length) / mean;
}

/** The amplitude of the wave of a pitch across lines of a direction over their mean, over as many whole periods as there are. */
export function rippleAt(piece: Piece, box: Rect, pitchMm: number, direction: Direction): number {
  const rows = linesOf(piece, box, direction);
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
