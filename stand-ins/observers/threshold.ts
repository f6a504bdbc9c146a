import type { ThresholdFinding } from '../../src/cards/threshold/find';
import { MARK_FIELD } from '../../src/cards/threshold/asks';
import { mainBurn } from '../../src/core/card/layout';
import { trueLightness } from '../true-lightness';
import { crossing, normalOf } from './measures';
import type { Burned, Observer } from './observer';

/** A practised eye sees a patch beside bare stock from about one L* on (common practice), one day better than the other. */
const SEEN_FROM = 1;
const UNSURE = 0.3;

/** By how much each patch stands off the bare stock, in the order of their powers. */
function contrasts({
  piece,
  layout,
  pairing,
}: Burned): { cellIndex: number; powerFraction: number; contrast: number }[] {
  return layout.order
    .map((cellIndex) => ({
      cellIndex,
      powerFraction: mainBurn(layout.cells[cellIndex]!).settings.powerFraction,
      contrast: Math.abs(trueLightness(piece, layout, pairing, cellIndex) - pairing.stock.bareLightness),
    }))
    .sort((a, b) => a.powerFraction - b.powerFraction);
}

export const thresholdObserver: Observer<ThresholdFinding> = {
  on: ['marl', 'alder'],
  look: (burned, seed) => ({
    readings: [],
    answers: contrasts(burned).map(({ cellIndex, contrast }) => ({
      field: MARK_FIELD,
      cellIndex,
      repeat: 0,
      value: contrast + UNSURE * normalOf(`${seed} ${cellIndex}`) > SEEN_FROM ? 'marked' : 'nothing',
    })),
  }),
  truth: (burned) => [
    crossing(
      contrasts(burned).map(({ powerFraction, contrast }) => [powerFraction, contrast]),
      SEEN_FROM,
    ),
  ],
  claims: ({ half }) => [[half?.low ?? NaN, half?.high ?? NaN]],
  widestClaim: 0.2,
};
