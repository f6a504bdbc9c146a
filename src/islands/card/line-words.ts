import { formatInterval, formatLength, plainNumber, type LikedUnits } from '../../core/quantities/format';
import type { Cell } from '../../core/card/layout';
import type { EndsSeen } from '../../core/reading/ends-of-cell';
import type { BarsSeen } from '../../core/reading/lines/bars-of-cell';
import { hasOneLine } from '../../core/reading/lines/lines-of-cell';
import type { LinesSeen } from '../../core/reading/lines/lines-of-fill';
import { offsetBetween, type LineSeen } from '../../core/reading/lines/single-line';
import type { CellReading } from '../../core/reading/observations';

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

/** Less than a ten-thousandth of a millimetre is nothing that a photo tells. */
const sureLength = (mm: number, sigmaMm: number, liked: LikedUnits): string =>
  `${formatLength(Math.round(mm * 1e4) / 1e4, liked, 3)} ± ${formatLength(2 * sigmaMm, liked, 1)}`;

/** What a photo shows of a cell's single line, as label and words; that it cannot tell it, and what would, where it does not. */
export function singleLineRows(line: LineSeen | null, liked: LikedUnits): [label: string, words: string][] {
  if (!line) return [['Line', 'not told by this photo: look closely, or take it nearer']];
  const sure = (mm: number, sigmaMm: number): string => sureLength(mm, sigmaMm, liked);
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

/** What a photo shows of a cell's two bars: how far each way lies beside where it was asked for, and how much further the way back lies. */
export function barRows(bars: BarsSeen | null, liked: LikedUnits): [label: string, words: string][] {
  if (!bars) return [['Bars', 'not told by this photo: look closely, or take it nearer']];
  const { there, back } = bars;
  const apart = offsetBetween(there, back);
  return [
    ['Way back beside way there', sureLength(apart.mm, apart.sigmaMm, liked)],
    ['Way there beside its place', sureLength(there.besideMm, there.besideSigmaMm, liked)],
    ['Way back beside its place', sureLength(back.besideMm, back.besideSigmaMm, liked)],
  ];
}

/** How light the ends of a long fill are against its middle, the left or upper one first. */
export const endsRow = ({ first, last, sigma }: EndsSeen): [label: string, words: string] => [
  'Ends against the middle',
  `${plainNumber(first, 2)} and ${plainNumber(last, 2)} L* ± ${plainNumber(2 * sigma, 1)}`,
];

type LinesAlone = Pick<CellReading, 'line' | 'bars'>;

/** What a photo shows of a cell that is burned as lines or bars alone, of which it tells no tone. */
export const tonelessRows = (
  cell: Cell,
  { line, bars }: LinesAlone,
  liked: LikedUnits,
): [label: string, words: string][] => (hasOneLine(cell) ? singleLineRows(line, liked) : barRows(bars, liked));

/** The number that stands on such a cell, in mm: how wide its line is, or how far its bars lie from each other; undefined where that is not told. */
export function tonelessNumber(cell: Cell, { line, bars }: LinesAlone): string | undefined {
  if (hasOneLine(cell)) return line?.widthMm?.toFixed(3);
  return bars ? offsetBetween(bars.there, bars.back).mm.toFixed(3) : undefined;
}
