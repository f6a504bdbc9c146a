import { formatDuration } from '../../core/quantities/format';
import type { BurnProgress, BurnRecord } from '../../records/burn';

const ENDINGS: Readonly<Partial<Record<BurnRecord['status'], string>>> = {
  done: 'Burned to the end',
  stopped: 'Stopped by hand',
  interrupted: 'Interrupted: the server ended first',
};

type Ended = Pick<BurnRecord, 'place' | 'status' | 'fault' | 'actualS' | 'estimatedS'>;

/** How a burn ended, what it took and what was estimated. */
export function endWords({ place, status, fault, actualS, estimatedS }: Ended): string {
  const estimated = `estimated ${formatDuration(estimatedS)}.`;
  if (place === 'bench') {
    const how = fault === null ? (ENDINGS[status] ?? '') : `Broken off by the bench, ${fault}`;
    return `${how}: ${formatDuration(actualS ?? 0)}, ${estimated}`;
  }
  const how = status === 'done' ? 'Burned on your own machine' : 'Stopped by hand on your own machine';
  return actualS === null ? `${how}, not timed; ${estimated}` : `${how}: ${formatDuration(actualS)}, ${estimated}`;
}

/** What burns just now. */
export function partWords({ part, cells }: Pick<BurnProgress, 'part' | 'cells'>): string {
  if (cells.length === 0) return part || '…';
  const numbers = cells.map((index) => index + 1);
  return numbers.length === 1 ? `cell ${numbers[0]}` : `cells ${numbers[0]} to ${numbers.at(-1)}, one row`;
}

/** Share of a burn that is over, 0 to 1; of a running one by what the bench says itself. */
export function shareDone(
  { linesTotal, linesDone }: Pick<BurnRecord, 'linesTotal' | 'linesDone'>,
  progress: Pick<BurnProgress, 'linesDone'> | null,
): number {
  return linesTotal > 0 ? (progress?.linesDone ?? linesDone) / linesTotal : 0;
}
