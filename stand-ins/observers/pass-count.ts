import { isLoose } from '../../src/bench/gauges';
import type { PassCountFinding } from '../../src/cards/pass-count/find';
import { COUNT, NOT_DROPPED } from '../../src/core/card/usual-asks';
import { burnOnBench } from '../burn';
import type { Burned, Observer } from './observer';
import { oncePer } from './once-per';

/**
 * After which pass the square of a card is loose, by burns of so many passes each, halving: one that is loose stays so. Null where it is not after
 * all of them.
 */
function droppedIn({ layout, pairing }: Burned, seed: string): number | null {
  const [cell] = layout.cells;
  const isLooseAfter = (passes: number): boolean => {
    const some = { ...layout, cells: [{ ...cell!, burns: cell!.burns.slice(0, passes) }] };
    return isLoose(burnOnBench(some, pairing, seed), cell!.box);
  };
  let [held, loose] = [0, cell!.burns.length + 1];
  while (loose - held > 1) {
    const middle = Math.floor((held + loose) / 2);
    if (isLooseAfter(middle)) loose = middle;
    else held = middle;
  }
  return loose > cell!.burns.length ? null : loose;
}

/** The count of a card's square, and of another place of its sheet. */
const countsOf = oncePer((burned: Burned) => ({
  here: droppedIn(burned, burned.seed),
  elsewhere: droppedIn(burned, `${burned.seed} elsewhere`),
}));

export const passCountObserver: Observer<PassCountFinding> = {
  on: ['marl', 'acrylic'],
  look: (burned) => {
    const value = String(countsOf(burned).here ?? NOT_DROPPED);
    return { readings: [], answers: [{ field: COUNT.field, cellIndex: 0, repeat: 0, value }] };
  },
  // Other places of the sheet drop with as many passes as are said to be enough.
  truth: (burned) => [countsOf(burned).elsewhere ?? Infinity],
  claims: ({ cut, passes }) => [[passes! / 2, cut!.settings.passes]],
  widestClaim: 8,
};
