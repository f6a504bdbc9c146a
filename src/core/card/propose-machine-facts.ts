import { knownRunUp, knownScanOffset, knownShorter } from '../book/motion-facts';
import { formatSpeed } from '../quantities/format';
import type { Known } from './contract';
import type { Constants } from './settings';

/**
 * Constants with what was measured of the machine along their lines, for a speed: scan offset, where lines run both ways, length of dots and run-up. With the
 * reasons under their paths in a plan's `constants`; as they are where nothing was measured there.
 */
export function withMachineFacts(
  constants: Constants,
  { facts, pairing }: Known,
  speedMmPerS: number,
): { constants: Constants; reasons: Record<string, string> } {
  const { bothWays, direction } = constants;
  const scanOffsetMm = bothWays ? knownScanOffset(facts, direction, speedMmPerS) : null;
  // Mirrors have none, and controllers that add it do so by themselves.
  const runs = pairing.machine.head !== 'galvo' && !pairing.machine.addsRunUp;
  const runUpMm = runs ? knownRunUp(facts, direction, speedMmPerS) : null;
  // Drawn longer by as much as they come out shorter: what the mark of the beam adds at every speed is the stock's and stays.
  const lengthenMm = knownShorter(facts, direction, speedMmPerS);
  const why = `as measured on this machine, for ${formatSpeed(speedMmPerS, pairing.machine.likedUnits)}`;
  return {
    constants: {
      ...constants,
      ...(scanOffsetMm === null ? {} : { scanOffsetMm }),
      ...(lengthenMm === null ? {} : { lengthenMm }),
      ...(runUpMm === null ? {} : { runUpMm }),
    },
    reasons: {
      ...(scanOffsetMm === null ? {} : { 'constants.scanOffsetMm': why }),
      ...(lengthenMm === null ? {} : { 'constants.lengthenMm': why }),
      ...(runUpMm === null ? {} : { 'constants.runUpMm': why }),
    },
  };
}
