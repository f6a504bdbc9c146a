import type { ScanOffsetFinding } from '../../../src/cards/scan-offset/find';
import { benchMachineOf } from '../../../src/bench/of-records';
import { laserTruthOf } from '../../../src/bench/truth';
import type { Seen } from '../../../src/core/card/asks';
import { PLACE } from '../burn';
import type { Burned, Observer } from './observer';
import { photographedOnce } from './photographed';

/** One photo of each piece; a look goes by one pair of each speed, and the last by all of them. */
function lookAt(burned: Burned, seed: string): Seen {
  const seen = photographedOnce(burned);
  const { cells } = burned.layout;
  const columns = [...new Set(cells.map(({ box }) => box.x))].sort((a, b) => a - b);
  const wanted = columns[Number(seed.at(-1))];
  if (wanted === undefined) return seen;
  return { ...seen, readings: seen.readings.filter(({ cellIndex }) => cells[cellIndex]!.box.x === wanted) };
}

export const scanOffsetObserver: Observer<ScanOffsetFinding> = {
  on: ['heron', 'leather'],
  look: lookAt,
  seeAll: (burned) => photographedOnce(burned),
  // Lines there lie further along by speed times lag, lines back less far: twice that between them.
  truth: ({ pairing, layout }, { fastest }) => {
    const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
    const { lagS } = laserTruthOf(benchMachineOf(pairing.machine, pairing.lens), place);
    return [-2 * lagS * fastest!.speedMmPerS];
  },
  claims: ({ fastest }) => [[fastest!.offsetMm - 2 * fastest!.sigmaMm, fastest!.offsetMm + 2 * fastest!.sigmaMm]],
  widestClaim: 0.04,
};
