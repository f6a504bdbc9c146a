import type { FamilyId } from './families';
import { responseOf } from './response';
import { thicknessOf, type Stock } from './stock';
import type { Machine } from '../machine/machine';

export interface CutEnergy {
  /** Delivered J/mm for each mm of thickness that just cuts through in one pass under a CO2 source; null: not cut by these sources. */
  readonly jPerMmPerMm: number | null;
  readonly origin: 'common practice' | 'from memory';
}

const practice = (jPerMmPerMm: number): CutEnergy => ({ jPerMmPerMm, origin: 'common practice' });
const memory = (jPerMmPerMm: number): CutEnergy => ({ jPerMmPerMm, origin: 'from memory' });
const NOT_CUT: CutEnergy = { jPerMmPerMm: null, origin: 'common practice' };

/**
 * Line energy that cuts through, by family, in J/mm for each mm of thickness. Starting points for a range to test, never settings:
 * none has a published source; each is said to be common practice (rates that shops pass on) or from memory. Chosen at the low end,
 * since markers and lettering are kept under a third of it.
 */
const TABLE: Readonly<Record<FamilyId, CutEnergy>> = {
  plywood: practice(0.75),
  hardwood: practice(1),
  softwood: practice(0.55),
  mdf: practice(1),
  cork: memory(0.35),
  'acrylic-cast': practice(0.85),
  'acrylic-extruded': practice(0.75),
  'leather-vegetable': practice(0.6),
  leatherette: memory(0.45),
  felt: memory(0.25),
  cloth: memory(0.25),
  slate: NOT_CUT,
  tile: NOT_CUT,
  card: practice(0.3),
  rubber: memory(0.9),
  'two-layer': practice(0.8),
  'light-wood': memory(0.4),
  bamboo: memory(1),
  veneer: memory(0.8),
  corrugated: memory(0.15),
  fleece: memory(0.25),
  'solid-surface': memory(1.2),
  'light-stone': NOT_CUT,
  glass: NOT_CUT,
  'coated-clear': memory(0.8),
  foam: memory(0.1),
};

/** Stock that grew, or is glued in layers: knots, glue and pockets inside hold a cut up here and there (common practice). */
const UNEVEN: readonly FamilyId[] = [
  'plywood',
  'hardwood',
  'softwood',
  'light-wood',
  'bamboo',
  'veneer',
  'cork',
  'corrugated',
];

/**
 * About how many places inside the stock hold a cut up, for each 100 mm of it, before any cut was looked at: three in a metre of stock that grew or is
 * glued in layers, a tenth of that in what is alike all through. Good to a factor of a few (from memory, without a source).
 */
export const heldUpPer100Mm = (family: string): number => (UNEVEN.includes(family as FamilyId) ? 0.3 : 0.03);

export function cutEnergy(family: string): CutEnergy {
  const energy = TABLE[family as FamilyId];
  if (!energy) throw new RangeError(`unknown family: ${family}`);
  return energy;
}

/**
 * Delivered line energy in J/mm that is expected to cut through this sheet in one pass under this source: the family's figure times
 * the thickness, over the share that the source's light does. Null where the stock is not cut. Linear in thickness: common practice,
 * good to a factor of two.
 *
 * 3 mm MDF under CO2: 1 x 3 / 1 = 3 J/mm.
 */
export function cutThroughJPerMm(machine: Pick<Machine, 'sourceKind'>, stock: Stock): number | null {
  const { jPerMmPerMm } = cutEnergy(stock.family);
  const { absorption, cuts } = responseOf(stock, machine);
  if (jPerMmPerMm === null || !cuts) return null;
  return (jPerMmPerMm * thicknessOf(stock).meanMm) / absorption;
}
