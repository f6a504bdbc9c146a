import { mixColours } from '../core/color/mix';
import type { Pairing } from '../core/card/contract';
import { deliveredBy } from '../core/card/energy';
import { mainBurn, type Cell } from '../core/card/layout';
import { coverageOfBurn } from '../core/card/shape';
import { burnedColourOf } from '../core/stock/families';
import { responseOf } from '../core/stock/response';

/** A guess of how a cell will look, for the drawing only: from the family's energies, in the stock's own colour. */
export function predictedColour(cell: Cell, pairing: Pairing): string {
  const { machine, stock } = pairing;
  const burn = mainBurn(cell);
  const { shape, settings } = burn;
  // What is cut out keeps its face; its outline is drawn.
  if (shape.do === 'follow') return mixColours(stock.colour, '#ffffff', 0.18);
  const energy = deliveredBy(settings, pairing).arealJPerMm2;
  const { faint, deep } = responseOf(stock, machine).energies;
  const share = energy <= faint * 0.5 ? 0 : 1 - Math.exp((-1.8 * (energy - faint * 0.5)) / deep);
  return mixColours(stock.colour, burnedColourOf(stock), shape.do === 'dots' ? share * coverageOfBurn(burn) : share);
}
