import { commandFor, leastCommand } from '../machine/command';
import { deliveredPowerW, sweepLimits } from '../machine/machine';
import { responseOf } from '../stock/response';
import type { Pairing } from './pairing';
import type { BurnSettings } from './settings';
import { fastestUsefulMmPerS } from './useful-speed';

/** Half of the energy past which a family gets no darker, in J/mm²: a clear mark that is not yet deep. */
export const clearMark = ({ machine, stock }: Pick<Pairing, 'machine' | 'stock'>): number =>
  responseOf(stock, machine).energies.deep * 0.5;

/** Half way, by ratio, between the energy where a mark begins and the one past which it gets no darker: there a little more or less shows most. */
export function middleTone({ machine, stock }: Pick<Pairing, 'machine' | 'stock'>): number {
  const { faint, deep } = responseOf(stock, machine).energies;
  return Math.sqrt(faint * deep);
}

/** The fastest that pays, or that the cap still lays an areal energy down at, and the power for it. `useful` is the fastest that pays. */
export function fastAtTone(
  { machine }: Pick<Pairing, 'machine'>,
  { intervalMm, direction }: Pick<BurnSettings, 'intervalMm' | 'direction'>,
  arealJPerMm2: number,
): { readonly speedMmPerS: number; readonly powerFraction: number; readonly useful: number } {
  const joulesPerMm = arealJPerMm2 * intervalMm;
  const useful = Math.min(sweepLimits(machine, direction).topSpeedMmPerS, fastestUsefulMmPerS(machine, direction));
  const top = Math.min(useful, deliveredPowerW(machine, machine.powerCap) / joulesPerMm);
  const speedMmPerS = top < 10 ? Math.max(0.1, Math.floor(top * 10) / 10) : Math.floor(top);
  const enough = Math.round(commandFor(machine, joulesPerMm * speedMmPerS) * 1000) / 1000;
  return { speedMmPerS, powerFraction: Math.min(machine.powerCap, Math.max(leastCommand(machine), enough)), useful };
}
