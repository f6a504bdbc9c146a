import type { GridFinding, GridWish } from '../../../src/cards/grid/find';
import type { Piece } from '../../../src/bench/piece';
import { randomFrom } from '../../../src/bench/random';
import type { Seen } from '../../../src/core/card/asks';
import { readCard } from '../../../src/core/reading/read-card';
import { photoOf } from '../burn';
import { trueLightness } from '../reading';
import type { Burned, Observer } from './observer';

const read = new WeakMap<Piece, Seen>();

/** One photo of each piece; what is wanted of it differs. */
function photographed({ piece, layout, pairing, seed }: Burned): Seen {
  const known = read.get(piece);
  if (known) return known;
  const photo = photoOf(piece, seed, { widthPx: 2000, heightPx: 1500 });
  const result = readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true });
  if (result.outcome !== 'read') throw new Error(`the photo was not read: ${result.outcome}`);
  const seen = { readings: result.cells, answers: [] };
  read.set(piece, seen);
  return seen;
}

export const gridObserver: Observer<GridFinding> = {
  on: ['marl', 'alder'],
  look: (burned) => photographed(burned),
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
