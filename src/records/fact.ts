import type { FactName, FactValues } from '../core/book/fact-values';
import type { FactOrigin, FactOwner } from '../core/book/facts';
import type { Conditions } from '../core/book/conditions';
import type { Pairing } from '../core/card/contract';

/** One immutable version of a fact, with where it came from. */
export interface FactVersionRecord {
  readonly id: number;
  readonly factId: number;
  readonly version: number;
  readonly value: FactValues[FactName];
  readonly sigma: number | null;
  readonly origin: FactOrigin;
  readonly cardId: number | null;
  readonly cellIndex: number | null;
  readonly photoId: number | null;
  readonly readingId: number | null;
  readonly findingId: number | null;
  /** Machine, lens and stock as they were. For facts of one record the others are null. */
  readonly madeFor: Partial<Pairing>;
  readonly note: string;
  readonly createdAt: string;
}

export interface FactRecord {
  readonly id: number;
  readonly name: FactName;
  readonly owner: FactOwner;
  readonly pairingId: number | null;
  readonly machineId: number | null;
  readonly lensId: number | null;
  readonly stockId: number | null;
  readonly at: Conditions;
}
