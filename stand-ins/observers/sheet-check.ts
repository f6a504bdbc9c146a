import type { SheetCheckFinding } from '../../src/cards/sheet-check/find';
import type { Seen } from '../../src/core/card/asks';
import { proposeFill } from '../../src/core/card/propose-fill';
import { factNow } from '../facts';
import { trueLightness } from '../true-lightness';
import type { Burned, Observer } from './observer';
import { photographedOnce, TONES_PX } from './photographed';

const photoOfPiece = photographedOnce(TONES_PX);

/** One photo of each piece; a look goes by all patches but one. */
function lookAt(burned: Burned, seed: string): Seen {
  const seen = photoOfPiece(burned);
  const without = Number(seed.at(-1));
  return { ...seen, readings: seen.readings.filter(({ cellIndex }) => cellIndex !== without + 1) };
}

export const sheetCheckObserver: Observer<SheetCheckFinding> = {
  on: ['marl', 'mdf'],
  // The tone it was kept with moves no patch.
  facts: (pairing) => [
    factNow('engrave', {
      settings: proposeFill({ pairing, facts: [] }).settings,
      lightness: 40,
      lightnessSigma: 0.5,
      confidence: 1,
    }),
  ],
  look: lookAt,
  seeAll: photoOfPiece,
  // The tone of the setting on this piece: the mean of its two patches.
  truth: ({ piece, layout, pairing }) => [
    (trueLightness(piece, layout, pairing, 0) + trueLightness(piece, layout, pairing, 4)) / 2,
  ],
  claims: ({ photo }) => [[photo!.lightness - 2 * photo!.sigma, photo!.lightness + 2 * photo!.sigma]],
  widestClaim: 8,
};
