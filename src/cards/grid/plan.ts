import type { Constants } from '../../core/card/settings';
import type { MarkSettings, StrokeSettings } from '../../core/card/layout';

export interface Axis {
  readonly from: number;
  readonly to: number;
  readonly count: number;
  readonly spacing: 'even' | 'ratio';
}

/** A power x speed card. Power runs along the columns, speed down the rows with the fastest at the top. */
export interface GridPlan {
  /** Fractions of rated power. */
  readonly power: Axis;
  /** mm/s. */
  readonly speed: Axis;
  readonly cellMm: number;
  readonly gapMm: number;
  readonly constants: Constants;
  readonly markerSettings: MarkSettings;
  readonly letteringSettings: StrokeSettings;
  /** Cells bound to fail are not burned. */
  readonly leaveOutFailing: boolean;
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
