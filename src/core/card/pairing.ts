import type { Lens, Machine } from '../machine/machine';
import type { Stock } from '../stock/stock';

/** What a card is burned with and on. */
export interface Pairing {
  readonly machine: Machine;
  readonly lens: Lens;
  readonly stock: Stock;
}
