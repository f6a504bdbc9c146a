import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import type { CutLattice } from '../../core/hinge/bend';
import type { Pattern } from '../../core/hinge/lattice';

export const HINGE_VERSION = 1;
export const MOST_SAMPLES = 6;

/** Strips with a field of slits each, at several pitches, to be bent round smaller and smaller things. */
export interface HingePlan extends BasePlan {
  readonly pattern: Pattern;
  /** From row to row; of crossed slits, what stands between their ends. */
  readonly pitch: Axis;
  readonly slitMm: number;
  readonly bridgeMm: number;
  /** Of a strip, along its slits. */
  readonly widthMm: number;
  /** Of its field, along the bend. */
  readonly fieldMm: number;
  /** Of the sheet beyond the field at either end, to hold it by. */
  readonly holdMm: number;
  readonly gapMm: number;
  readonly thicknessMm: number;
  readonly kerfMm: number;
  readonly cut: BurnSettings;
}

export function upgradeHingePlan(stored: object): HingePlan {
  const { version } = stored as { version?: number };
  if (version === HINGE_VERSION) return stored as HingePlan;
  throw new RangeError(`unknown hinge plan version: ${version}`);
}

type Lattices = Pick<HingePlan, 'pattern' | 'slitMm' | 'bridgeMm' | 'thicknessMm' | 'kerfMm'>;

/** The lattice of a sample: rows at a pitch, or crossed slits with so much between their ends. */
export const latticeAt = ({ pattern, slitMm, bridgeMm, thicknessMm, kerfMm }: Lattices, level: number): CutLattice => ({
  pattern,
  pitchMm: level,
  slitMm,
  bridgeMm: pattern === 'rows' ? bridgeMm : level,
  thicknessMm,
  kerfMm,
});
