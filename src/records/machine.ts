import type { Lens, Machine } from '../core/machine/machine';

export interface MachineRecord extends Machine {
  readonly id: number;
  readonly retired: boolean;
  readonly lenses: readonly LensRecord[];
}

export interface LensRecord extends Lens {
  readonly id: number;
  readonly machineId: number;
  readonly retired: boolean;
}
