import { findInterval, LINES_FIELD, type IntervalFinding } from '../../src/cards/interval/find';
import { boxOfShape } from '../../src/core/card/shape';
import { crossing, looksAtPhoto, normalOf, rippleAt } from './measures';
import type { Burned, Observer } from './observer';
import { photographed } from './photographed';

/** How strongly lines of a pitch must show to be seen from 300 mm: a tenth at 30 periods to a degree, e times that for 10.9 more of them. */
const leastSeen = (pitchMm: number): number => 0.1 * Math.exp((5.236 / pitchMm - 30) / 10.9);
/** Width of a photo that shows lines. */
const NEAR_PX = 3200;
/** One pair of eyes and another differ by a seventh. */
const UNSURE = 0.15;

/** How strongly lines show in the strongest part of each strip, finest first. */
function strips({ piece, layout }: Burned): { cellIndex: number; intervalMm: number; contrast: number }[] {
  return layout.cells
    .map((cell) => {
      const { shape, settings } = cell.burns.at(-1)!;
      return {
        cellIndex: cell.index,
        intervalMm: settings.intervalMm,
        contrast: rippleAt(piece, boxOfShape(shape), settings.intervalMm, settings.direction),
      };
    })
    .sort((a, b) => a.intervalMm - b.intervalMm);
}

export const intervalObserver: Observer<IntervalFinding> = {
  on: ['marl', 'alder'],
  look: (burned, seed) => {
    const byEye = strips(burned).map(({ cellIndex, contrast, intervalMm }) => ({
      field: LINES_FIELD,
      cellIndex,
      repeat: 0,
      // One pair of eyes is sharper than another, but they compare its strips with each other.
      value: contrast > leastSeen(intervalMm) * (1 + UNSURE * normalOf(seed)) ? 'apart' : 'even',
    }));
    if (!looksAtPhoto(seed)) return { readings: [], answers: byEye };
    const seen = photographed(burned, seed, NEAR_PX);
    // Whoever let a photo be read looks where it is asked for.
    const { undecided } = findInterval(burned.layout, seen, { pairing: burned.pairing, facts: [] });
    return { ...seen, answers: byEye.filter(({ cellIndex }) => undecided.includes(cellIndex)) };
  },
  truth: (burned) => [
    crossing(
      strips(burned).map(({ intervalMm, contrast }) => [intervalMm, Math.log(contrast / leastSeen(intervalMm))]),
      0,
    ),
  ],
  // The limit lies anywhere up to the next coarser strip: uniform, so two standard uncertainties either side of the middle.
  claims: ({ intervalMm, upToMm, sigmaMm }) => {
    const middle = ((intervalMm ?? NaN) + (upToMm ?? NaN)) / 2;
    return [[middle - 2 * (sigmaMm ?? NaN), middle + 2 * (sigmaMm ?? NaN)]];
  },
  widestClaim: 0.04,
};
