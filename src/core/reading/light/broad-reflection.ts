import type { Layout } from '../../card/layout';
import { PAPER_LUMINANCE } from '../../sheet/paper';
import type { AddedLight } from './added-light';
import { addedOverSheet, type SheetAround } from './added-over-sheet';
import type { Tile } from './bare-tiles';
import { Lattice } from './lattice';

/** How far apart it is worked out: no wall's reflection bends in less. */
const LATTICE_MM = 4;

/**
 * A broad reflection over a card that its sheet tells, as shares of what white stock would send at the card's middle; null where it tells none, 'lamp'
 * where a lamp's reflection lies on the card. On a card that was evened (`isEvened`) as much light falls everywhere as on its middle.
 */
export function broadOver(
  tiles: readonly Tile[],
  layout: Layout,
  stockLinear: readonly [number, number, number],
  sheet: SheetAround,
  isEvened: boolean,
): AddedLight | 'lamp' | null {
  const middle = { x: layout.widthMm / 2, y: layout.heightMm / 2 };
  const lobe = addedOverSheet(tiles, stockLinear, sheet, middle);
  if (lobe === null || lobe === 'lamp') return lobe;
  const white = sheet.paperLight(middle.x, middle.y);
  const lattice = new Lattice(layout, LATTICE_MM);
  const here = lattice.map((x, y) => {
    const { value, sigma } = lobe.at({ x, y });
    // It is told as a share of the light that falls on its place.
    const falls = isEvened ? 1 : sheet.paperLight(x, y)[1] / white[1];
    return { added: falls * value, sigma: falls * sigma };
  });
  const added = here.map((place) => place.added);
  const sigmas = here.map(({ sigma }) => sigma);
  return {
    at: (x, y) => lattice.between(added, x, y),
    sigmaAt: (x, y) => lattice.between(sigmas, x, y),
    range: Math.max(...added) - Math.min(...added),
    white: [white[0] / PAPER_LUMINANCE, white[1] / PAPER_LUMINANCE, white[2] / PAPER_LUMINANCE],
  };
}
