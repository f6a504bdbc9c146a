import { plainNumber } from '../../core/quantities/format';
import { FORMAT_NAMES } from '../../core/sheet/frame-sheet';
import type { FrameSheetRecord } from '../../records/frame-sheet';

/** What is known of a printed sheet, in a line. */
export function sheetState(sheet: FrameSheetRecord, inUse: boolean): string {
  const { greys, scatter, photos } = sheet;
  if (greys)
    return `greys measured, alike to ${plainNumber(100 * (scatter ?? 0), 2)} %${inUse ? '; in use' : '; a newer one is in use'}`;
  return photos === 0
    ? 'greys still to be measured'
    : 'one photo is here; one more, darker or brighter, measures the greys';
}

/** Its paper and its rule. */
export const printWords = ({ format, ruleMm }: Pick<FrameSheetRecord, 'format' | 'ruleMm'>): string =>
  `${FORMAT_NAMES[format]}, rule ${plainNumber(ruleMm, 4)} mm`;

/** Ids of the sheets that photos are read with: the newest measured one of each format. */
export function inUse(sheets: readonly FrameSheetRecord[]): ReadonlySet<number> {
  const newest = new Map<string, number>();
  for (const { id, format, greys } of sheets) if (greys && id > (newest.get(format) ?? 0)) newest.set(format, id);
  return new Set(newest.values());
}
