import { commandFor, leastCommand } from '../machine/command';
import { deliveredPowerW, sweepLimits } from '../machine/machine';
import { responseOf } from '../stock/response';
import type { Pairing } from './pairing';
import type { BurnSettings } from './settings';
import { fastestUsefulMmPerS } from './useful-speed';

/**
 * The fastest that pays, or that the cap still marks a middle tone at, and the power for it: half way, by ratio, between the energy where a mark
 * begins and the one past which it gets no darker, where a little more or less shows most. `useful` is the fastest that pays.
 */
export function fastAtMiddleTone(
  { machine, stock }: Pairing,
  { intervalMm, direction }: Pick<BurnSettings, 'intervalMm' | 'direction'>,
): { readonly speedMmPerS: number; readonly powerFraction: number; readonly useful: number } {
  const { faint, deep } = responseOf(stock, machine).energies;
  const joulesPerMm = Math.sqrt(faint * deep) * intervalMm;
  const useful = Math.min(sweepLimits(machine, direction).topSpeedMmPerS, fastestUsefulMmPerS(machine, direction));
  const top = Math.min(useful, deliveredPowerW(machine, machine.powerCap) / joulesPerMm);
  const speedMmPerS = top < 10 ? Math.max(0.1, Math.floor(top * 10) / 10) : Math.floor(top);
  const enough = Math.round(commandFor(machine, joulesPerMm * speedMmPerS) * 1000) / 1000;
  return { speedMmPerS, powerFraction: Math.min(machine.powerCap, Math.max(leastCommand(machine), enough)), useful };
}
