import { WIDTH_X, WIDTH_Y, type KerfFinding } from '../../../src/cards/kerf/find';
import { caliperReading, isLoose } from '../../../src/bench/gauges';
import type { Piece } from '../../../src/bench/piece';
import type { Answer } from '../../../src/core/card/asks';
import { DROP } from '../../../src/core/card/usual-asks';
import type { Rect } from '../../../src/core/geometry/point';
import type { Observer } from './observer';

/** Mean width of what still stands of a part over the middle half of its length; its edge lies between the last pixel that stands and the first that does not. */
function widthOf({ depthMm, width, pxPerMm, marginMm, thicknessMm }: Piece, box: Rect, axis: 'x' | 'y'): number {
  const [start, length, across, breadth] =
    axis === 'x' ? [box.y, box.height, box.x, box.width] : [box.x, box.width, box.y, box.height];
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const through = 0.995 * thicknessMm;
  const depth = (line: number, place: number): number =>
    depthMm[axis === 'x' ? line * width + place : place * width + line]!;
  const middle = px(across + breadth / 2);
  const edge = (line: number, step: 1 | -1): number => {
    let place = middle;
    while (depth(line, place + step) < through) place += step;
    const stands = depth(line, place);
    return Math.abs(place - middle) + (through - stands) / (depth(line, place + step) - stands);
  };
  let sum = 0;
  let lines = 0;
  for (let line = px(start + length / 4); line < px(start + (3 * length) / 4); line++, lines++)
    sum += edge(line, 1) + edge(line, -1);
  return sum / lines / pxPerMm;
}

/** One square of the card is measured: the others are like it. */
const measured = (order: readonly number[]): readonly number[] => order.slice(0, 1);

export const kerfObserver: Observer<KerfFinding> = {
  on: ['marl', 'acrylic'],
  look: ({ piece, layout }, seed) => {
    const answers = measured(layout.order).flatMap((cellIndex): Answer[] => {
      const { box } = layout.cells[cellIndex]!;
      const drop: Answer = {
        field: DROP.field,
        cellIndex,
        repeat: 0,
        value: isLoose(piece, box) ? 'clean' : 'hangs',
      };
      const widths = ([WIDTH_X, WIDTH_Y] as const).flatMap((field) =>
        [0, 1, 2].flatMap((repeat): Answer[] => {
          const shown = caliperReading(piece, box, field === WIDTH_X ? 'x' : 'y', { owner: seed, turn: repeat });
          return 'shows' in shown ? [{ field, cellIndex, repeat, value: Number(shown.shows) }] : [];
        }),
      );
      return [drop, ...widths];
    });
    return { readings: [], answers };
  },
  truth: ({ piece, layout }) =>
    (['x', 'y'] as const).map((axis) => {
      const kerfs = measured(layout.order).map((index) => {
        const { box, levels } = layout.cells[index]!;
        return (levels.size as number) - widthOf(piece, box, axis);
      });
      return kerfs.reduce((sum, kerf) => sum + kerf, 0) / kerfs.length;
    }),
  claims: ({ x, y }) =>
    [x, y].map((axis) => [axis!.kerf.mean - axis!.kerf.expanded95, axis!.kerf.mean + axis!.kerf.expanded95]),
  widestClaim: 0.1,
};
