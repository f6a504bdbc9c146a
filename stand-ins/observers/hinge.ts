import { bendReading } from '../../src/bench/bend';
import type { HingeFinding } from '../../src/cards/hinge/find';
import { USUAL_HINGE_WISH } from '../../src/cards/hinge/find';
import type { Answer } from '../../src/core/card/asks';
import type { Cell } from '../../src/core/card/layout';
import type { Burned, Observer } from './observer';
import { oncePer } from './once-per';
import { cutBoxOf } from './part';

const held = ({ piece, pairing }: Burned, cell: Cell, seed: string): number | null => {
  const shown = bendReading(piece, cutBoxOf(cell), { family: pairing.stock.family, seed });
  return 'shows' in shown ? Number(shown.shows) : null;
};

/** Strips enough that their scatter is no longer seen in what they tell together. */
const MANY = 60;

/** The radius that 95 of 100 strips like the middle one hold, half a step of what they were bent round below that. */
const safeMm = oncePer((burned: Burned): number => {
  const middle = burned.layout.cells[Math.floor(burned.layout.cells.length / 2)]!;
  const radii = Array.from({ length: MANY }, (_, k) => held(burned, middle, `many ${k}`) ?? Infinity).sort(
    (a, b) => a - b,
  );
  return 0.9 * radii[Math.floor(0.95 * MANY)]!;
});

export const hingeObserver: Observer<HingeFinding> = {
  on: ['marl', 'alder'],
  look: (burned, seed) => ({
    readings: [],
    answers: burned.layout.cells.flatMap((cell): Answer[] => {
      const value = held(burned, cell, seed);
      return value === null ? [] : [{ field: 'radius', cellIndex: cell.index, repeat: 0, value }];
    }),
  }),
  wish: () => USUAL_HINGE_WISH,
  truth: (burned) => [safeMm(burned)],
  // Safe is what is said to be so, and not more than twice what half of them break at.
  claims: ({ radii }) => {
    const middle = radii[Math.floor(radii.length / 2)]!;
    return [[middle.breaksMm, 1.1 * middle.safeMm]];
  },
  widestClaim: 60,
};
