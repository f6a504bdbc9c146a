import type { DotLaw } from '../motion/dot-length';
import { linearFit } from '../stats/linear-fit';
import { ONE_SIGMA, studentFactor } from '../stats/student';

/** How much longer than drawn a dot came out, the speed it was burned at, and how much of bare stock's light its middle takes. */
export interface DotSeen {
  readonly speedMmPerS: number;
  readonly longerMm: number;
  readonly sigmaMm: number;
  readonly depth: number;
}

export interface DotFit extends DotLaw {
  readonly slowOnSigmaS: number;
  /** How much longer than drawn a dot as deep as the fastest ones would come out at rest: what the mark of the beam adds. */
  readonly standingMm: number;
  readonly standingSigmaMm: number;
  /** Dots scatter about the law by so many of their own sigmas. */
  readonly misfit: number;
  /** The dots as they would be as deep as the fastest ones. */
  readonly atOneDepth: readonly DotSeen[];
  /** Standard uncertainty of how much longer a dot comes out at a speed. */
  sigmaAt(speedMmPerS: number): number;
}

/**
 * How dots get shorter with speed. A dot that got more energy is deeper, and longer for that; what a machine gives at a command is not known so well
 * that dots of several speeds could be taken to have got the same. So dots of two energies at each speed tell how length goes with depth, and
 * those of one depth how it goes with speed: weighted least squares of a constant, speed and depth, with Student's factor. Null where that does not
 * tell them apart: fewer than four dots, one speed, or depth that goes with speed alone. Throws RangeError for a sigma of 0 or less. Source of
 * the method: analysis of covariance, N. R. Draper, H. Smith, Applied Regression Analysis (1998), ch. 14.
 *
 * 0.05 mm longer at 100 mm/s, 0.04 at 300, and 0.01 more for a tenth of depth at each: on 0.05 ms later than off.
 */
export function dotFit(dots: readonly DotSeen[]): DotFit | null {
  const toMmPerS = Math.max(...dots.map(({ speedMmPerS }) => speedMmPerS));
  const fastest = dots.filter(({ speedMmPerS }) => speedMmPerS === toMmPerS);
  const depth = fastest.reduce((sum, dot) => sum + dot.depth, 0) / fastest.length;
  const law = linearFit(
    dots.map((dot) => ({ terms: [1, dot.speedMmPerS, dot.depth - depth], y: dot.longerMm, sigma: dot.sigmaMm })),
  );
  if (!law || law.degrees < 1) return null;
  const [standingMm, slope, byDepth] = law.values as [number, number, number];
  const wider = studentFactor(law.degrees, ONE_SIGMA);
  return {
    slowOnS: -slope,
    slowOnSigmaS: wider * law.sigmaOf([0, 1, 0]),
    standingMm,
    standingSigmaMm: wider * law.sigmaOf([1, 0, 0]),
    fromMmPerS: Math.min(...dots.map(({ speedMmPerS }) => speedMmPerS)),
    toMmPerS,
    misfit: law.misfit,
    atOneDepth: dots.map((dot) => ({ ...dot, longerMm: dot.longerMm - byDepth * (dot.depth - depth), depth })),
    sigmaAt: (speedMmPerS) => wider * law.sigmaOf([1, speedMmPerS, 0]),
  };
}
