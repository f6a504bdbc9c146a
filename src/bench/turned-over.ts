import type { LetsThrough } from './light-through';
import type { Piece } from './piece';

/** How dark the table is under a hole. */
const HOLE = 0.01;

/** A row of some values a pixel, from right to left. */
function mirroredRows(data: Float32Array, width: number, height: number, channels: number): Float32Array {
  const out = new Float32Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let channel = 0; channel < channels; channel++)
        out[(y * width + x) * channels + channel] = data[(y * width + width - 1 - x) * channels + channel]!;
  return out;
}

/**
 * A piece that was turned over about its upright axis: its back, with the burned face as far as light comes through the sheet and out again. Of stock
 * that lets none through, bare stock is seen, and the holes.
 */
export function turnedOver(piece: Piece, { faces, decayMm }: LetsThrough): Piece {
  const { width, height, thicknessMm } = piece;
  // What stands on the far face is seen through the near one, by light that came the same way; bare sheet looks the same from either side.
  const comes = faces * Math.exp((-2 * thicknessMm) / decayMm);
  const seen = piece.after.map((burned, at) => {
    const bare = piece.before[at]!;
    return piece.depthMm[Math.floor(at / 3)]! >= thicknessMm ? HOLE : bare + comes * (burned - bare);
  });
  return {
    ...piece,
    before: mirroredRows(piece.before, width, height, 3),
    after: mirroredRows(seen, width, height, 3),
    depthMm: mirroredRows(piece.depthMm, width, height, 1),
    through: mirroredRows(piece.through, width, height, 1),
  };
}
