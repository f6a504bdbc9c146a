import type { GridFinding, GridWish } from '../../../src/cards/grid/find';
import type { Piece } from '../../../src/bench/piece';
import { randomFrom } from '../../../src/bench/random';
import type { Seen } from '../../../src/core/card/asks';
import { trueLightness } from '../reading';
import type { Burned, Observer } from './observer';
import { photographed } from './photographed';

const read = new WeakMap<Piece, Seen>();

/** One photo of each piece; what is wanted of it differs. */
function lookAt(burned: Burned): Seen {
  const seen = read.get(burned.piece) ?? photographed(burned, burned.seed);
  read.set(burned.piece, seen);
  return seen;
}

export const gridObserver: Observer<GridFinding> = {
  on: ['marl', 'alder'],
  look: (burned) => lookAt(burned),
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
