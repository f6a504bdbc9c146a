import type { FactNow } from '../book/facts';
import { commandFor } from '../machine/command';
import { deliveredPowerW, type Machine } from '../machine/machine';

/** A power that was found at one speed, for another. */
export interface PowerAtSpeed {
  readonly powerFraction: number;
  /** Whether it was found at that very speed; otherwise it is by equal energy, and a first guess. */
  readonly measured: boolean;
}

/** Speeds no further apart than this are one. */
const SAME_SPEED = 0.005;

/**
 * The power of a floor or a ceiling at a speed: as it was found there, or else what lays the same energy down along a line. Null where there is no
 * such fact, or it is stale. A floor of 4 % at 100 mm/s is 8 % at 200 where power goes by the command.
 */
export function powerAtSpeed(
  fact: Extract<FactNow, { name: 'floor' | 'ceiling' }> | undefined,
  speedMmPerS: number,
  machine: Machine,
): PowerAtSpeed | null {
  if (!fact || fact.stale.length > 0) return null;
  const { powerFraction } = fact.value;
  const foundAt = Number(fact.at['speed'] ?? NaN);
  if (!(foundAt > 0)) return null;
  if (Math.abs(speedMmPerS / foundAt - 1) < SAME_SPEED) return { powerFraction, measured: true };
  const watts = (deliveredPowerW(machine, powerFraction) * speedMmPerS) / foundAt;
  return { powerFraction: Math.min(1, commandFor(machine, watts)), measured: false };
}
