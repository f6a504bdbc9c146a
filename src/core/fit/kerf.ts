import { inverse, Matrix } from 'ml-matrix';
import type { Gauge, Measured } from '../stats/measured';
import { median, meanAndSpread, robustSigma } from '../stats/robust';
import { studentFactor } from '../stats/student';

/** A part, or the hole it fell out of, along one axis: how it was drawn and what a caliper read of it. */
export interface SizeReadings {
  readonly side: 'part' | 'hole';
  readonly drawnMm: number;
  readonly readingsMm: readonly number[];
}

export interface KerfAlong {
  /** Full width; per side it is half of that. */
  readonly kerf: Measured;
  /** By what share the axis goes further than it is told; null where nothing tells it from the kerf. */
  readonly scale: { readonly mean: number; readonly expanded95: number } | null;
  /** How many times as many readings would halve the doubt; null where no number of them does. */
  readonly halvedBy: number | null;
}

/** Standard deviation of how far an axis goes wrong, as a share: belts, pulleys and screws are seldom better (common practice, from memory). */
export const SCALE_SIGMA = 0.001;
/** Sizes are two where one is larger by so much: only then do they tell kerf and scale apart. */
const TWO_SIZES = 1.5;
/** Readings that all agree scatter still, by less than a caliper shows. */
const LEAST_SCATTER_STEPS = 0.01;

/**
 * Full kerf along one axis from parts and holes and the scale of the axis, fitted together. A part measures drawn (1 + scale) - kerf, a hole
 * drawn (1 + scale) + kerf, each off by what the caliper is off by on that side: outside and inside jaws by errors of their own, rectangular
 * within what its maker states. Scale and jaws enter by what is known of them before (`scaleSigma`, `gauge`), the kerf by nothing. u_A is
 * the part of the readings' scatter, pooled over like pieces; u_B all the rest. One reading of each piece shows no scatter: u_A is 0, which
 * the caller must say. Throws RangeError for no readings.
 *
 * Of a part and its hole alone it is half their difference, whatever was drawn. Parts drawn 25, read 24.86 24.88 24.85 24.87 24.86 by 0.01, on an axis
 * that is true (scaleSigma 0): 0.136 mm, combined uncertainty 0.00586.
 * Source: JCGM 100:2008 (GUM), 4.2, 4.3, annex G.4; what is known before enters generalized least squares as further observations.
 */
export function kerfAlong(pieces: readonly SizeReadings[], gauge: Gauge, scaleSigma = SCALE_SIGMA): KerfAlong {
  const rows = pieces.flatMap(({ side, drawnMm, readingsMm }) =>
    readingsMm.map((reading) => ({ side, drawnMm, offMm: reading - drawnMm })),
  );
  if (rows.length === 0) throw new RangeError('missing readings');
  const { spread, degrees: within } = pooledScatter(rows);
  const noise = Math.max(spread, LEAST_SCATTER_STEPS * gauge.resolution);
  const jaws = Math.hypot(gauge.resolution / Math.sqrt(12), gauge.statedError / Math.sqrt(3));
  // Unknowns: kerf, scale in mm over the largest size, error of the outside jaws, of the inside jaws.
  const largest = Math.max(...rows.map(({ drawnMm }) => drawnMm));
  const priors = [Infinity, Math.max(1e-9, scaleSigma * largest), Math.max(1e-9, jaws), Math.max(1e-9, jaws)];
  const design = new Matrix(
    rows.map(({ side, drawnMm }) => [
      side === 'part' ? -1 : 1,
      drawnMm / largest,
      side === 'part' ? 1 : 0,
      side === 'hole' ? 1 : 0,
    ]),
  );
  const weighted = design.transpose().mul(1 / noise ** 2);
  const information = weighted.mmul(design).add(Matrix.diag(priors.map((sigma) => 1 / sigma ** 2)));
  const covariance = inverse(information);
  const gains = covariance.mmul(weighted);
  const [kerf, scaleMm] = gains.mmul(Matrix.columnVector(rows.map(({ offMm }) => offMm))).to1DArray();
  const combined = Math.sqrt(covariance.get(0, 0));
  const uA = within === 0 || spread === 0 ? 0 : noise * Math.hypot(...gains.getRow(0));
  const uB = Math.sqrt(Math.max(0, combined ** 2 - uA ** 2));
  const degrees = uA === 0 ? Infinity : combined ** 4 / (uA ** 4 / within);
  const room = combined ** 2 / 4 - uB ** 2;
  const sizes = rows.map(({ drawnMm }) => drawnMm);
  const apart = largest >= TWO_SIZES * Math.min(...sizes);
  return {
    kerf: {
      mean: kerf!,
      readings: rows.length,
      uA,
      uB,
      combined,
      degrees,
      expanded95: combined * studentFactor(Math.min(degrees, 1e7), 0.95),
    },
    scale: apart ? { mean: scaleMm! / largest, expanded95: (1.96 * Math.sqrt(covariance.get(1, 1))) / largest } : null,
    halvedBy: uA > 0 && room > 0 ? uA ** 2 / room : null,
  };
}

/** Scatter of readings about the mean of like pieces. */
function pooledScatter(rows: readonly { side: string; drawnMm: number; offMm: number }[]): {
  readonly spread: number;
  readonly degrees: number;
} {
  const like = new Map<string, number[]>();
  for (const { side, drawnMm, offMm } of rows) {
    const key = `${side} ${drawnMm}`;
    like.set(key, [...(like.get(key) ?? []), offMm]);
  }
  let [squares, degrees] = [0, 0];
  for (const values of like.values()) {
    if (values.length < 2) continue;
    squares += (values.length - 1) * meanAndSpread(values).spread ** 2;
    degrees += values.length - 1;
  }
  return { spread: degrees === 0 ? 0 : Math.sqrt(squares / degrees), degrees };
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
