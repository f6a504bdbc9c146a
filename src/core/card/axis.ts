import type { PlanProblem } from './contract';

/** The levels of one channel along an edge of a card. */
export interface Axis {
  readonly from: number;
  readonly to: number;
  readonly count: number;
  readonly spacing: 'even' | 'ratio';
}

export const AXIS_COUNTS = { least: 2, most: 20 } as const;

/**
 * The values of an axis from `from` to `to`, both included: equal steps, or equal ratios. Expects a checked axis.
 *
 * axisValues({ from: 1, to: 8, count: 4, spacing: 'ratio' }) -> 1, 2, 4, 8
 */
export function axisValues({ from, to, count, spacing }: Axis): number[] {
  return Array.from({ length: count }, (_, index) => {
    const share = index / (count - 1);
    return spacing === 'even' ? from + (to - from) * share : from * (to / from) ** share;
  });
}

export interface AxisRules {
  /** Path of the axis in the plan, "power". */
  readonly path: string;
  /** For messages, "Power". */
  readonly word: string;
  /** Ends must be above this; 0 unless said otherwise. Pass -Infinity for offsets. */
  readonly above?: number;
  readonly mostSteps?: number;
}

/** Every reason why an axis cannot be used, one for each field. */
export function checkAxis(
  axis: Axis,
  { path, word, above = 0, mostSteps = AXIS_COUNTS.most }: AxisRules,
): PlanProblem[] {
  const problems: PlanProblem[] = [];
  const wanted = above === 0 ? 'a number above zero' : 'a number';
  for (const end of ['from', 'to'] as const) {
    if (!Number.isFinite(axis[end]) || !(axis[end] > above))
      problems.push({ field: `${path}.${end}`, message: `${word} must be ${wanted}.` });
  }
  if (problems.length === 0 && !(axis.from < axis.to))
    problems.push({ field: `${path}.to`, message: `${word}: the low end must be below the high end. Swap them.` });
  if (axis.spacing === 'ratio' && !(axis.from > 0))
    problems.push({ field: `${path}.from`, message: `${word}: steps by ratio start above zero.` });
  if (!Number.isInteger(axis.count) || !(axis.count >= AXIS_COUNTS.least && axis.count <= mostSteps))
    problems.push({ field: `${path}.count`, message: `${AXIS_COUNTS.least} to ${mostSteps} steps along each edge.` });
  return problems;
}

/** One problem for a value that is not within its range (NaN is not), none otherwise. */
export function within(field: string, value: number, least: number, most: number, message: string): PlanProblem[] {
  return value >= least && value <= most ? [] : [{ field, message }];
}
