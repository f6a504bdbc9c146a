import { isLoose } from '../../../src/bench/gauges';
import type { PassCountFinding } from '../../../src/cards/pass-count/find';
import { COUNT, NOT_DROPPED } from '../../../src/core/card/usual-asks';
import { burnOnBench } from '../burn';
import type { Burned, Observer } from './observer';

/** After which pass the square of a card is loose, by a burn of so many passes each; null where it is not after all of them. */
function droppedIn({ layout, pairing }: Burned, seed: string): number | null {
  const [cell] = layout.cells;
  for (let passes = 1; passes <= cell!.burns.length; passes++) {
    const some = { ...layout, cells: [{ ...cell!, burns: cell!.burns.slice(0, passes) }] };
    if (isLoose(burnOnBench(some, pairing, seed), cell!.box)) return passes;
  }
  return null;
}

const counted = new WeakMap<Burned, { here: number | null; elsewhere: number | null }>();

/** The count of a card's square, and of another place of its sheet. */
function countsOf(burned: Burned) {
  const counts = counted.get(burned) ?? {
    here: droppedIn(burned, burned.seed),
    elsewhere: droppedIn(burned, `${burned.seed} elsewhere`),
  };
  counted.set(burned, counts);
  return counts;
}

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
