import { meanAndSpread } from './robust';

/** Yes and no answers along one axis. */
export interface YesNo {
  readonly x: number;
  readonly yes: boolean;
}

export interface FirthFit {
  readonly intercept: number;
  readonly slope: number;
  readonly logLikelihood: number;
  readonly stopped: 'converged' | 'too many turns';
}

const MOST_TURNS = 200;

interface Sums {
  /** Information matrix [[a, b], [b, d]], and its determinant. */
  readonly a: number;
  readonly b: number;
  readonly d: number;
  readonly determinant: number;
  readonly logLikelihood: number;
}

function sums(data: readonly YesNo[], intercept: number, slope: number): Sums {
  let a = 0;
  let b = 0;
  let d = 0;
  let log = 0;
  for (const { x, yes } of data) {
    const eta = intercept + slope * x;
    const p = 1 / (1 + Math.exp(-eta));
    const w = p * (1 - p);
    a += w;
    b += w * x;
    d += w * x * x;
    // log(1 + e^eta) without overflow
    log += (yes ? eta : 0) - Math.max(eta, 0) - Math.log1p(Math.exp(-Math.abs(eta)));
  }
  const determinant = a * d - b * b;
  return { a, b, d, determinant, logLikelihood: log + 0.5 * Math.log(Math.max(determinant, 1e-300)) };
}

/**
 * Penalised score of one parameter set, with each observation's hat value: h_i = w_i x_i' I^-1 x_i.
 */
function score(
  data: readonly YesNo[],
  intercept: number,
  slope: number,
  { a, b, d, determinant }: Sums,
): [number, number] {
  let s0 = 0;
  let s1 = 0;
  for (const { x, yes } of data) {
    const p = 1 / (1 + Math.exp(-(intercept + slope * x)));
    const hat = (p * (1 - p) * (d - 2 * b * x + a * x * x)) / determinant;
    const residual = (yes ? 1 : 0) - p + hat * (0.5 - p);
    s0 += residual;
    s1 += residual * x;
  }
  return [s0, s1];
}

/**
 * Logistic regression of yes on x with Firth's penalty (half the log determinant of the information), which stays finite where the
 * answers separate completely. Newton steps, halved until the penalised likelihood does not fall. x is centred and scaled inside, so
 * its unit does not matter. With `through`, the line is held at that x to the chance that `logit` says (0: a half), for profiles.
 * Throws RangeError for fewer than two distinct x.
 *
 * x 1..6, answers no no no yes yes yes -> intercept -3.95119, slope 1.12891.
 * Source: D. Firth, "Bias reduction of maximum likelihood estimates", Biometrika 80 (1993) 27.
 */
export function firthLogistic(data: readonly YesNo[], through: number | null = null, logit = 0): FirthFit {
  const xs = data.map(({ x }) => x);
  const centre = meanAndSpread(xs).mean;
  const scale = Math.max(...xs) - Math.min(...xs);
  if (!(scale > 0)) throw new RangeError('invalid data: every x is the same');
  const own = data.map(({ x, yes }) => ({ x: (x - centre) / scale, yes }));
  const held = through === null ? null : (through - centre) / scale;
  let intercept = held === null ? 0 : logit;
  let slope = 0;
  let now = sums(own, intercept, slope);
  let stopped: FirthFit['stopped'] = 'too many turns';
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const [s0, s1] = score(own, intercept, slope, now);
    let d0: number;
    let d1: number;
    if (held === null) {
      d0 = (now.d * s0 - now.b * s1) / now.determinant;
      d1 = (now.a * s1 - now.b * s0) / now.determinant;
    } else {
      // One direction is left: the slope, with the intercept at logit - slope x held.
      const gradient = s1 - held * s0;
      const information = now.d - 2 * held * now.b + held * held * now.a;
      d1 = gradient / Math.max(information, 1e-12);
      d0 = -held * d1;
    }
    let step = 1;
    const longest = Math.hypot(d0, d1);
    if (longest > 5) step = 5 / longest;
    let next = sums(own, intercept + step * d0, slope + step * d1);
    for (let half = 0; half < 40 && !(next.logLikelihood >= now.logLikelihood - 1e-12); half++) {
      step /= 2;
      next = sums(own, intercept + step * d0, slope + step * d1);
    }
    intercept += step * d0;
    slope += step * d1;
    now = next;
    if (step * longest < 1e-8) {
      stopped = 'converged';
      break;
    }
  }
  const ownSlope = slope / scale;
  // The penalty's determinant scales with the square of x's unit: told in the caller's.
  return {
    intercept: intercept - ownSlope * centre,
    slope: ownSlope,
    logLikelihood: now.logLikelihood + Math.log(scale),
    stopped,
  };
}

/** Half the 95 % quantile of chi-squared with one degree of freedom. */
const DROP_95 = 3.841458821 / 2;

/** An x with its 95 % interval; an end is null where the data do not bound it. */
export interface ChancePoint {
  readonly x: number;
  readonly low: number | null;
  readonly high: number | null;
}

/**
 * The x at which the chance of yes is `chance`, with its 95 % profile-likelihood interval. An end that the data do not bound within `reach` times the
 * range of x is null: nothing stands against it there. Null altogether when yes does not grow likelier with x: the answers contradict each other.
 * Throws RangeError for a chance that is not between 0 and 1.
 *
 * x 1..6, answers no no no yes yes yes: 3.5 for a half, (3.95119 - ln 49) / 1.12891 = 0.0526 for one in fifty.
 */
export function chancePoint(data: readonly YesNo[], chance: number, reach = 3): ChancePoint | null {
  if (!(chance > 0 && chance < 1)) throw new RangeError(`invalid chance: ${chance}`);
  const best = firthLogistic(data);
  if (!(best.slope > 0)) return null;
  const logit = Math.log(chance / (1 - chance));
  const xs = data.map(({ x }) => x);
  const from = Math.min(...xs);
  const to = Math.max(...xs);
  const x = (logit - best.intercept) / best.slope;
  const floor = best.logLikelihood - DROP_95;
  const inside = (at: number): boolean => firthLogistic(data, at, logit).logLikelihood >= floor;
  const end = (sign: 1 | -1): number | null => {
    const furthest = (sign < 0 ? Math.min(from, x) : Math.max(to, x)) + sign * reach * (to - from);
    if (inside(furthest)) return null;
    let near = x;
    let far = furthest;
    for (let turn = 0; turn < 40; turn++) {
      const middle = (near + far) / 2;
      if (inside(middle)) near = middle;
      else far = middle;
    }
    return near;
  };
  return { x, low: end(-1), high: end(1) };
}

/** The x at which yes is as likely as no: see `chancePoint`. */
export const halfPoint = (data: readonly YesNo[], reach = 3): ChancePoint | null => chancePoint(data, 0.5, reach);
