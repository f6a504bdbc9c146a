import { knownRunUp, knownScanOffset } from '../book/facts';
import { formatSpeed } from '../quantities/format';
import type { Known } from './contract';
import type { Constants } from './settings';

/**
 * Constants with what was measured of the machine along their lines, for a speed: scan offset, where lines run both ways, and run-up. With the
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
  const why = `as measured on this machine, for ${formatSpeed(speedMmPerS, pairing.machine.likedUnits)}`;
  return {
    constants: {
      ...constants,
      ...(scanOffsetMm === null ? {} : { scanOffsetMm }),
      ...(runUpMm === null ? {} : { runUpMm }),
    },
    reasons: {
      ...(scanOffsetMm === null ? {} : { 'constants.scanOffsetMm': why }),
      ...(runUpMm === null ? {} : { 'constants.runUpMm': why }),
    },
  };
}
