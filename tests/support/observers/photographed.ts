import type { Seen } from '../../../src/core/card/asks';
import { readCard } from '../../../src/core/reading/read-card';
import { photoOf } from '../burn';
import type { Burned } from './observer';

/** Light of a photo that is taken again, after one that was overexposed. */
const DARKER = 0.42;

/**
 * What a photo of a piece shows, by a camera that stores light as it is; another seed is another photo. One that is told to be overexposed is taken
 * again, darker, as anybody would.
 */
export function photographed({ piece, layout, pairing }: Burned, seed: string, widthPx = 2000): Seen {
  const { stock, lens } = pairing;
  const spot = { xMm: lens.spotXMm, yMm: lens.spotYMm };
  const look = (change: object) => {
    const photo = photoOf(piece, seed, { widthPx, heightPx: (3 * widthPx) / 4, ...change });
    return readCard({ photo, layout, stock, corners: null, cameraIsTrue: true, spot });
  };
  const first = look({});
  const overexposed =
    first.outcome === 'read'
      ? first.faults.some(({ fault }) => fault === 'overexposed')
      : first.outcome === 'unreadable';
  const result = overexposed ? look({ exposure: DARKER }) : first;
  if (result.outcome !== 'read') throw new Error(`the photo was not read: ${result.outcome}`);
  return { readings: result.cells, answers: [] };
}
