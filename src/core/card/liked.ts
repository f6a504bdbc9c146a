import { rankedByPairs, SURE_OF_BEST } from '../stats/bradley-terry';
import { comparisonsOf, type Seen } from './asks';
import { plainNumber } from '../quantities/format';
import type { Layout } from './layout';
import { BETTER, isSpoiled } from './usual-asks';

/** What the operator likes best, of the cells that were compared two at a time. */
export interface LikedBest {
  /** Best first, each with the chance that it is the best of them. */
  readonly ranking: readonly { readonly cellIndex: number; readonly best: number }[];
  readonly comparisons: number;
}

/** The cells that were compared, those that the operator called spoiled left out; null where none was. */
export function likedBest(layout: Layout, seen: Seen): LikedBest | null {
  const pairs = comparisonsOf(seen, BETTER.field).filter(({ better, worse }) =>
    [better, worse].every((index) => layout.cells[index] && !isSpoiled(seen, index)),
  );
  if (pairs.length === 0) return null;
  const cells = [...new Set(pairs.flatMap(({ better, worse }) => [better, worse]))].sort((a, b) => a - b);
  const ranking = rankedByPairs(
    cells.length,
    pairs.map(({ better, worse, equal }) => ({ better: cells.indexOf(better), worse: cells.indexOf(worse), equal })),
  ).map(({ index, best }) => ({ cellIndex: cells[index]!, best }));
  return { ranking, comparisons: pairs.length };
}

/** The cell that is liked best so surely that nothing more would be asked about it; null where none is. */
export function surelyLiked(liked: LikedBest | null): { readonly cellIndex: number; readonly best: number } | null {
  const top = liked?.ranking[0];
  return top && top.best >= SURE_OF_BEST ? top : null;
}

/** "liked best of 5 strips, in 6 comparisons: 85 % sure" */
export const likedWords = ({ ranking, comparisons }: LikedBest, are: string): string =>
  `liked best of ${ranking.length} ${are}, ${inComparisons(comparisons)}: ${plainNumber(100 * ranking[0]!.best, 2)} % sure`;

/** "in one comparison", "in 5 comparisons" */
export const inComparisons = (count: number): string => (count === 1 ? 'in one comparison' : `in ${count} comparisons`);
