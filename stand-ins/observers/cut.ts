import type { Piece } from '../../src/bench/piece';
import { isLoose } from '../../src/bench/gauges';
import { randomFrom } from '../../src/bench/random';
import type { CutFinding } from '../../src/cards/cut/find';
import { USUAL_CUT_WISH } from '../../src/cards/cut/find';
import { deliveredBy } from '../../src/core/card/energy';
import { mainBurn } from '../../src/core/card/layout';
import { DROP } from '../../src/core/card/usual-asks';
import type { Rect } from '../../src/core/geometry/point';
import { crossing } from './measures';
import type { Burned, Observer } from './observer';

/** How deep the shallowest place round a square is cut, as a share of the sheet. */
function shallowest({ depthMm, width, pxPerMm, marginMm, thicknessMm }: Piece, box: Rect): number {
  let least = Infinity;
  const corners = [
    [box.x, box.y],
    [box.x + box.width, box.y],
    [box.x + box.width, box.y + box.height],
    [box.x, box.y + box.height],
  ] as const;
  corners.forEach(([x0, y0], side) => {
    const [x1, y1] = corners[(side + 1) % 4]!;
    // A corner's own point lies beyond what holds the part: both sides pass it by.
    for (let place = 6; place <= 194; place++) {
      const [x, y] = [x0 + ((x1 - x0) * place) / 200, y0 + ((y1 - y0) * place) / 200];
      // Where the cut is deepest across it: the beam may lie a little beside the line, the more the further its axes took it.
      let deepest = 0;
      for (let aside = -0.18; aside <= 0.18; aside += 0.02)
        for (const [dx, dy] of [
          [aside, 0],
          [0, aside],
        ] as const) {
          const column = Math.floor((x + dx + marginMm) * pxPerMm);
          const row = Math.floor((y + dy + marginMm) * pxPerMm);
          deepest = Math.max(deepest, depthMm[row * width + column]!);
        }
      least = Math.min(least, deepest);
    }
  });
  return least / thicknessMm;
}

/** J/mm of all passes for each mm of thickness, ascending, with how deep each square was cut. */
const depths = ({ piece, layout, pairing }: Burned): (readonly [energy: number, share: number])[] =>
  layout.cells
    .map(({ box, index }) => {
      const { settings } = mainBurn(layout.cells[index]!);
      return [deliveredBy(settings, pairing).lineJPerMm / piece.thicknessMm, shallowest(piece, box)] as const;
    })
    .sort((a, b) => a[0] - b[0]);

/** Some squares of the card are tapped, others the next time. */
const TAPPED = 0.7;

export const cutObserver: Observer<CutFinding> = {
  // Alike all through: where it comes through is one energy.
  on: ['marl', 'acrylic'],
  look: ({ piece, layout }, seed) => {
    const random = randomFrom(seed);
    return {
      readings: [],
      answers: layout.order
        .filter(() => random() < TAPPED)
        .map((cellIndex) => ({
          field: DROP.field,
          cellIndex,
          repeat: 0,
          value: isLoose(piece, layout.cells[cellIndex]!.box) ? 'clean' : 'not-through',
        })),
    };
  },
  wish: () => USUAL_CUT_WISH,
  truth: (burned) => [crossing(depths(burned), 0.995)],
  claims: ({ window }) => {
    const { low, high } = window!.comesThrough(1);
    return [[low, high]];
  },
  widestClaim: 0.5,
};
