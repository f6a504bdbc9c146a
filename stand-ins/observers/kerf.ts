import type { KerfFinding } from '../../src/cards/kerf/find';
import { caliperReading, isLoose } from '../../src/bench/gauges';
import type { Piece } from '../../src/bench/piece';
import type { Answer } from '../../src/core/card/asks';
import { DROP } from '../../src/core/card/usual-asks';
import type { Rect } from '../../src/core/geometry/point';
import type { Observer } from './observer';

type Axis = 'x' | 'y';

/** Mean widths of a part and of the hole it left over the middle half of its length; an edge lies between the last pixel that stands and the first that does not. */
function widthsOf({ depthMm, width, pxPerMm, marginMm, thicknessMm }: Piece, box: Rect, axis: Axis) {
  const [start, length, across, breadth] =
    axis === 'x' ? [box.y, box.height, box.x, box.width] : [box.x, box.width, box.y, box.height];
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const through = 0.995 * thicknessMm;
  const depth = (line: number, place: number): number =>
    depthMm[axis === 'x' ? line * width + place : place * width + line]!;
  const middle = px(across + breadth / 2);
  /** Where depth passes through the limit next, going outwards. */
  const edge = (line: number, from: number, step: 1 | -1, stands: boolean): number => {
    let place = from;
    while (depth(line, place + step) < through === stands) place += step;
    const [here, next] = [depth(line, place), depth(line, place + step)];
    return Math.abs(place - middle) + Math.abs(through - here) / Math.abs(next - here);
  };
  let [part, hole, lines] = [0, 0, 0];
  for (let line = px(start + length / 4); line < px(start + (3 * length) / 4); line++, lines++)
    for (const step of [1, -1] as const) {
      const inner = edge(line, middle, step, true);
      part += inner;
      hole += edge(line, middle + step * Math.ceil(inner), step, false);
    }
  return { partMm: part / lines / pxPerMm, holeMm: hole / lines / pxPerMm };
}

/** The kerf of a square along an axis, whatever the axes go wrong: a hole is wider than its part by two. */
export function trueKerfMm(piece: Piece, box: Rect, axis: Axis): number {
  const { partMm, holeMm } = widthsOf(piece, box, axis);
  return (holeMm - partMm) / 2;
}

/** One square of each size is measured: the others are like it. */
const measured = (order: readonly number[]): readonly number[] => [order[0]!, order.at(-1)!];

export const CALIPER_FIELDS = [
  ['width-x', 'part', 'x'],
  ['width-y', 'part', 'y'],
  ['hole-x', 'hole', 'x'],
  ['hole-y', 'hole', 'y'],
] as const;

export const kerfObserver: Observer<KerfFinding> = {
  on: ['marl', 'acrylic'],
  look: ({ piece, layout }, seed) => {
    const answers = measured(layout.cells.map(({ index }) => index)).flatMap((cellIndex): Answer[] => {
      const { box } = layout.cells[cellIndex]!;
      const drop: Answer = {
        field: DROP.field,
        cellIndex,
        repeat: 0,
        value: isLoose(piece, box) ? 'clean' : 'hangs',
      };
      const widths = CALIPER_FIELDS.flatMap(([field, on, axis]) =>
        [0, 1, 2].flatMap((repeat): Answer[] => {
          const shown = caliperReading(piece, box, { axis, on }, { owner: seed, turn: repeat });
          return 'shows' in shown ? [{ field, cellIndex, repeat, value: Number(shown.shows) }] : [];
        }),
      );
      return [drop, ...widths];
    });
    return { readings: [], answers };
  },
  truth: ({ piece, layout }) =>
    (['x', 'y'] as const).map((axis) => {
      const kerfs = measured(layout.cells.map(({ index }) => index)).map((index) =>
        trueKerfMm(piece, layout.cells[index]!.box, axis),
      );
      return kerfs.reduce((sum, kerf) => sum + kerf, 0) / kerfs.length;
    }),
  claims: ({ x, y }) =>
    [x, y].map((axis) => [axis!.kerf.mean - axis!.kerf.expanded95, axis!.kerf.mean + axis!.kerf.expanded95]),
  widestClaim: 0.06,
};
