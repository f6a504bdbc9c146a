import { plainNumber } from '../quantities/format';
import { parseLength } from '../quantities/parse';

/**
 * Thickness readings in mm as typed: apart by semicolons, line breaks, blanks, or commas with a blank behind them (a bare comma is a
 * decimal point), each with its own unit if wanted. Throws QuantityError for a part that is no length.
 *
 * "3.08; 3,12 0.1 in" is [3.08, 3.12, 2.54].
 */
export function readThicknessReadings(text: string): number[] {
  return text
    .split(/[;\n]|,\s|\s+(?=[\d.])/)
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => parseLength(part));
}

/** Readings as they are typed, so that `readThicknessReadings` gives them back. */
export const thicknessReadingsText = (readingsMm: readonly number[]): string =>
  readingsMm.map((mm) => `${plainNumber(mm, 5)} mm`).join('; ');
