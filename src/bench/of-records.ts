import type { Lens, Machine } from '../core/machine/machine';
import type { Stock } from '../core/stock/stock';
import type { BenchMachine, BenchSheet } from './bench';

/** What the bench is told of a machine and its lens: the record's numbers, from which it makes its own truth. */
export function benchMachineOf(machine: Machine, lens: Lens): BenchMachine {
  return { ...machine, spotXMm: lens.spotXMm, spotYMm: lens.spotYMm };
}

export function benchSheetOf(stock: Stock): BenchSheet {
  return { family: stock.family, grainAlongX: stock.grain !== 'along-depth' };
}
