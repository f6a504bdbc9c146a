import { formatInterval, formatLength, plainNumber, type LikedUnits } from '../../core/quantities/format';
import type { LinesSeen } from '../../core/reading/lines/lines-of-fill';
import type { LineSeen } from '../../core/reading/lines/single-line';

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

/** What a photo shows of a cell's single line, as label and words; that it cannot tell it, and what would, where it does not. */
export function singleLineRows(line: LineSeen | null, liked: LikedUnits): [label: string, words: string][] {
  if (!line) return [['Line', 'not told by this photo: look closely, or take it nearer']];
  const sure = (mm: number, sigmaMm: number): string =>
    // Less than a ten-thousandth of a millimetre is nothing that a photo tells.
    `${formatLength(Math.round(mm * 1e4) / 1e4, liked, 3)} ± ${formatLength(2 * sigmaMm, liked, 1)}`;
  const width =
    line.widthMm === null
      ? 'not told: under 40 photo pixels to a millimetre, take it nearer'
      : sure(line.widthMm, line.widthSigmaMm!);
  return [
    ['Line width', width],
    ...(line.raggedMm === null ? [] : [['Ragged by', sure(line.raggedMm, line.raggedSigmaMm!)] as [string, string]]),
    ['Beside its place', sure(line.besideMm, line.besideSigmaMm)],
  ];
}
