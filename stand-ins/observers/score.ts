import { bendFlap } from '../../src/bench/flap';
import type { ScoreFinding } from '../../src/cards/score/find';
import type { Answer } from '../../src/core/card/asks';
import { FLAP } from '../../src/core/card/usual-asks';
import type { Burned, Observer } from './observer';

const bent = ({ piece, layout, pairing }: Burned, seed: string) =>
  layout.cells
    .filter(({ levels }) => levels.side !== 'stitch')
    .map((cell) => ({ cell, did: bendFlap(piece, cell.box, { family: pairing.stock.family, seed }) }));

/** Share of a cell’s line that was drawn uncut. */
const standing = ({ dash, skip, score }: Readonly<Record<string, unknown>>): number =>
  score === undefined ? Number(skip) / (Number(dash) + Number(skip)) : 1 - Number(score);

export const scoreObserver: Observer<ScoreFinding> = {
  on: ['marl', 'acrylic'],
  look: (burned, seed) => ({
    readings: [],
    answers: bent(burned, seed).map(({ cell, did }): Answer => ({
      field: FLAP.field,
      cellIndex: cell.index,
      repeat: 0,
      value: did,
    })),
  }),
  // What stands of the strongest line that tears clean, by most hands.
  truth: (burned) => {
    const flaps = bent(burned, 'any').map(({ cell }) => cell);
    const clean = flaps.filter((_, index) => {
      const hands = Array.from({ length: 5 }, (__, hand) => bent(burned, `hand ${hand}`)[index]!.did);
      return hands.filter((did) => did === 'clean').length >= 3;
    });
    return [Math.max(...clean.map(({ levels }) => standing(levels)))];
  },
  // One step of the card to either side.
  claims: ({ chosen }) => {
    const stands = chosen!.score === null ? chosen!.drawnShare : 1 - chosen!.score;
    return [[0.6 * stands, 1.7 * stands]];
  },
  widestClaim: 1,
};
