import type { RunUpFinding } from '../../src/cards/run-up/find';
import type { Piece } from '../../src/bench/piece';
import type { Seen } from '../../src/core/card/asks';
import { mainBurn } from '../../src/core/card/layout';
import type { Rect } from '../../src/core/geometry/point';
import { crossing, lightnessOfPiece } from './measures';
import type { Burned, Observer } from './observer';
import { photographedOnce } from './photographed';

const photoOfPiece = photographedOnce();

/** One photo of each piece; a look goes by one of the two bars of each run-up, or by one of them and all of the next. */
function lookAt(burned: Burned, seed: string): Seen {
  const look = Number(seed.at(-1));
  const seen = photoOfPiece(burned);
  const { cells, inner } = burned.layout;
  const middle = inner.y + inner.height / 2;
  return {
    ...seen,
    readings: seen.readings.filter(({ cellIndex }) => {
      const upper = cells[cellIndex]!.box.y < middle;
      return [upper, !upper, true, upper || cellIndex % 4 < 2, !upper || cellIndex % 4 < 2][look];
    }),
  };
}

/** By how much the ends of a bar are darker than its middle, along its own way. */
function darkerAtEnds(piece: Piece, { x, y, width, height }: Rect, direction: 'horizontal' | 'vertical'): number {
  const long = direction === 'horizontal' ? width : height;
  const part = (from: number, size: number): number =>
    lightnessOfPiece(
      piece,
      direction === 'horizontal'
        ? { x: x + from, width: size, y: y + 0.2 * height, height: 0.6 * height }
        : { y: y + from, height: size, x: x + 0.2 * width, width: 0.6 * width },
    );
  return part(0.35 * long, 0.3 * long) - (part(0.2, 0.5) + part(long - 0.7, 0.5)) / 2;
}

export const runUpObserver: Observer<RunUpFinding> = {
  on: ['marl', 'mdf'],
  look: lookAt,
  seeAll: photoOfPiece,
  // Where ends come within 2 L* of the middle, by straight lines between the run-ups.
  truth: ({ piece, layout }) => {
    const levels = [...new Set(layout.cells.map(({ levels: { runUp } }) => Number(runUp)))].sort((a, b) => a - b);
    const points = levels.map((runUpMm): [number, number] => {
      const bars = layout.cells.filter(({ levels: { runUp } }) => runUp === runUpMm);
      return [
        runUpMm,
        bars.reduce((sum, bar) => sum + darkerAtEnds(piece, bar.box, mainBurn(bar).settings.direction), 0) /
          bars.length,
      ];
    });
    return [crossing(points, 2)];
  },
  claims: ({ leastMm, shortMm, sigmaMm }) => {
    const middle = (leastMm! + shortMm!) / 2;
    return [[middle - 2 * sigmaMm!, middle + 2 * sigmaMm!]];
  },
  widestClaim: 3,
};
