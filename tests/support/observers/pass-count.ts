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

const counted = new WeakMap<Burned, number | null>();

export const passCountObserver: Observer<PassCountFinding> = {
  on: ['marl', 'acrylic'],
  look: (burned) => {
    if (!counted.has(burned)) counted.set(burned, droppedIn(burned, burned.seed));
    const value = String(counted.get(burned) ?? NOT_DROPPED);
    return { readings: [], answers: [{ field: COUNT.field, cellIndex: 0, repeat: 0, value }] };
  },
  // Other places of the sheet drop with as many passes as are said to be enough.
  truth: (burned) => [droppedIn(burned, `${burned.seed} elsewhere`) ?? Infinity],
  claims: ({ cut, passes }) => [[passes! / 2, cut!.settings.passes]],
  widestClaim: 8,
};
