import { byteOfLinear, hexColour, parseHexColour, srgbToLinear } from '../../../core/color/srgb';
import type { Cell } from '../../../core/card/layout';
import type { Machine } from '../../../core/machine/machine';
import { suitability } from '../../../core/stock/absorption';
import { familyOf } from '../../../core/stock/families';
import type { Stock } from '../../../core/stock/stock';

/** Mixes two colours in linear light. */
export function mixColours(from: string, to: string, share: number): string {
  const a = parseHexColour(from).map((byte) => srgbToLinear(byte / 255));
  const b = parseHexColour(to).map((byte) => srgbToLinear(byte / 255));
  const mixed = a.map((value, index) => byteOfLinear(value + (b[index]! - value) * share));
  return hexColour([mixed[0]!, mixed[1]!, mixed[2]!]);
}

/** A guess of how a cell will look, for the drawing only: from the family's energies, in the stock's own colour. */
export function predictedColour(cell: Cell, machine: Machine, stock: Stock): string {
  const family = familyOf(stock.family);
  const { absorption } = suitability(stock.family, machine.sourceKind, stock.type);
  const energy = cell.arealEnergyJPerMm2 * absorption;
  const { faint, deep } = family.energies;
  const share = energy <= faint * 0.5 ? 0 : 1 - Math.exp((-1.8 * (energy - faint * 0.5)) / deep);
  return mixColours(stock.colour, family.burnedColour, share);
}
