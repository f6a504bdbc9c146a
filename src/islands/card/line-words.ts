import { formatInterval, formatLength, plainNumber, type LikedUnits } from '../../core/quantities/format';
import type { LinesSeen } from '../../core/reading/lines/lines-of-fill';

/** A ripple within so many of its sigmas of none is not one that shows. */
const SHOWS = 2;

/** What a photo shows of a cell's lines, as label and words; that it cannot tell them, and what would, where it does not. */
export function lineRows(lines: LinesSeen | null, liked: LikedUnits): [label: string, words: string][] {
  if (!lines) return [['Lines', 'not told by this photo: look closely, or take it nearer']];
  const percent = (share: number): string => `${plainNumber(100 * share, 2)} %`;
  const showing = (): string => {
    const { visibility, visibilitySigma } = lines;
    if (visibility <= SHOWS * visibilitySigma) return `not: under ${percent(visibility + 2 * visibilitySigma)}`;
    // Narrow gaps of bare stock between dark lines ripple by more than their mean.
    return visibility > 1 ? 'in full' : `by ${percent(visibility)} ± ${percent(2 * visibilitySigma)}`;
  };
  const rows: [string, string][] = [['Lines show', showing()]];
  if (lines.pitchMm !== null) rows.push(['Line pitch', formatInterval(lines.pitchMm, liked)]);
  if (lines.gapMm !== null)
    rows.push(['Gap', `${formatLength(lines.gapMm, liked, 2)} ± ${formatLength(2 * lines.gapSigmaMm!, liked, 1)}`]);
  return rows;
}
