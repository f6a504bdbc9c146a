import type { LineWidthFinding } from '../../src/cards/line-width/find';
import type { Seen } from '../../src/core/card/asks';
import { mainBurn } from '../../src/core/card/layout';
import { acrossLine } from './measures';
import type { Burned, Observer } from './observer';
import { photographedOnce } from './photographed';

/** Width of a photo that shows single lines: as large as the bench's camera takes it. */
const NEAREST_PX = 4000;
const photoOfPiece = photographedOnce(NEAREST_PX);

/** One photo of each piece, and each look at the lines of another of its five strongest powers. */
function lookAt(burned: Burned, seed: string): Seen {
  const seen = photoOfPiece(burned);
  const { cells } = burned.layout;
  const powers = [...new Set(cells.map(({ levels }) => Number(levels.power)))].sort((a, b) => b - a);
  const wanted = powers[Number(seed.at(-1))];
  return { ...seen, readings: seen.readings.filter(({ cellIndex }) => cells[cellIndex]!.levels.power === wanted) };
}

/** Where a line takes half of what it takes at the most, from its piece. */
function halfWidth({ piece, layout }: Burned, cellIndex: number): number {
  const cell = layout.cells[cellIndex]!;
  const { at, taken } = acrossLine(piece, cell.box, mainBurn(cell).settings.direction);
  const most = Math.max(...taken);
  const top = taken.indexOf(most);
  const edge = (by: 1 | -1): number => {
    let k = top;
    while (taken[k]! >= most / 2) k += by;
    return at[k - by]! + ((taken[k - by]! - most / 2) / (taken[k - by]! - taken[k]!)) * (at[k]! - at[k - by]!);
  };
  return edge(1) - edge(-1);
}

export const lineWidthObserver: Observer<LineWidthFinding> = {
  on: ['marl', 'slate'],
  look: lookAt,
  seeAll: photoOfPiece,
  truth: (burned, { lines }) => lines.map(({ cellIndex }) => halfWidth(burned, cellIndex)),
  claims: ({ lines }) => lines.map(({ widthMm, sigmaMm }) => [widthMm - 2 * sigmaMm, widthMm + 2 * sigmaMm]),
  widestClaim: 0.04,
};
