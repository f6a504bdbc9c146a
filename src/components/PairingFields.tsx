import { useState } from 'react';
import type { MachineRecord } from '../records/machine';
import type { StockRecord } from '../records/stock';
import { SelectField } from './Field';

export interface ChosenPairing {
  readonly machineId: number;
  readonly lensId: number | undefined;
  readonly stockId: number;
  readonly machine: MachineRecord | undefined;
  readonly stock: StockRecord | undefined;
}

/** Which machine, lens and stock: the first of each until something else is chosen. */
export function usePairing(machines: readonly MachineRecord[], stocks: readonly StockRecord[]) {
  const [machineId, setMachineId] = useState(machines[0]?.id ?? 0);
  const machine = machines.find((candidate) => candidate.id === machineId);
  const lenses = machine?.lenses.filter((lens) => !lens.retired) ?? [];
  const [lensId, setLensId] = useState(lenses[0]?.id ?? 0);
  const lens = lenses.find((candidate) => candidate.id === lensId) ?? lenses[0];
  const [stockId, setStockId] = useState(stocks[0]?.id ?? 0);
  const stock = stocks.find((candidate) => candidate.id === stockId);
  const chosen: ChosenPairing = { machineId, lensId: lens?.id, stockId, machine, stock };
  const fields = (
    <>
      <SelectField label="Machine" value={machineId} onChange={(event) => setMachineId(Number(event.target.value))}>
        {machines.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <SelectField label="Lens" value={lens?.id ?? 0} onChange={(event) => setLensId(Number(event.target.value))}>
        {lenses.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <SelectField label="Stock" value={stockId} onChange={(event) => setStockId(Number(event.target.value))}>
        {stocks.map(({ id, name, batch }) => (
          <option key={id} value={id}>
            {batch ? `${name}, batch ${batch}` : name}
          </option>
        ))}
      </SelectField>
    </>
  );
  return { chosen, fields };
}
