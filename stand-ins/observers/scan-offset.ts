import type { ScanOffsetFinding } from '../../src/cards/scan-offset/find';
import { benchMachineOf } from '../../src/bench/of-records';
import { laserTruthOf } from '../../src/bench/truth';
import type { Seen } from '../../src/core/card/asks';
import { PLACE } from '../burn';
import type { Burned, Observer } from './observer';
import { photographedOnce } from './photographed';

const photoOfPiece = photographedOnce();

/** One photo of each piece; a look leaves out one pair of each speed, and the last goes by all of them. */
function lookAt(burned: Burned, seed: string): Seen {
  const seen = photoOfPiece(burned);
  const { cells } = burned.layout;
  const columns = [...new Set(cells.map(({ box }) => box.x))].sort((a, b) => a - b);
  const unwanted = columns[Number(seed.at(-1))];
  if (unwanted === undefined) return seen;
  return { ...seen, readings: seen.readings.filter(({ cellIndex }) => cells[cellIndex]!.box.x !== unwanted) };
}

export const scanOffsetObserver: Observer<ScanOffsetFinding> = {
  on: ['heron', 'leather'],
  look: lookAt,
  seeAll: photoOfPiece,
  // Lines there lie further along by speed times lag, lines back less far: twice that between them. What begins late lies later by half of that.
  truth: ({ pairing, layout }, { fastest }) => {
    const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
    const { lagS, slowOnS } = laserTruthOf(benchMachineOf(pairing.machine, pairing.lens), place);
    return [-2 * (lagS + slowOnS / 2) * fastest!.speedMmPerS, slowOnS * fastest!.speedMmPerS];
  },
  claims: ({ fastest, dots }) => [
    [fastest!.offsetMm - 2 * fastest!.sigmaMm, fastest!.offsetMm + 2 * fastest!.sigmaMm],
    // Not told where a photo leaves it open.
    dots.fastest
      ? [
          dots.fastest.shorterMm - 2 * dots.fastest.shorterSigmaMm,
          dots.fastest.shorterMm + 2 * dots.fastest.shorterSigmaMm,
        ]
      : [NaN, NaN],
  ],
  widestClaim: 0.04,
};
