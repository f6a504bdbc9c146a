import { comparisonsOf, type Seen } from '../../core/card/asks';
import type { Pairing } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { BETTER, isSpoiled } from '../../core/card/usual-asks';
import { plainNumber } from '../../core/quantities/format';
import { rankedByPairs, SURE_OF_BEST } from '../../core/stats/bradley-terry';
import { settingWords } from './setting-words';

/** What the operator likes best, of the cells that were compared two at a time. */
export interface LikedBest {
  /** Best first, each with the chance that it is the best of them. */
  readonly ranking: readonly { readonly cellIndex: number; readonly best: number }[];
  readonly comparisons: number;
}

/** A cell that is proposed, and why. */
export interface GridProposal {
  readonly cellIndex: number;
  readonly reason: string;
}

/** The cells that were compared, those that the operator called spoiled left out. */
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

/**
 * The cell that is liked best, where nothing more would be asked about it and the cap lets it: then the eye goes before the photo, whose own choice is
 * told beside it. None elsewhere.
 */
export function proposeLiked(
  liked: LikedBest | null,
  layout: Layout,
  { powerCap }: { readonly powerCap: number },
  byTone: GridProposal | null,
  { machine }: Pairing,
): GridProposal | null {
  const top = liked?.ranking[0];
  const cell = top && layout.cells[top.cellIndex];
  if (!cell || top.best < SURE_OF_BEST || mainBurn(cell).settings.powerFraction > powerCap + 1e-9) return null;
  const beside =
    byTone && byTone.cellIndex !== cell.index
      ? ` By tone and pace it would be ${settingWords(layout.cells[byTone.cellIndex]!, machine.likedUnits)}.`
      : '';
  return {
    cellIndex: cell.index,
    reason: `${settingWords(cell, machine.likedUnits)} is liked best of ${liked.ranking.length}, in ${liked.comparisons === 1 ? 'one comparison' : `${liked.comparisons} comparisons`}: ${plainNumber(100 * top.best, 2)} % sure.${beside}`,
  };
}
