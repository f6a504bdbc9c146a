import { LINES_FIELD, type IntervalFinding } from '../../../src/cards/interval/find';
import { boxOfShape } from '../../../src/core/card/shape';
import { crossing, lineContrast, normalOf } from './measures';
import type { Burned, Observer } from './observer';

/** Lines show from this contrast on, give or take a seventh. */
const SHOWS_FROM = 0.12;
const UNSURE = 0.15;

/** How strongly lines show in the strongest part of each strip, finest first. */
function strips({ piece, layout }: Burned): { cellIndex: number; intervalMm: number; contrast: number }[] {
  return layout.cells
    .map((cell) => {
      const { shape, settings } = cell.burns.at(-1)!;
      return {
        cellIndex: cell.index,
        intervalMm: settings.intervalMm,
        contrast: lineContrast(piece, boxOfShape(shape)),
      };
    })
    .sort((a, b) => a.intervalMm - b.intervalMm);
}

export const intervalObserver: Observer<IntervalFinding> = {
  on: ['marl', 'alder'],
  look: (burned, seed) => ({
    readings: [],
    answers: strips(burned).map(({ cellIndex, contrast }) => ({
      field: LINES_FIELD,
      cellIndex,
      repeat: 0,
      // One pair of eyes is sharper than another, but they compare its strips with each other.
      value: contrast > SHOWS_FROM * (1 + UNSURE * normalOf(seed)) ? 'apart' : 'even',
    })),
  }),
  truth: (burned) => [
    crossing(
      strips(burned).map(({ intervalMm, contrast }) => [intervalMm, contrast]),
      SHOWS_FROM,
    ),
  ],
  // The limit lies anywhere up to the next coarser strip: uniform, so two standard uncertainties either side of the middle.
  claims: ({ intervalMm, sigmaMm }) => {
    const middle = (intervalMm ?? NaN) + (sigmaMm ?? NaN) * Math.sqrt(3);
    return [[middle - 2 * (sigmaMm ?? NaN), middle + 2 * (sigmaMm ?? NaN)]];
  },
  widestClaim: 0.04,
};
