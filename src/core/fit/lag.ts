import type { LagLaw } from '../motion/lag';
import { ONE_SIGMA, studentFactor } from '../stats/student';
import { weightedLine } from '../stats/weighted-line';

/** The scan offset that one pair of bars asks for, and the speed it was burned at. */
export interface OffsetAtSpeed {
  readonly speedMmPerS: number;
  readonly offsetMm: number;
  readonly sigmaMm: number;
}

export interface LagFit extends LagLaw {
  /** Standard uncertainties, by the scatter about the line where that is more than the pairs' own. */
  readonly lagSigmaS: number;
  readonly standingSigmaMm: number;
  /** The speed where it is surest, and how sure its scan offset is there. */
  readonly surestMmPerS: number;
  readonly surestSigmaMm: number;
  /** Pairs scatter about the line by so many of their own sigmas. */
  readonly misfit: number;
}

const LEAST_PAIRS = 3;

/**
 * Lag and standing part by the scan offsets that pairs of bars ask for at several speeds: a straight line over speed, weighted by their own sigmas,
 * which grow by the scatter where that is more, and by Student's factor. Null for fewer than three pairs, or pairs of one speed. Throws
 * RangeError for a sigma of 0 or less. -0.01 mm at 50 mm/s, -0.02 at 100 and -0.04 at 200: 0.1 ms late, and nothing that stands.
 */
export function lagFit(pairs: readonly OffsetAtSpeed[]): LagFit | null {
  if (pairs.length < LEAST_PAIRS) return null;
  const line = weightedLine(
    pairs.map(({ speedMmPerS, offsetMm, sigmaMm }) => ({ x: speedMmPerS, y: offsetMm, sigma: sigmaMm })),
  );
  if (!line) return null;
  const { middleX, middleY, slope, misfit, degrees } = line;
  const wider = Math.max(1, misfit) * studentFactor(degrees, ONE_SIGMA);
  const speeds = pairs.map(({ speedMmPerS }) => speedMmPerS);
  const fit = {
    lagS: -slope / 2,
    lagSigmaS: (wider * line.slopeSigma) / 2,
    standingMm: middleY - slope * middleX,
    fromMmPerS: Math.min(...speeds),
    toMmPerS: Math.max(...speeds),
    surestMmPerS: middleX,
    surestSigmaMm: wider * line.middleSigma,
    misfit,
  };
  return { ...fit, standingSigmaMm: offsetSigmaAt(fit, 0) };
}

/** Standard uncertainty of the scan offset that a fit foretells at a speed. */
export const offsetSigmaAt = (
  { lagSigmaS, surestMmPerS, surestSigmaMm }: Pick<LagFit, 'lagSigmaS' | 'surestMmPerS' | 'surestSigmaMm'>,
  speedMmPerS: number,
): number => Math.hypot(surestSigmaMm, 2 * lagSigmaS * (speedMmPerS - surestMmPerS));
