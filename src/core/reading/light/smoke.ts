import type { Rect } from '../../geometry/point';
import type { Tile } from './bare-tiles';
import { explaining, isWorth } from './explaining';
import { robustSurface, type Surface, type Term } from './surface';

/** A cell and how far it is from bare stock, 0 for none. */
export interface Burned {
  readonly box: Rect;
  readonly strength: number;
}

const REACHES_MM = [0.5, 0.8, 1.2, 1.8, 2.6, 4];

/** Smoke lies on stock round cells, the more the stronger they are burned, and less with distance. */
function smokeTerm(weights: readonly { readonly box: Rect; readonly weight: number }[], reachMm: number): Term {
  return (x, y) => {
    let total = 0;
    for (const { box, weight } of weights) {
      const dx = Math.max(box.x - x, x - box.x - box.width, 0);
      const dy = Math.max(box.y - y, y - box.y - box.height, 0);
      if (dx > 6 * reachMm || dy > 6 * reachMm) continue;
      total += weight * Math.exp(-Math.sqrt(dx * dx + dy * dy) / reachMm);
    }
    return total;
  };
}

/** The surface with smoke of the reach, and the law by strength, that explain most; null where smoke is not worth it, or would be light. */
export function smokedSurface(tiles: readonly Tile[], plain: Surface, cells: readonly Burned[]): Surface | null {
  const explained = explaining(tiles, plain);
  const tried = [1, 2].flatMap((power) => {
    const weights = cells.map(({ box, strength }) => ({ box, weight: strength ** power }));
    return REACHES_MM.map((reachMm) => {
      const term = smokeTerm(weights, reachMm);
      return { term, explains: explained.by(term) };
    });
  });
  const { term } = tried.reduce((best, one) => (one.explains > best.explains ? one : best));
  const smoked = robustSurface(tiles, [...plain.terms, term], 5, plain.weights);
  if (!isWorth(smoked, plain)) return null;
  return smoked.coefficients.at(-1)! < 0 ? smoked : null;
}
