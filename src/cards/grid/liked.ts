import type { Pairing } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { likedWords, surelyLiked, type LikedBest } from '../../core/card/liked';
import { settingWords } from './setting-words';

/** A cell that is proposed, and why. */
export interface GridProposal {
  readonly cellIndex: number;
  readonly reason: string;
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
  const top = surelyLiked(liked);
  const cell = top && layout.cells[top.cellIndex];
  if (!liked || !cell || mainBurn(cell).settings.powerFraction > powerCap + 1e-9) return null;
  const beside =
    byTone && byTone.cellIndex !== cell.index
      ? ` By tone and pace it would be ${settingWords(layout.cells[byTone.cellIndex]!, machine.likedUnits)}.`
      : '';
  return {
    cellIndex: cell.index,
    reason: `${settingWords(cell, machine.likedUnits)} is ${likedWords(liked, 'cells')}.${beside}`,
  };
}
