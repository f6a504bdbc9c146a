import type { FactName } from '../core/book/fact-values';
import type { FactOrigin, FactOwner } from '../core/book/facts';
import type { Conditions } from '../core/book/conditions';

/** One line of the settings book, in the units of its machine. */
export interface BookEntry {
  readonly factId: number;
  readonly name: FactName;
  readonly owner: FactOwner;
  readonly title: string;
  readonly machine: string;
  readonly lens: string;
  readonly stock: string;
  readonly batch: string;
  readonly at: Conditions;
  /** The conditions in words: the shade it is, the speed it was measured at. */
  readonly conditions: string;
  readonly origin: FactOrigin;
  readonly version: number;
  /** Its number in words, and how sure it is. */
  readonly value: string;
  readonly sure: string;
  readonly stale: readonly string[];
  readonly keptAt: string;
  readonly note: string;
  readonly photoId: number | null;
}
