import type { Stock } from '../core/stock/stock';

export type StockInput = Stock & { readonly acquiredOn: string | null };

export interface StockRecord extends Stock {
  readonly id: number;
  readonly acquiredOn: string | null;
  readonly retired: boolean;
}
