import type { CellReading } from './observations';

/** Whether a burn leaves a mark that is darker or brighter than the bare stock. */
export type MarkDirection = 'darker' | 'brighter';

/** A photo shows a mark where a cell stands off bare stock by this many of its sigmas, and by this many L*. */
const CLEAR_SIGMAS = 3;
const CLEAR_LIGHTNESS = 1.5;
/** And none where it stays within this. */
const BARE_SIGMAS = 1.5;

type Shown = Pick<CellReading, 'deltaLightness' | 'lightnessSigma'>;

/** Whether a photo shows a mark on a cell: true, false, or null where it shows something, but not clear of its own doubt. */
export function showsMark({ deltaLightness, lightnessSigma }: Shown): boolean | null {
  const size = Math.abs(deltaLightness);
  if (size >= CLEAR_SIGMAS * lightnessSigma && size >= CLEAR_LIGHTNESS) return true;
  return size <= Math.max(BARE_SIGMAS * lightnessSigma, CLEAR_LIGHTNESS / 2) ? false : null;
}

/**
 * Chance, over a whole card that nothing marked, that one cell is taken for a mark all the same: each cell's own limit is set so that
 * the card's is this small.
 */
const FALSE_ALARM = 0.01;

/** Standard normal quantile of 1 - p for small p, good to 0.5 %. Source: Abramowitz & Stegun (1964), 26.2.23. */
function upperQuantile(p: number): number {
  const t = Math.sqrt(-2 * Math.log(p));
  return t - (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t ** 3);
}

/**
 * Which way a card's marks go, found from what a photo shows: the side of bare stock on which more stands clear of the noise. Null when
 * nothing does: the strongest of so many cells is then no further from bare stock than noise alone would put one of them.
 */
export function markDirection(cells: readonly Shown[]): MarkDirection | null {
  if (cells.length === 0) return null;
  const sigmas = upperQuantile(FALSE_ALARM / (2 * cells.length));
  let darker = 0;
  let brighter = 0;
  for (const { deltaLightness, lightnessSigma } of cells) {
    const size = Math.abs(deltaLightness);
    if (size < Math.max(sigmas * lightnessSigma, CLEAR_LIGHTNESS)) continue;
    if (deltaLightness < 0) darker += size;
    else brighter += size;
  }
  if (darker === 0 && brighter === 0) return null;
  return darker >= brighter ? 'darker' : 'brighter';
}
