import type { Seen } from '../../src/core/card/asks';
import { readCard } from '../../src/core/reading/read-card';
import { photoOf } from '../burn';
import type { Burned } from './observer';
import { oncePer } from './once-per';

/** Light that no lamp's bright end of a card goes past: what somebody takes who was told once that a photo was overexposed. */
const EXPOSURE = 0.42;

/** What a photo of a piece shows, by a camera that stores light as it is; another seed is another photo. */
export function photographed({ piece, layout, pairing }: Omit<Burned, 'pieces'>, seed: string, widthPx = 2000): Seen {
  const { stock, lens } = pairing;
  const spot = { xMm: lens.spotXMm, yMm: lens.spotYMm };
  const photo = photoOf(piece, seed, { widthPx, heightPx: (3 * widthPx) / 4, exposure: EXPOSURE });
  const result = readCard({ photo, layout, stock, corners: null, cameraIsTrue: true, spot });
  if (result.outcome !== 'read') throw new Error(`the photo was not read: ${result.outcome}`);
  return { readings: result.cells, answers: [] };
}

/** Wide enough for patches of one tone: two megapixels. */
export const TONES_PX = 1600;

/** One photo of each piece, whoever looks at it. */
export const photographedOnce = (widthPx?: number): ((burned: Burned) => Seen) =>
  oncePer((burned: Burned) => photographed(burned, burned.seed, widthPx));
