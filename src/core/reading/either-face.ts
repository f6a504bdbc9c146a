import { intoMirrored, type Homography } from '../geometry/homography';
import { mirrored } from '../image/mirrored';
import type { RgbImage } from '../image/raster';

interface Outcome {
  readonly outcome: string;
  readonly toPhoto?: Homography;
}

/** How a photo is to be read: as it is, or as a mirror shows it. */
export interface Turn {
  readonly isMirrored: boolean;
  turn(photo: RgbImage): RgbImage;
}

const AS_IT_IS: Turn = { isMirrored: false, turn: (photo) => photo };
const MIRRORED: Turn = { isMirrored: true, turn: mirrored };

/**
 * Reads a photo as it is; where too few markers are seen to place its card, as a mirror shows it: a clear sheet seen through its back, one that lies
 * face down on a light table, or a picture by a camera that mirrors. Every photo that `read` works on is to go through the turn it is given. What
 * comes back has its map into the photo as it is (see `isMirror`), and the photo's own outcome where its mirror image shows no card either.
 */
export function readEitherFace<Result extends Outcome>(widthPx: number, read: (how: Turn) => Result): Result {
  const asItIs = read(AS_IT_IS);
  if (asItIs.outcome !== 'needs-corners') return asItIs;
  const turned = read(MIRRORED);
  if (turned.outcome === 'needs-corners') return asItIs;
  return turned.toPhoto ? { ...turned, toPhoto: intoMirrored(turned.toPhoto, widthPx) } : turned;
}
