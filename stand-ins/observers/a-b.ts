import type { ABFinding } from '../../src/cards/a-b/find';
import type { Seen } from '../../src/core/card/asks';
import { trueLightness } from '../true-lightness';
import type { Burned, Observer } from './observer';
import { photographedOnce, TONES_PX } from './photographed';

const photoOfPiece = photographedOnce(TONES_PX);

/** One photo of each piece; a look goes by all patches but one of each. */
function lookAt(burned: Burned, seed: string): Seen {
  const seen = photoOfPiece(burned);
  const without = Number(seed.at(-1));
  return { ...seen, readings: seen.readings.filter(({ cellIndex }) => cellIndex % 6 !== without) };
}

export const aBObserver: Observer<ABFinding> = {
  on: ['marl', 'mdf'],
  look: lookAt,
  seeAll: photoOfPiece,
  // L* of B less A on this piece, over all of its patches.
  truth: ({ piece, layout, pairing }) => {
    const meanOf = (side: 'A' | 'B'): number => {
      const cells = layout.cells.filter(({ levels }) => String(levels.either).startsWith(side));
      return cells.reduce((sum, { index }) => sum + trueLightness(piece, layout, pairing, index), 0) / cells.length;
    };
    return [meanOf('B') - meanOf('A')];
  },
  claims: ({ told }) => [[told!.difference - told!.half, told!.difference + told!.half]],
  widestClaim: 4,
};
