import { loosePart, type Box } from './gauges';
import type { Piece } from './piece';

/** A piece on a light table, as grey bytes: bright where it is through, dimmer the more stock is left. */
export function lightTable({ width, height, through }: Piece): {
  readonly data: Uint8Array;
  readonly width: number;
  readonly height: number;
} {
  return { data: Uint8Array.from(through, (share) => Math.round(255 * share)), width, height };
}

/** A piece without the parts that have come loose of it: light goes through where they were. */
export function withoutLoose(piece: Piece, parts: readonly Box[]): Piece {
  const loose = new Uint8Array(piece.through.length);
  for (const box of parts) {
    const part = loosePart(piece, box);
    part?.is.forEach((is, at) => {
      const row = part.top + Math.floor(at / part.width);
      if (is === 1) loose[row * piece.width + part.left + (at % part.width)] = 1;
    });
  }
  return {
    ...piece,
    through: piece.through.map((share, pixel) => (loose[pixel] === 1 ? 1 : share)),
    // The table is seen there, and no face.
    after: piece.after.map((share, at) => (loose[Math.floor(at / 3)] === 1 ? 0 : share)),
  };
}

/** Colour of the table's light, by channel. */
const TABLE_LIGHT: readonly [number, number, number] = [0.97, 1, 0.98];
/** What the lens scatters over the whole picture, as a share of the open table. */
const LENS_VEIL = 0.003;

/**
 * A piece as a camera sees it that lies on a light table: what comes through it, and a little of what the room's light makes of its face, as a share of
 * the open table's.
 */
export function onLightTable(piece: Piece, roomLight: number): Piece {
  const { through, after } = piece;
  const seen = new Float32Array(after.length);
  for (let pixel = 0; pixel < through.length; pixel++)
    for (let channel = 0; channel < 3; channel++) {
      const at = 3 * pixel + channel;
      seen[at] = TABLE_LIGHT[channel]! * through[pixel]! + roomLight * after[at]! + LENS_VEIL;
    }
  return { ...piece, before: seen, after: seen, around: TABLE_LIGHT };
}

/**
 * Share of the light table's light that comes through an area's inner 60 %. For tests and accuracy reports only.
 */
export function trueThrough(
  piece: Piece,
  area: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
): number {
  const px = (mm: number): number => Math.round((mm + piece.marginMm) * piece.pxPerMm);
  let sum = 0;
  let count = 0;
  for (let y = px(area.y + area.height * 0.2); y < px(area.y + area.height * 0.8); y++)
    for (let x = px(area.x + area.width * 0.2); x < px(area.x + area.width * 0.8); x++, count++)
      sum += piece.through[y * piece.width + x]!;
  return sum / count;
}
