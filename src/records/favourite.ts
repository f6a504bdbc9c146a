import type { BasePlan } from '../core/card/contract';

/** A plan worth burning again, on whatever stock. */
export interface FavouriteRecord {
  readonly id: number;
  readonly name: string;
  readonly kind: string;
  readonly plan: BasePlan;
  readonly createdAt: string;
}
