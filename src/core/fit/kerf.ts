import { measuredFrom, type Gauge, type Measured } from '../stats/measured';
import { median, robustSigma } from '../stats/robust';

/** A part or hole along one axis: how it was drawn and what a gauge read of it. */
export interface SizeReadings {
  readonly drawnMm: number;
  readonly readingsMm: readonly number[];
}

/**
 * Full kerf along one axis from parts cut on their outside: drawn minus measured, all readings together, with its uncertainty. Per side
 * it is half of that. An error of the axis' own scale shows as kerf: two sizes would tell them apart.
 * Throws RangeError for no readings.
 *
 * Drawn 25, read 24.86 24.88 24.85 24.87 24.86 by 0.01 -> 0.136 mm, combined uncertainty 0.00586.
 */
export function outsideKerf(parts: readonly SizeReadings[], gauge: Gauge): Measured {
  return measuredFrom(
    parts.flatMap(({ drawnMm, readingsMm }) => readingsMm.map((reading) => drawnMm - reading)),
    gauge,
  );
}

/** A reading further than this from the median is named as odd, and kept: three robust sigmas and at least this many steps. */
const ODD_SIGMAS = 3;
const ODD_STEPS = 3;

/** Indexes of readings that stand out from the others. Fewer than four readings never show one. */
export function oddReadings(readingsMm: readonly number[], resolutionMm: number): number[] {
  if (readingsMm.length < 4) return [];
  const middle = median(readingsMm);
  const limit = Math.max(ODD_SIGMAS * robustSigma(readingsMm), ODD_STEPS * resolutionMm);
  return readingsMm.flatMap((reading, index) => (Math.abs(reading - middle) > limit ? [index] : []));
}
