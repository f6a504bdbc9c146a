import { Matrix, solve, inverse } from 'ml-matrix';
import { meanAndSpread, median } from '../stats/robust';
import { studentFactor } from '../stats/student';
import type { Leg } from './corners';
import { AS_RECORDED, wayTimeS, type HeadMotion, type MotionShares } from './head-motion';
import { UNTIMED, type Pace } from './pace';

/** Ways of a burn that are alike: how often, their legs, and how fast; null for mere travel. */
export interface AlikeWays {
  readonly count: number;
  readonly legs: readonly Leg[];
  readonly speedMmPerS: number | null;
}

/** What the head does in a burn, as far as its time goes. */
export interface BurnMotion {
  readonly ways: readonly AlikeWays[];
  /** Moves of its program, one to a line: what a controller may add its own time to. */
  readonly lines: number;
}

/** A burn that was timed on the machine itself. */
export interface TimedBurn extends BurnMotion {
  readonly tookS: number;
}

export const LEAST_LOGS = { scale: 3, motion: 5 } as const;
/** Fastest over slowest mean speed, and longest over shortest line, from which burns say something of acceleration and overhead. */
const DIFFERENT = 1.5;
/** A log that lies further than this factor from the median of all is a clock that was forgotten, not a slow machine. */
const STRANGE = 2;
/** Spread between like burns that no number of logs makes smaller, and what a finger on a stopwatch adds. */
const LEAST_SPREAD = 0.02;
const FINGER_S = 1;

/** Priors of the fit: logarithm of acceleration and travel speed as shares of the record, seconds for each line (from memory). */
const PRIORS = [
  { mean: 0, sigma: 0.4 },
  { mean: 0, sigma: 0.3 },
  { mean: 0.001, sigma: 0.003 },
] as const;

/** Time in s of a burn's motion on a head. */
export function motionTimeS({ ways, lines }: BurnMotion, head: HeadMotion, shares: MotionShares = AS_RECORDED): number {
  const travelled = ways.reduce(
    (sum, { count, legs, speedMmPerS }) => sum + count * wayTimeS(legs, speedMmPerS, head, shares),
    0,
  );
  return travelled + lines * shares.lineOverheadS;
}

/**
 * What timed burns say of a machine's pace. Fewer than three say nothing yet. From three: one factor, the geometric mean of stopwatch
 * over estimate, with the spread that another burn would have. From five whose lines differ in speed and in length by half as much
 * again: acceleration, travel speed and time for each line by least squares, held near the record by priors, so that what the logs do not
 * tell stays as it was; a galvo head has no acceleration to be found and keeps the factor. Logs further than twice from the median are
 * left out and counted. Deterministic.
 *
 * Three burns estimated at 60, 100 and 200 s that took 66, 110 and 220: scale 1.1.
 */
export function paceFrom(timed: readonly TimedBurn[], head: HeadMotion): Pace {
  const usable = timed.filter((burn) => burn.tookS > 0 && motionTimeS(burn, head) > 0);
  const ratioOf = (burn: TimedBurn): number => burn.tookS / motionTimeS(burn, head);
  const middle = usable.length > 0 ? median(usable.map(ratioOf)) : 1;
  const kept = usable.filter((burn) => Math.abs(Math.log(ratioOf(burn) / middle)) <= Math.log(STRANGE));
  const leftOut = usable.length - kept.length;
  if (kept.length < LEAST_LOGS.scale) return { ...UNTIMED, logs: kept.length, leftOut };
  const scaled = scaleFrom(kept.map(ratioOf), leftOut);
  if (head.head === 'galvo' || kept.length < LEAST_LOGS.motion || !differ(kept)) return scaled;
  return motionFrom(kept, head, leftOut) ?? scaled;
}

function scaleFrom(ratios: readonly number[], leftOut: number): Pace {
  const logs = ratios.map(Math.log);
  const { mean, spread: among } = meanAndSpread(logs);
  // Three logs that agree by chance know no better than any two burns on one machine.
  const spread = Math.max(LEAST_SPREAD, among);
  return {
    by: 'scale',
    scale: Math.exp(mean),
    shares: AS_RECORDED,
    logs: ratios.length,
    leftOut,
    within95: studentFactor(ratios.length - 1, 0.95) * spread * Math.sqrt(1 + 1 / ratios.length),
  };
}

