import type { GridFinding, GridWish } from '../../src/cards/grid/find';
import { randomFrom } from '../../src/bench/random';
import { trueLightness } from '../true-lightness';
import type { Observer } from './observer';
import { photographedOnce, TONES_PX } from './photographed';

const photoOfPiece = photographedOnce(TONES_PX);

export const gridObserver: Observer<GridFinding> = {
  on: ['marl', 'alder'],
  // What is wanted of the photo differs.
  look: photoOfPiece,
  // A tone that one of its cells has.
  wish: ({ piece, layout, pairing }, seed): GridWish => ({
    lightness: trueLightness(
      piece,
      layout,
      pairing,
      layout.order[Math.floor(randomFrom(seed)() * layout.order.length)]!,
    ),
    powerCap: pairing.machine.powerCap,
    pace: 'fast-and-strong',
  }),
  truth: ({ piece, layout, pairing }, { proposal }) => [
    trueLightness(piece, layout, pairing, proposal?.cellIndex ?? 0),
  ],
  claims: ({ proposal, candidates }) => {
    const chosen = candidates.find(({ cellIndex }) => cellIndex === proposal?.cellIndex);
    if (!chosen) return [[NaN, NaN]];
    return [[chosen.lightness - 2 * chosen.lightnessSigma, chosen.lightness + 2 * chosen.lightnessSigma]];
  },
  widestClaim: 12,
};
