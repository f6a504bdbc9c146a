import { normalSum } from '../stats/normal';
import { ONE_SIGMA, studentFactor } from '../stats/student';
import { weightedLine } from '../stats/weighted-line';

/** How light a patch came out that was burned with a multiple of a setting's power. */
export interface PatchAtTimes {
  readonly times: number;
  readonly lightness: number;
  readonly sigma: number;
}

/** What a setting must give. */
export interface WantedTone {
  readonly lightness: number;
  readonly sigma: number;
}

export type Verdict = 'holds' | 'shift' | 'again';

export interface SheetVerdict {
  readonly verdict: Verdict;
  /** Chances of the three, which sum to 1. */
  readonly chances: Readonly<Record<Verdict, number>>;
  /** L* of the setting as it stands, by the line through all patches. */
  readonly lightness: number;
  readonly sigma: number;
  /** What brings the wanted tone back, as a multiple of the power, and the standard uncertainty of its logarithm; null where tone does not follow power. */
  readonly times: number | null;
  readonly timesSigma: number | null;
  readonly line: { readonly at: (times: number) => number };
}

/** L* that two tones must differ by to be two tones to the eye, side by side. */
export const HOLDS_L = 2;
const LEAST_PATCHES = 4;
const LEAST_POWERS = 3;
/** A slope less than so many of its own sigmas from none says nothing of how much power to add. */
const CLEAR_SLOPE = 2;

/**
 * Whether a setting still gives its tone, by a straight line of L* over the logarithm of power through patches around it: it holds within 2 L*; a shift
 * of power within what was tried brings it back; or neither, and a grid has to be burned again. Uncertainties of line and wanted tone are carried
 * through; patches that scatter more than their own sigmas make all less sure, by Student's factor too. Null for fewer than four patches, or three powers.
 * Throws RangeError for a multiple or a sigma of 0 or less.
 */
export function sheetVerdict(patches: readonly PatchAtTimes[], wanted: WantedTone): SheetVerdict | null {
  for (const { times, sigma } of patches)
    if (!(times > 0 && sigma > 0)) throw new RangeError(`invalid patch: ${times} times, sigma ${sigma}`);
  const tried = [...new Set(patches.map(({ times }) => times))].map(Math.log);
  const line = weightedLine(
    patches.map(({ times, lightness, sigma }) => ({ x: Math.log(times), y: lightness, sigma })),
  );
  if (!line || patches.length < LEAST_PATCHES || tried.length < LEAST_POWERS) return null;
  // What so few patches scatter by is itself unsure.
  const wider = Math.max(1, line.misfit * studentFactor(line.degrees, ONE_SIGMA));
  const at = (log: number): number => line.middleY + line.slope * (log - line.middleX);
  const sigma = wider * Math.hypot(line.middleSigma, line.slopeSigma * line.middleX);
  const off = at(0) - wanted.lightness;
  const offSigma = Math.hypot(sigma, wanted.sigma);
  const between = (low: number, high: number, mean: number, spread: number): number =>
    normalSum((high - mean) / spread) - normalSum((low - mean) / spread);
  const holds = between(-HOLDS_L, HOLDS_L, off, offSigma);
  const slopeSigma = wider * line.slopeSigma;
  const follows = Math.abs(line.slope) > CLEAR_SLOPE * slopeSigma;
  const log = -off / line.slope;
  const logSigma = Math.hypot(offSigma / line.slope, (off * slopeSigma) / line.slope ** 2);
  const within = follows ? between(Math.min(...tried), Math.max(...tried), log, logSigma) : 0;
  const shift = Math.max(0, within - holds);
  const chances = { holds, shift, again: Math.max(0, 1 - holds - shift) };
  const verdict = (['holds', 'shift', 'again'] as const).reduce((best, one) =>
    chances[one] > chances[best] ? one : best,
  );
  return {
    verdict,
    chances,
    lightness: at(0),
    sigma,
    times: follows ? Math.exp(log) : null,
    timesSigma: follows ? logSigma : null,
    line: { at: (times) => at(Math.log(times)) },
  };
}
