import { WORKSHOP_TABLE, type Piece } from './piece';
import { randomFrom, type Random } from './random';

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
/** A usual camera that has all of a sheet in view sees no finer than this. */
const SEEN_PX_PER_MM = 20;
/** A piece that is laid down is finer: each pixel of the sheet is the mean of looks at it, so many to a millimetre along each side. */
const LOOKS_PER_MM = 40;
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

/**
 * A printed sheet as the camera sees it, with a piece laid in its window by hand, or bare. Equal prints come of equal seeds; `hand` is the seed of how
 * the piece is laid down. A coarser camera needs fewer pixels per millimetre.
 */
export function printedSheet(
  order: PrintOrder,
  fine: Piece | null,
  seed: string,
  hand = '',
  pxPerMm = SEEN_PX_PER_MM,
): Piece {
  const piece = fine && coarser(fine, Math.max(1, Math.floor(fine.pxPerMm / LOOKS_PER_MM)));
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
  if (piece) layDown(piece, { after, width, height, pxPerMm }, order, randomFrom(`laid down ${hand}`));
  const flat = new Float32Array(width * height);
  return {
    width,
    height,
    pxPerMm,
    marginMm: PAPER_AROUND_MM,
    before: after,
    after,
    depthMm: flat,
    thicknessMm: 0.1,
    through: flat,
    around: WORKSHOP_TABLE,
  };
}

/** A hand lays a piece down askew by so much, where there is room for it, and aside by half of the room that is left. */
const ASKEW_DEGREES = 7;

type Sheet = Pick<Piece, 'after' | 'width' | 'height' | 'pxPerMm'>;

function layDown(piece: Piece, { after, width, height, pxPerMm }: Sheet, { window }: PrintOrder, random: Random): void {
  const [wide, high] = [piece.width / piece.pxPerMm, piece.height / piece.pxPerMm];
  const wanted = ASKEW_DEGREES * (2 * random() - 1);
  const roomBeside = (degrees: number): { x: number; y: number } => {
    const [c, s] = [Math.abs(Math.cos((degrees * Math.PI) / 180)), Math.abs(Math.sin((degrees * Math.PI) / 180))];
    return { x: window.width - c * wide - s * high, y: window.height - s * wide - c * high };
  };
  const room = roomBeside(wanted);
  const fits = room.x >= 0 && room.y >= 0;
  const degrees = fits ? wanted : 0;
  const aside = (free: number): number => (fits ? (random() - 0.5) * 0.5 * free : 0);
  const [midX, midY] = [window.x + window.width / 2 + aside(room.x), window.y + window.height / 2 + aside(room.y)];
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const reach = Math.hypot(wide, high) / 2;
  const pixel = (mm: number): number => Math.round((mm + PAPER_AROUND_MM) * pxPerMm);
  const finer = piece.pxPerMm / pxPerMm;
  const looks = Math.ceil(LOOKS_PER_MM / pxPerMm);
  const seen = new Float64Array(3);
  for (let row = Math.max(0, pixel(midY - reach)); row < Math.min(height, pixel(midY + reach)); row++)
    for (let column = Math.max(0, pixel(midX - reach)); column < Math.min(width, pixel(midX + reach)); column++) {
      const to = (row * width + column) * 3;
      for (let look = 0; look < looks * looks; look++) {
        const dx = column + ((look % looks) + 0.5) / looks - (midX + PAPER_AROUND_MM) * pxPerMm;
        const dy = row + (Math.floor(look / looks) + 0.5) / looks - (midY + PAPER_AROUND_MM) * pxPerMm;
        const u = (c * dx + s * dy) * finer + piece.width / 2 - 0.5;
        const v = (-s * dx + c * dy) * finer + piece.height / 2 - 0.5;
        const covers = between(piece, u, v, seen);
        for (let channel = 0; channel < 3; channel++)
          after[to + channel]! += ((covers ? seen[channel]! : PAPER[channel]!) - PAPER[channel]!) / looks ** 2;
      }
    }
}

/** What a piece shows between four of its pixels; false beside it. */
function between(piece: Piece, u: number, v: number, seen: Float64Array): boolean {
  const [x0, y0] = [Math.floor(u), Math.floor(v)];
  if (x0 < 0 || y0 < 0 || x0 >= piece.width - 1 || y0 >= piece.height - 1) return false;
  const [fx, fy] = [u - x0, v - y0];
  const at = (y0 * piece.width + x0) * 3;
  const below = at + piece.width * 3;
  for (let channel = 0; channel < 3; channel++) {
    const top = piece.after[at + channel]! * (1 - fx) + piece.after[at + 3 + channel]! * fx;
    const low = piece.after[below + channel]! * (1 - fx) + piece.after[below + 3 + channel]! * fx;
    seen[channel] = top * (1 - fy) + low * fy;
  }
  return true;
}

/** A piece whose pixels are means over so many of its own along each side. */
function coarser(piece: Piece, factor: number): Piece {
  if (factor === 1) return piece;
  const width = Math.floor(piece.width / factor);
  const height = Math.floor(piece.height / factor);
  const after = new Float32Array(width * height * 3);
  for (let y = 0; y < height * factor; y++)
    for (let x = 0; x < width * factor; x++) {
      const to = (Math.floor(y / factor) * width + Math.floor(x / factor)) * 3;
      const from = (y * piece.width + x) * 3;
      for (let channel = 0; channel < 3; channel++) after[to + channel]! += piece.after[from + channel]! / factor ** 2;
    }
  return { ...piece, width, height, pxPerMm: piece.pxPerMm / factor, before: after, after };
}
