import type { Machine, Lens } from '../machine/machine';
import { familyOf } from '../stock/families';
import { bandOf } from '../stock/response';
import type { Stock } from '../stock/stock';

/**
 * Width across the lines of a fill: of the spot, and of the mark that one line is expected to leave, which is the spot plus what heat
 * spreads in this family. Ultraviolet light breaks bonds and leaves no heat to spread. A guess until a line is measured (common
 * practice: a fine diode marks wood wider than its spot, coats and plastics as wide as it).
 *
 * Horizontal lines on wood under a spot of 0.09 x 0.13 mm: spot 0.13, mark 0.18.
 */
export function widthAcross(
  { machine, lens, stock }: { readonly machine: Machine; readonly lens: Lens; readonly stock: Stock },
  direction: 'horizontal' | 'vertical',
): { readonly spotMm: number; readonly markMm: number } {
  const spotMm = direction === 'horizontal' ? lens.spotYMm : lens.spotXMm;
  const spreadMm = bandOf(machine.sourceKind) === 'ultraviolet' ? 0 : familyOf(stock.family).heatSpreadMm;
  return { spotMm, markMm: spotMm + spreadMm };
}
