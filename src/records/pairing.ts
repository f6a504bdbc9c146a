import type { LadderRung, NextStep } from '../core/book/ladder';
import type { Pairing } from '../core/card/contract';
import type { Remark } from '../core/stock/assess';
import type { LensRecord, MachineRecord } from './machine';
import type { StockRecord } from './stock';

/** A pairing with its records as they are now. */
export interface OpenPairing extends Pairing {
  readonly id: number;
  readonly machine: MachineRecord;
  readonly lens: LensRecord;
  readonly stock: StockRecord;
  readonly remarks: readonly Remark[];
}

export interface BenchRow {
  readonly pairingId: number;
  readonly machine: string;
  readonly lens: string;
  readonly stock: string;
  readonly stockColour: string;
  readonly fresh: boolean;
  readonly ladder: readonly LadderRung[] | null;
  readonly next: NextStep | null;
  /** The newest photo that was read of one of its cards. */
  readonly photoId: number | null;
}
