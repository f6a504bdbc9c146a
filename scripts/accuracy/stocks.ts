import { randomFrom } from '../../src/bench/random';
import type { Pairing } from '../../src/core/card/contract';
import { BURNABLE, demoPairing } from '../../tests/support/demo';

/**
 * A made-up pairing for a report: one of the workshop's, with a source up to a third weaker or stronger, another spot, and stock a few L* paler or
 * darker than its like. The same for the same seed.
 */
export function madeUpPairing(seed: string, turn: number): Pairing {
  const random = randomFrom(`${seed} ${turn}`);
  const between = (low: number, high: number): number => low + (high - low) * random();
  const [machine, stock] = BURNABLE[turn % BURNABLE.length]!;
  const on = demoPairing(machine, stock);
  const power = between(0.75, 1.33);
  const spot = between(0.85, 1.25);
  return {
    machine: {
      ...on.machine,
      ratedPowerW: on.machine.ratedPowerW * power,
      powerTable:
        on.machine.powerTable?.map((point) => ({ ...point, watts: point.watts * power })) ?? on.machine.powerTable,
    },
    lens: { ...on.lens, spotXMm: on.lens.spotXMm * spot, spotYMm: on.lens.spotYMm * spot },
    stock: {
      ...on.stock,
      bareLightness: Math.min(96, Math.max(12, on.stock.bareLightness + between(-3, 3))),
      batch: `report ${seed} ${turn}`,
    },
  };
}
