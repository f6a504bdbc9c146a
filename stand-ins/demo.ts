import type { Pairing } from '../src/core/card/contract';
import { DEMO_MACHINES, DEMO_STOCKS, type DemoMachineName, type DemoStockName } from '../src/demo/world';

/** A pairing of the made-up workshop. */
export function demoPairing(machine: DemoMachineName, stock: DemoStockName, lens = 0): Pairing {
  const { machine: record, lenses } = DEMO_MACHINES[machine];
  return { machine: record, lens: lenses[lens]!, stock: DEMO_STOCKS[stock] };
}

/** Pairings of the workshop that can be burned. */
export const BURNABLE: readonly (readonly [DemoMachineName, DemoStockName])[] = [
  ['heron', 'birch'],
  ['heron', 'leather'],
  ['heron', 'cork'],
  ['heron', 'mdf'],
  ['marl', 'alder'],
  ['marl', 'slate'],
  ['marl', 'twoLayer'],
  ['marl', 'acrylic'],
  ['marl', 'felt'],
  ['marl', 'linen'],
  ['marl', 'tile'],
];
