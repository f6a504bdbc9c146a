import type { ToneFinding } from '../../src/cards/tone/find';
import type { Seen } from '../../src/core/card/asks';
import { trueLightness } from '../true-lightness';
import type { Burned, Observer } from './observer';
import { photographedOnce, TONES_PX } from './photographed';

const photoOfPiece = photographedOnce(TONES_PX);

/** One photo of each piece; a look goes by one of the two patches of each grey, or by a part of both. */
function lookAt(burned: Burned, seed: string): Seen {
  const look = Number(seed.at(-1));
  const seen = photoOfPiece(burned);
  return {
    ...seen,
    readings: seen.readings.filter(({ cellIndex }) => {
      const first = cellIndex % 2 === 0;
      return [first, !first, true, first || cellIndex % 8 < 4, !first || cellIndex % 8 > 3][look];
    }),
  };
}

/** Three of the sixteen greys of a wedge. */
const THIRDS = [0.2, 0.5333, 0.8];

export const toneObserver: Observer<ToneFinding> = {
  on: ['marl', 'mdf'],
  look: lookAt,
  seeAll: photoOfPiece,
  // How much darker the patches of these greys are than bare stock, from the piece itself.
  truth: ({ piece, layout, pairing }) =>
    THIRDS.map((grey) => {
      const cells = layout.cells.filter(({ levels }) => levels.grey === grey);
      const light = cells.map(({ index }) => trueLightness(piece, layout, pairing, index));
      return pairing.stock.bareLightness - light.reduce((sum, one) => sum + one, 0) / light.length;
    }),
  claims: ({ fit }) =>
    THIRDS.map((grey) => {
      const { strength, sigma } = fit!.means.find((mean) => mean.grey === grey)!;
      return [strength - 2 * sigma, strength + 2 * sigma] as const;
    }),
  widestClaim: 8,
};
