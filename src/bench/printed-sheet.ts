import type { Piece } from './piece';
import { randomFrom } from './random';

/** What a printer was told to put on a sheet of paper, in mm from the frame's upper left corner. */
export interface PrintOrder {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Where a piece is laid on it. */
  readonly window: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  /** Areas with ink; `bare` is the share of paper that is asked to stay bare. */
  readonly marks: readonly {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
    readonly bare: number;
  }[];
}

/** Paper beyond the frame that stays in the picture. */
const PAPER_AROUND_MM = 5;
const PX_PER_MM = 16;
const PAPER: readonly [number, number, number] = [0.85, 0.86, 0.87];
const INK: readonly [number, number, number] = [0.036, 0.036, 0.038];
/** Dots are printed larger than they are asked for: by a fifth of the paper at half cover, as office printers do (from memory). */
const DOT_GAIN = 0.2;
/** Light wanders in paper before it comes back. Source of the model: J. A. C. Yule, W. J. Nielsen, TAGA Proceedings 3 (1951) 65. */
const WANDER = 1.7;
/** Patches of one grey differ by so much, as a share. */
const UNEVEN = 0.006;

function printed(bare: number, channel: 0 | 1 | 2): number {
  const asked = 1 - bare;
  const cover = asked + 4 * DOT_GAIN * asked * (1 - asked);
  return ((1 - cover) * PAPER[channel] ** (1 / WANDER) + cover * INK[channel] ** (1 / WANDER)) ** WANDER;
}

/** A printed sheet as the camera sees it, with a piece laid in its window, or bare. Equal prints come of equal seeds. */
export function printedSheet(order: PrintOrder, piece: Piece | null, seed: string): Piece {
  const pxPerMm = piece?.pxPerMm ?? PX_PER_MM;
  const random = randomFrom(`print ${seed}`);
  const width = Math.round((order.widthMm + 2 * PAPER_AROUND_MM) * pxPerMm);
  const height = Math.round((order.heightMm + 2 * PAPER_AROUND_MM) * pxPerMm);
  const after = new Float32Array(width * height * 3);
  for (let at = 0; at < after.length; at++) after[at] = PAPER[at % 3]!;
  for (const mark of order.marks) {
    const uneven = 1 + UNEVEN * (2 * random() - 1);
    const ink = ([0, 1, 2] as const).map((channel) => printed(mark.bare, channel) * uneven);
    const pixel = (mm: number): number => Math.round((mm + PAPER_AROUND_MM) * pxPerMm);
    for (let row = pixel(mark.y); row < pixel(mark.y + mark.height); row++)
      for (let column = pixel(mark.x); column < pixel(mark.x + mark.width); column++)
        after.set(ink, (row * width + column) * 3);
  }
  if (piece) {
    const middle = (from: number, size: number): number => (from + size / 2 + PAPER_AROUND_MM) * pxPerMm;
    const left = Math.round(middle(order.window.x, order.window.width) - piece.width / 2);
    const top = Math.round(middle(order.window.y, order.window.height) - piece.height / 2);
    for (let row = 0; row < piece.height; row++)
      after.set(
        piece.after.subarray(row * piece.width * 3, (row + 1) * piece.width * 3),
        ((top + row) * width + left) * 3,
      );
  }
  const flat = new Float32Array(width * height);
  return { width, height, pxPerMm, marginMm: PAPER_AROUND_MM, before: after, after, depthMm: flat, thicknessMm: 0.1 };
}
