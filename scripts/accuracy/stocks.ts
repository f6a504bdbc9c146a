import { randomFrom } from '../../src/bench/random';
import type { Pairing } from '../../src/core/card/contract';
import { BURNABLE, demoPairing } from '../../stand-ins/demo';
import { machinesFor, MARKED_FAMILIES, stockOf } from './made-up-sheet';

/**
 * A made-up pairing for a report: one of the workshop's, with a source up to a third weaker or stronger, another spot, and stock a few L* paler or
 * darker than its like. The same for the same seed.
 */
export function madeUpPairing(seed: string, turn: number): Pairing {
  return varied(demoPairing(...BURNABLE[turn % BURNABLE.length]!), seed, turn);
}

/** The same of a stock of any family that a machine of the workshop marks: family by family, and its machines in turn. */
export function madeUpPairingOfAnyFamily(seed: string, turn: number): Pairing {
  const random = randomFrom(`${seed} ${turn} machine`);
  const family = MARKED_FAMILIES[turn % MARKED_FAMILIES.length]!;
  const stock = stockOf(family.id, Math.floor(random() * family.types.length), 0);
  const machines = machinesFor(stock);
  const { machine, lenses } = machines[Math.floor(random() * machines.length)]!;
  return varied({ machine, lens: lenses[0], stock }, seed, turn);
}

function varied(on: Pairing, seed: string, turn: number): Pairing {
  const random = randomFrom(`${seed} ${turn}`);
  const between = (low: number, high: number): number => low + (high - low) * random();
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
