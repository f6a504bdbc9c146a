import type { Lens, Machine } from '../core/machine/machine';
import type { Stock } from '../core/stock/stock';
import type { BenchMachine, BenchSheet } from './bench';

/** What the bench is told of a machine and its lens: the record's numbers, from which it makes its own truth. */
export function benchMachineOf(machine: Machine, lens: Lens): BenchMachine {
  return {
    ...machine,
    spotXMm: lens.spotXMm,
    spotYMm: lens.spotYMm,
    focalLengthMm: lens.focalLengthMm,
    fieldMm: lens.fieldMm,
  };
}

export function benchSheetOf(stock: Stock): BenchSheet {
  const { thicknessReadingsMm: readings, nominalThicknessMm } = stock;
  const mean = readings.reduce((sum, mm) => sum + mm, 0) / readings.length;
  return {
    family: stock.family,
    type: stock.type,
    batch: stock.batch,
    grainAlongX: stock.grain !== 'along-depth',
    // The sheet is as thick as it measures, whatever its label says.
    thicknessMm: readings.length > 0 ? mean : nominalThicknessMm * 0.97,
  };
}