const lengthOf = ({ legs }: AlikeWays): number => legs.reduce((sum, leg) => sum + Math.hypot(...leg), 0);

/** Mean speed of a burn's marks, and mean length of its lines. */
function characterOf({ ways }: BurnMotion): { speed: number; length: number } {
  const marks = ways.filter((way) => way.speedMmPerS !== null);
  const total = marks.reduce((sum, way) => sum + way.count * lengthOf(way), 0);
  const seconds = marks.reduce((sum, way) => sum + (way.count * lengthOf(way)) / way.speedMmPerS!, 0);
  const count = marks.reduce((sum, way) => sum + way.count, 0);
  return { speed: total / seconds, length: total / count };
}

function differ(timed: readonly TimedBurn[]): boolean {
  const all = timed.map(characterOf);
  const range = (of: 'speed' | 'length'): number =>
    Math.max(...all.map((one) => one[of])) / Math.min(...all.map((one) => one[of]));
  return range('speed') >= DIFFERENT && range('length') >= DIFFERENT;
}

const sharesOf = ([acceleration, travel, overhead]: readonly number[]): MotionShares => ({
  acceleration: Math.exp(acceleration!),
  travelSpeed: Math.exp(travel!),
  lineOverheadS: Math.max(0, overhead!),
});

const MOST_TURNS = 40;

/** Gauss-Newton on relative residuals with priors, steps halved until the sum falls. Null when it does not come to rest. */
function motionFrom(timed: readonly TimedBurn[], head: HeadMotion, leftOut: number): Pace | null {
  const sigmas = timed.map(({ tookS }) => Math.hypot(LEAST_SPREAD * tookS, FINGER_S));
  const residuals = (at: readonly number[]): number[] => [
    ...timed.map((burn, index) => (burn.tookS - motionTimeS(burn, head, sharesOf(at))) / sigmas[index]!),
    ...PRIORS.map(({ mean, sigma }, index) => (mean - at[index]!) / sigma),
  ];
  const square = (values: readonly number[]): number => values.reduce((sum, value) => sum + value * value, 0);
  const slopes = (at: readonly number[], now: readonly number[]): number[][] =>
    PRIORS.map(({ sigma }, index) => {
      const step = sigma * 1e-4;
      const moved = at.map((value, place) => (place === index ? value + step : value));
      return residuals(moved).map((value, row) => (value - now[row]!) / step);
    });
  let at: number[] = PRIORS.map(({ mean }) => mean);
  let now = residuals(at);
  let rests = false;
  for (let turn = 0; turn < MOST_TURNS && !rests; turn++) {
    const jacobian = new Matrix(slopes(at, now)).transpose();
    const normal = jacobian.transpose().mmul(jacobian);
    const step = solve(normal, jacobian.transpose().mmul(Matrix.columnVector(now))).to1DArray();
    let share = 1;
    const next = (): number[] =>
      at.map((value, index) => Math.max(index === 2 ? 0 : -Infinity, value - share * step[index]!));
    while (share > 1e-6 && square(residuals(next())) > square(now)) share /= 2;
    const gain = square(now) - square(residuals(next()));
    at = next();
    now = residuals(at);
    rests = gain < 1e-9 * (1 + square(now));
  }
  if (!rests) return null;
  const jacobian = new Matrix(slopes(at, now)).transpose();
  const covariance = inverse(jacobian.transpose().mmul(jacobian));
  // Logs that scatter more than they should make everything less sure, never surer.
  const scatter = Math.max(1, Math.sqrt(square(now) / timed.length));
  const relative = timed.map((burn, row) => {
    const slope = Matrix.rowVector(jacobian.getRow(row));
    const known = slope.mmul(covariance).mmul(slope.transpose()).get(0, 0) * sigmas[row]! ** 2;
    return (Math.sqrt(known + sigmas[row]! ** 2) * scatter) / burn.tookS;
  });
  return {
    by: 'motion',
    scale: 1,
    shares: sharesOf(at),
    logs: timed.length,
    leftOut,
    within95: studentFactor(timed.length - 1, 0.95) * median(relative),
  };
}
