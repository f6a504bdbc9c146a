import type { Piece } from '../../src/bench/piece';
import type { Rect } from '../../src/core/geometry/point';

/** Mean width across x of the hole that a tall narrow box was cut as, by its own pixels: past the cut on either side, to the first that stands. */
export function caliperWidthOfSlot({ depthMm, width, pxPerMm, marginMm, thicknessMm }: Piece, box: Rect): number {
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const through = 0.995 * thicknessMm;
  const reach = Math.round(0.6 * pxPerMm);
  let [sum, lines] = [0, 0];
  for (let y = px(box.y + box.height / 4); y < px(box.y + (3 * box.height) / 4); y++, lines++)
    for (const step of [-1, 1] as const) {
      // From well outside inwards: the first that is through.
      let x = px(step < 0 ? box.x : box.x + box.width) + step * reach;
      while (depthMm[y * width + x]! < through) x -= step;
      const [here, out] = [depthMm[y * width + x]!, depthMm[y * width + x + step]!];
      const edge = x + (step * (here - through)) / (here - out);
      sum += (step * (edge - (box.x + box.width / 2 + marginMm) * pxPerMm + 0.5)) / pxPerMm;
    }
  return sum / lines;
}
