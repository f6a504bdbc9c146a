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
  const from = horizontal ? area.y : area.x;
  const perMm = BINS_A_PIXEL * fine.pxPerMm;
  const bins = Math.max(1, Math.ceil((horizontal ? area.height : area.width) * perMm));
  const at = new Float64Array(bins);
  const share = new Float64Array(bins);
  const count = new Float64Array(bins);
  fine.each(area, (x, y, light) => {
    const place = (horizontal ? y : x) - from;
    const bin = Math.min(bins - 1, Math.floor(place * perMm));
    at[bin]! += place;
    share[bin]! += light;
    count[bin]!++;
  });
  const seen = [...count.keys()].filter((bin) => count[bin]! > 0);
  return {
    at: Float64Array.from(seen, (bin) => at[bin]! / count[bin]!),
    share: Float64Array.from(seen, (bin) => share[bin]! / count[bin]!),
    count: Float64Array.from(seen, (bin) => count[bin]!),
  };
}
