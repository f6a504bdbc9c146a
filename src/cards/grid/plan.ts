import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import type { MarkSettings, StrokeSettings } from '../../core/card/layout';
import { upgradeSettings, type BurnSettings, type Constants } from '../../core/card/settings';
import { upgradeBase } from '../../core/card/stored';
import type { GridAxis } from './axes';

export const GRID_VERSION = 4;

export const GRID_EASES = [
  EASES.interval('constants.intervalMm'),
  EASES.size('cellMm', 'cells'),
  EASES.passes('constants.passes'),
];

/** Repeats of each cell at the most. */
export const MOST_REPEATS = 6;

/** Any two settings against each other: one along the columns, one down the rows. */
export interface GridPlan extends BasePlan {
  readonly across: GridAxis;
  readonly down: GridAxis;
  /** How often each pair of levels is burned. */
  readonly repeats: number;
  /** Levels in order along the edges, or in places that go with neither direction of the card. */
  readonly placing: 'ordered' | 'scattered';
  readonly cellMm: number;
  readonly gapMm: number;
  /** What all cells have; what an axis varies is not taken from here. */
  readonly constants: BurnSettings;
  /** Cells bound to fail are not burned. */
  readonly leaveOutFailing: boolean;
  /** Whether each cell is filled by itself, or all cells of a row are crossed in one sweep, power changing at their borders. */
  readonly sweeps: 'cells' | 'rows';
}

/** Plans up to version 3 knew power along the columns and speed down the rows alone. */
interface OldPlan extends Omit<GridPlan, 'across' | 'down' | 'repeats' | 'placing' | 'constants'> {
  readonly power: Axis;
  readonly speed: Axis;
  readonly constants: Constants;
}

/** The plan of version 1, which had no version written on it. */
interface FirstPlan extends Omit<OldPlan, 'version' | 'frame' | 'setup' | 'sweeps'> {
  readonly markerSettings: MarkSettings;
  readonly letteringSettings: StrokeSettings;
}

/** A grid's plan as it was stored. Throws RangeError for a version that this program does not know. */
export function upgradeGridPlan(stored: object): GridPlan {
  const { version } = stored as { version?: number };
  if (version === GRID_VERSION) return stored as GridPlan;
  if (version !== undefined && version !== 2 && version !== 3)
    throw new RangeError(`unknown grid plan version: ${version}`);
  const { markerSettings, letteringSettings, ...first } = stored as FirstPlan;
  const frame = (first as Partial<OldPlan>).frame ?? { marker: markerSettings, lettering: letteringSettings };
  const { power, speed, ...rest } = upgradeBase({ sweeps: 'cells' as const, ...first, frame });
  const middle = ({ from, to }: Axis): number => Math.sqrt(from * to);
  return {
    ...rest,
    version: GRID_VERSION,
    across: { channel: 'power', ...power },
    down: { channel: 'speed', ...speed },
    repeats: 1,
    placing: 'ordered',
    constants: { ...upgradeSettings(rest.constants), powerFraction: middle(power), speedMmPerS: middle(speed) },
  };
}
