import { grown, rectInside, rectsOverlap, type Rect } from '../geometry/point';

/** Clear stock kept between cards and from the sheet's edge. */
export const CARD_CLEARANCE_MM = 2;

/**
 * The first free place for a card on a sheet, upper left corner in sheet millimetres (x right, y down), reading order from
 * the upper left: inside the sheet and clear of the areas already used. Null when no place is left.
 * Candidates are the sheet's corner and the corners that used areas leave, so a place is found whenever one flush with them exists.
 */
export function freePlace(
  sheet: { readonly widthMm: number; readonly heightMm: number },
  used: readonly Rect[],
  card: { readonly widthMm: number; readonly heightMm: number },
  clearanceMm = CARD_CLEARANCE_MM,
): { x: number; y: number } | null {
  const xs = [clearanceMm, ...used.map((rect) => rect.x + rect.width + clearanceMm)];
  const ys = [clearanceMm, ...used.map((rect) => rect.y + rect.height + clearanceMm)];
  xs.sort((a, b) => a - b);
  ys.sort((a, b) => a - b);
  for (const y of ys) {
    for (const x of xs) {
      if (placeIsFree(sheet, used, { x, y, width: card.widthMm, height: card.heightMm }, clearanceMm)) return { x, y };
    }
  }
  return null;
}

/** Whether a card lies on the sheet and keeps clear of used areas. The clearance to the edge may shrink to nothing. */
export function placeIsFree(
  sheet: { readonly widthMm: number; readonly heightMm: number },
  used: readonly Rect[],
  card: Rect,
  clearanceMm = 0,
): boolean {
  const area: Rect = { x: 0, y: 0, width: sheet.widthMm, height: sheet.heightMm };
  if (!rectInside(card, area)) return false;
  return used.every((rect) => !rectsOverlap(grown(rect, clearanceMm - 1e-6), card));
}
