import { tapPart } from '../../src/bench/tap';
import type { CutCheckFinding } from '../../src/cards/cut-check/find';
import type { Answer } from '../../src/core/card/asks';
import { deliveredBy } from '../../src/core/card/energy';
import { proposedCut } from '../../src/core/card/propose-cut';
import { DROP } from '../../src/core/card/usual-asks';
import { randomFrom } from '../../src/bench/random';
import { thicknessOf } from '../../src/core/stock/stock';
import { factNow } from '../facts';
import type { Observer } from './observer';
import { cutBoxOf } from './part';

/** What this stock comes through at on the bench, J/mm for each mm, as a card of cut squares told. */
const COMES_THROUGH = 0.62;

export const cutCheckObserver: Observer<CutCheckFinding> = {
  on: ['marl', 'acrylic'],
  facts: (pairing) => {
    const { cut: settings } = proposedCut({ pairing, facts: [] });
    const laidDown = deliveredBy(settings, pairing).lineJPerMm / thicknessOf(pairing.stock).meanMm;
    return [
      factNow('cut', {
        settings,
        certainty: 0.98,
        outlineMm: 24,
        thicknessMm: { from: 2.4, to: 3 },
        comesThrough: laidDown * COMES_THROUGH,
        laidDown,
        edge: null,
      }),
    ];
  },
  look: ({ piece, layout }, seed) => {
    // A hand that is wrong once in a while.
    const random = randomFrom(seed);
    return {
      readings: [],
      answers: layout.cells.map((cell): Answer => {
        const { part } = tapPart(piece, cutBoxOf(cell));
        const value = part === 'loose' ? (random() < 0.03 ? 'charred' : 'clean') : 'hangs';
        return { field: DROP.field, cellIndex: cell.index, repeat: 0, value };
      }),
    };
  },
  // Whether the disc of the kept cut comes loose.
  truth: ({ piece, layout }) => [tapPart(piece, cutBoxOf(layout.cells.at(-1)!)).part === 'loose' ? 1 : 0],
  claims: ({ chance }) => [[chance! >= 0.5 ? 0.5 : 0, chance! >= 0.5 ? 1 : 0.5]],
  widestClaim: 0.5,
};
