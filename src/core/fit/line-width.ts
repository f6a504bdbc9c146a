import { ONE_SIGMA, studentFactor } from '../stats/student';
import { weightedLine } from '../stats/weighted-line';

/**
 * Peak fluence in J/mm² in the middle of a line that gets `joulesPerMm` from a Gaussian beam of a 1/e² width: the beam's own law, summed along the
 * line. 0.1 J/mm from a spot of 0.1 mm: 0.1 / (0.05 · √(π/2)) = 1.596.
 */
export const peakOfLine = (joulesPerMm: number, spotMm: number): number =>
  joulesPerMm / ((spotMm / 2) * Math.sqrt(Math.PI / 2));

/** A line's width at one level of darkness, with how sure it is, and the power it was burned at. */
export interface WidthAtPower {
  readonly powerW: number;
  readonly widthMm: number;
  readonly sigmaMm: number;
}

export interface LineLaw {
  /** 1/e² width of the beam where it burned, with its standard uncertainty. */
  readonly spotMm: number;
  readonly spotSigmaMm: number;
  /** Power of which only the very middle of a line gets as dark as the level that widths were taken at; with its 95 % range. */
  readonly thresholdW: number;
  readonly thresholdLowW: number;
  readonly thresholdHighW: number;
  /** Widths scatter about the law by so many of their own sigmas. */
  readonly misfit: number;
}

const LEAST_POINTS = 4;

/**
 * Beam and threshold by the widths of lines burned at rising power: the width at a level of darkness is where the fluence of a Gaussian beam falls
 * to the one that level takes, so that D² = (d² / 2) ln(P / P0) for a beam of 1/e² width d. A straight line through D² over ln P, weighted by
 * the widths' own sigmas, which grow by the scatter where that is more, and by Student's factor. Null for fewer than four widths, at fewer than
 * three powers, or that do not rise with power. Throws RangeError for a sigma or power of 0 or less.
 * Source: J. M. Liu, Optics Letters 7 (1982) 196. A beam of 0.12 mm and a threshold of 2 W: 4 W marks 0.12 · √(½ ln 2) = 0.0706 mm.
 */
export function lineLaw(lines: readonly WidthAtPower[]): LineLaw | null {
  for (const { powerW, sigmaMm } of lines)
    if (!(powerW > 0 && sigmaMm > 0)) throw new RangeError(`invalid line: ${powerW} W, sigma ${sigmaMm} mm`);
  if (lines.length < LEAST_POINTS || new Set(lines.map(({ powerW }) => powerW)).size < 3) return null;
  const line = weightedLine(
    lines.map(({ powerW, widthMm, sigmaMm }) => ({
      x: Math.log(powerW),
      y: widthMm ** 2,
      // d D² = 2 D dD; a line of no width is not sure to nothing.
      sigma: 2 * Math.max(widthMm, sigmaMm) * sigmaMm,
    })),
  )!;
  const { middleX, middleY, slope, misfit, degrees } = line;
  if (!(slope > 0)) return null;
  const scatter = Math.max(1, misfit);
  const slopeSigma = scatter * line.slopeSigma;
  const spotMm = Math.sqrt(2 * slope);
  // ln P0 is where the line falls to none.
  const back = middleY / slope;
  const logSigma = Math.hypot((scatter * line.middleSigma) / slope, (back * slopeSigma) / slope);
  const reach = studentFactor(degrees, 0.95) * logSigma;
  return {
    spotMm,
    spotSigmaMm: (spotMm * slopeSigma * studentFactor(degrees, ONE_SIGMA)) / (2 * slope),
    thresholdW: Math.exp(middleX - back),
    thresholdLowW: Math.exp(middleX - back - reach),
    thresholdHighW: Math.exp(middleX - back + reach),
    misfit,
  };
}

/** Width that a law foretells at a power; 0 below its threshold. */
export const widthBy = ({ spotMm, thresholdW }: Pick<LineLaw, 'spotMm' | 'thresholdW'>, powerW: number): number =>
  powerW <= thresholdW ? 0 : spotMm * Math.sqrt(Math.log(powerW / thresholdW) / 2);
