import type { Rect } from '../../geometry/point';
import type { FineLight } from './fine-light';

/** Which way lines run over the card. */
export type LinesRun = 'horizontal' | 'vertical';

/** Light across lines: shares of bare stock's, each the mean of the pixels that look at about the same place across them. */
export interface Across {
  /** Where, in mm from the area's upper or left edge: the mean place of a bin's pixels. */
  readonly at: Float64Array;
  readonly share: Float64Array;
  /** How many pixels each is the mean of: at least one. */
  readonly count: Float64Array;
}

/** Bins to a photo pixel: finer ones hold too few pixels each, coarser ones blunt what the pixels tell. */
export const BINS_A_PIXEL = 4;

/** The light across lines that run horizontally or vertically through an area, in bins of a quarter of a photo pixel. */
export function lightAcross(fine: FineLight, area: Rect, run: LinesRun): Across {
  const horizontal = run === 'horizontal';
  const perMm = BINS_A_PIXEL * fine.pxPerMm;
  const bins = Math.max(1, Math.ceil((horizontal ? area.height : area.width) * perMm));
  const { count, xMm, yMm, share } = fine.pixelsOf(area);
  const sums = { at: new Float64Array(bins), share: new Float64Array(bins), count: new Float64Array(bins) };
  addToBins(sums, horizontal ? yMm : xMm, share, count, horizontal ? area.y : area.x, perMm);
  return meansOf(sums);
}

/** Adds pixels to the bins that their places fall into: the last one takes what rounding puts beyond it. */
function addToBins(
  { at, share, count }: Across,
  places: Float64Array,
  shares: Float64Array,
  pixels: number,
  from: number,
  perMm: number,
): void {
  const last = at.length - 1;
  for (let k = 0; k < pixels; k++) {
    const place = places[k]! - from;
    const bin = Math.min(last, (place * perMm) | 0);
    at[bin]! += place;
    share[bin]! += shares[k]!;
    count[bin]!++;
  }
}

/** The means of bins whose sums are given; those without a pixel are left out. */
function meansOf(sums: Across): Across {
  const seen = sums.count.reduce((bins, count) => bins + (count > 0 ? 1 : 0), 0);
  const [at, share, count] = [new Float64Array(seen), new Float64Array(seen), new Float64Array(seen)];
  for (let bin = 0, k = 0; bin < sums.count.length; bin++) {
    const pixels = sums.count[bin]!;
    if (pixels === 0) continue;
    at[k] = sums.at[bin]! / pixels;
    share[k] = sums.share[bin]! / pixels;
    count[k++] = pixels;
  }
  return { at, share, count };
}
