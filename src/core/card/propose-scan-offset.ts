import { knownScanOffset } from '../book/facts';
import { formatSpeed } from '../quantities/format';
import type { Known } from './contract';
import type { Constants } from './settings';

/**
 * Constants with the scan offset that was measured along their lines, for a speed, and the reason under its path in a plan's `constants`; as they are
 * where it was not measured there, or lines run one way.
 */
export function withScanOffset<Of extends Constants>(
  constants: Of,
  { facts, pairing }: Known,
  speedMmPerS: number,
): { constants: Of; reasons: Record<string, string> } {
  const offset = constants.bothWays ? knownScanOffset(facts, constants.direction, speedMmPerS) : null;
  if (offset === null) return { constants, reasons: {} };
  const at = formatSpeed(speedMmPerS, pairing.machine.likedUnits);
  return {
    constants: { ...constants, scanOffsetMm: offset },
    reasons: { 'constants.scanOffsetMm': `as measured on this machine, for ${at}` },
  };
}
