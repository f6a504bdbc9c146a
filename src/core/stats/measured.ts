import { meanAndSpread } from './robust';
import { studentFactor } from './student';

/** A quantity from repeated readings, with its uncertainty. */
export interface Measured {
  readonly mean: number;
  readonly readings: number;
  /** Standard uncertainty of the mean from the readings' scatter; 0 for a single one, which shows none. */
  readonly uA: number;
  /** Standard uncertainty from the gauge. */
  readonly uB: number;
  readonly combined: number;
  /** Effective degrees of freedom; Infinity when the gauge alone counts. */
  readonly degrees: number;
  /** Half width of the 95 % interval. */
  readonly expanded95: number;
}

export interface Gauge {
  /** Smallest step it shows. */
  readonly resolution: number;
  /** Largest error its maker states, either way; taken as a rectangular law. 0 where none is stated. */
  readonly statedError: number;
}

/**
 * Mean of readings with its uncertainty: u_A = s / sqrt(n); u_B from the resolution over sqrt(12) and the stated error over sqrt(3);
 * combined by root of squares, expanded by Student's factor at the Welch-Satterthwaite degrees. One reading alone has no scatter to
 * show: its u_A is 0 and the gauge alone speaks, which the caller must say. Throws RangeError for no readings.
 *
 * 24.86 24.88 24.85 24.87 24.86 by 0.01: mean 24.864, u_A 0.0051, u_B 0.00289, combined 0.00586.
 * Source: JCGM 100:2008 (GUM), 4.2, 4.3 and annex G.4.
 */
export function measuredFrom(readings: readonly number[], { resolution, statedError }: Gauge): Measured {
  if (readings.length === 0) throw new RangeError('missing readings');
  const { count, mean, spread } = meanAndSpread(readings);
  const uA = count > 1 ? spread / Math.sqrt(count) : 0;
  const uB = Math.hypot(resolution / Math.sqrt(12), statedError / Math.sqrt(3));
  const combined = Math.hypot(uA, uB);
  const degrees = uA === 0 ? Infinity : combined ** 4 / (uA ** 4 / (count - 1));
  return {
    mean,
    readings: count,
    uA,
    uB,
    combined,
    degrees,
    expanded95: combined * studentFactor(Math.min(degrees, 1e7), 0.95),
  };
}
