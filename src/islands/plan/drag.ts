import { AXIS_COUNTS } from '../../core/card/axis';
import type { Layout } from '../../core/card/layout';

/** Cards are dragged in steps of half a millimetre and stay on the sheet; one that is larger than the sheet lies at its corner. */
export function draggedPlace(
  from: { readonly xMm: number; readonly yMm: number },
  by: { readonly dxMm: number; readonly dyMm: number },
  card: { readonly widthMm: number; readonly heightMm: number },
  sheet: { readonly sheetWidthMm: number; readonly sheetDepthMm: number },
): { xMm: number; yMm: number } {
  const snap = (mm: number, most: number): number => Math.min(Math.max(0, Math.round(mm * 2) / 2), Math.max(0, most));
  return {
    xMm: snap(from.xMm + by.dxMm, sheet.sheetWidthMm - card.widthMm),
    yMm: snap(from.yMm + by.dyMm, sheet.sheetDepthMm - card.heightMm),
  };
}

/** How many columns or rows a dragged edge asks for: one more or less for each cell's worth of way, as the card is drawn now. */
export function draggedCount(
  { cells, widthMm, heightMm }: Pick<Layout, 'cells' | 'widthMm' | 'heightMm'>,
  along: 'columns' | 'rows',
  count: number,
  byMm: number,
  most: number,
): number {
  const first = cells[0]!.box;
  const away = cells.map(({ box }) => (along === 'columns' ? box.x - first.x : box.y - first.y));
  const pitch = Math.min(...away.filter((mm) => mm > 1e-6), along === 'columns' ? widthMm : heightMm);
  return Math.min(most, Math.max(AXIS_COUNTS.least, Math.round(count + byMm / pitch)));
}
