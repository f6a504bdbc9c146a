import { tapPart } from '../../src/bench/tap';
import type { PassesFinding } from '../../src/cards/passes/find';
import type { Answer } from '../../src/core/card/asks';
import { DROP } from '../../src/core/card/usual-asks';
import type { Burned, Observer } from './observer';
import { oncePer } from './once-per';
import { cutBoxOf } from './part';

/** A tip that has lost so much of its light is called burned away. */
const TIP_BURNED_FROM = 0.36;

const tapped = oncePer(({ piece, layout }: Burned) =>
  layout.cells.map((cell) => ({ cell, ...tapPart(piece, cutBoxOf(cell)) })),
);

export const passesObserver: Observer<PassesFinding> = {
  on: ['marl', 'alder'],
  look: (burned) => ({
    readings: [],
    answers: tapped(burned).map(({ cell, part, tipLoss }): Answer => ({
      field: DROP.field,
      cellIndex: cell.index,
      repeat: 0,
      value: part !== 'loose' ? 'hangs' : tipLoss >= TIP_BURNED_FROM ? 'tip' : 'clean',
    })),
  }),
  // The first column in which nothing holds, and no tip is dark.
  truth: (burned) => {
    const all = tapped(burned);
    const bad = new Set(
      all.filter(({ part, tipLoss }) => part !== 'loose' || tipLoss >= TIP_BURNED_FROM).map(({ cell }) => cell.box.x),
    );
    const columns = [...new Set(all.map(({ cell }) => cell.box.x))].sort((a, b) => a - b);
    return [columns.findIndex((x) => !bad.has(x)) + 1];
  },
  claims: ({ best }) => [[best!.passes - 0.5, best!.passes + 0.5]],
  widestClaim: 1,
};
