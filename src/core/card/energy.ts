import { deliveredPowerW, sweepLimits } from '../machine/machine';
import { arealEnergyJPerMm2, lineEnergyJPerMm } from '../quantities/energy';
import { responseOf } from '../stock/response';
import type { Pairing } from './contract';
import type { Fate } from './layout';
import { crossingsOf, type BurnSettings } from './settings';

/** What a burn's settings deliver on a machine. */
export interface Delivered {
  readonly watts: number;
  /** One pass after another on the same line. */
  readonly lineJPerMm: number;
  readonly arealJPerMm2: number;
}

export function deliveredBy(settings: BurnSettings, { machine }: Pick<Pairing, 'machine'>): Delivered {
  const { powerFraction, speedMmPerS, intervalMm, passes } = settings;
  const crossings = crossingsOf(settings);
  const watts = deliveredPowerW(machine, Math.min(1, powerFraction));
  return {
    watts,
    lineJPerMm: lineEnergyJPerMm(watts, speedMmPerS, passes),
    arealJPerMm2: arealEnergyJPerMm2(watts, speedMmPerS, intervalMm, crossings),
  };
}

/** Energy below this share of the family's faint mark is bound to leave nothing. */
const NO_MARK_SHARE = 0.45;

/** Where a filled patch is bound to end up; null when nothing speaks against it. */
export function fateOfFill(settings: BurnSettings, { machine, stock }: Pairing): Fate | null {
  const { energies } = responseOf(stock, machine);
  const { watts, arealJPerMm2 } = deliveredBy(settings, { machine });
  if (watts === 0) return 'does-not-fire';
  if (settings.speedMmPerS > sweepLimits(machine, settings.direction).topSpeedMmPerS + 1e-9) return 'too-fast';
  if (arealJPerMm2 < energies.faint * NO_MARK_SHARE) return 'no-mark';
  if (arealJPerMm2 > energies.over) return 'overburn';
  return null;
}
