import type { BurnScope } from '../core/card/path';
import type { BurnRecord } from '../records/burn';

/** The part of a card that a burn does. The frame comes with the first burn of a card that is burned cell by cell. */
export function scopeAt(cells: readonly number[] | null, earlier: readonly BurnRecord[]): BurnScope | null {
  if (cells === null) return null;
  const begun = (burn: BurnRecord): boolean => burn.place === 'own-machine' || burn.linesDone > 0;
  return { cells, frame: !earlier.some(begun) };
}
