import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import type { MarkSettings, StrokeSettings } from '../../core/card/layout';
import { upgradeSettings, type Constants } from '../../core/card/settings';
import { upgradeBase } from '../../core/card/stored';

export const GRID_VERSION = 3;

export const GRID_EASES = [
  EASES.interval('constants.intervalMm'),
  EASES.size('cellMm', 'cells'),
  EASES.passes('constants.passes'),
];

/** A power x speed card. Power runs along the columns, speed down the rows with the fastest at the top. */
export interface GridPlan extends BasePlan {
  /** Fractions of rated power. */
  readonly power: Axis;
  /** mm/s. */
  readonly speed: Axis;
  readonly cellMm: number;
  readonly gapMm: number;
  readonly constants: Constants;
  /** Cells bound to fail are not burned. */
  readonly leaveOutFailing: boolean;
  /** Whether each cell is filled by itself, or all cells of a row are crossed in one sweep, power changing at their borders. */
  readonly sweeps: 'cells' | 'rows';
}

/** The plan of version 1, which had no version written on it. */
interface FirstPlan extends Omit<GridPlan, 'version' | 'frame' | 'setup' | 'sweeps'> {
  readonly markerSettings: MarkSettings;
  readonly letteringSettings: StrokeSettings;
}

/** A grid's plan as it was stored. Throws RangeError for a version that this program does not know. */
export function upgradeGridPlan(stored: object): GridPlan {
  const { version } = stored as { version?: number };
  if (version === GRID_VERSION) return stored as GridPlan;
  if (version !== undefined && version !== 2) throw new RangeError(`unknown grid plan version: ${version}`);
  const { markerSettings, letteringSettings, ...rest } = stored as FirstPlan;
  const frame = (rest as Partial<GridPlan>).frame ?? { marker: markerSettings, lettering: letteringSettings };
  return {
    ...upgradeBase({ ...rest, frame }),
    version: GRID_VERSION,
    constants: upgradeSettings(rest.constants),
    sweeps: 'cells',
  };
}
