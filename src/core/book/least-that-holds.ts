import { formatLength, type LikedUnits } from '../quantities/format';

/** The least size that holds, all larger ones that were told with it, and the greatest that does not; null where none does, or all do. */
export interface LeastThatHolds {
  readonly fromMm: number | null;
  readonly notMm: number | null;
}

/** "from 1.4 mm, not at 0.9 mm", or as much of that as is known. */
export function leastThatHoldsWords({ fromMm, notMm }: LeastThatHolds, liked: LikedUnits): string {
  const words = (mm: number): string => formatLength(mm, liked, 3);
  return [fromMm === null ? '' : `from ${words(fromMm)}`, notMm === null ? '' : `not at ${words(notMm)}`]
    .filter(Boolean)
    .join(', ');
}
