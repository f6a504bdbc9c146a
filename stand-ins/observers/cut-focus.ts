import { caliperReading, isLoose } from '../../src/bench/gauges';
import type { Piece } from '../../src/bench/piece';
import type { CutFocusFinding } from '../../src/cards/cut-focus/find';
import type { Answer } from '../../src/core/card/asks';
import { DROP } from '../../src/core/card/usual-asks';
import type { Rect } from '../../src/core/geometry/point';
import type { Observer } from './observer';

/** How much wider a square is at its lower face than at its upper one: by the places along its middle lines where it is through, and where its face begins to go. */
function taperMm({ depthMm, width, pxPerMm, marginMm, thicknessMm }: Piece, box: Rect): number {
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const middle = px(box.x + box.width / 2);
  const edge = (row: number, step: 1 | -1, limit: number): number => {
    let at = middle;
    while (depthMm[row * width + at + step]! < limit) at += step;
    const [here, next] = [depthMm[row * width + at]!, depthMm[row * width + at + step]!];
    return Math.abs(at - middle) + (limit - here) / (next - here);
  };
  let [sum, rows] = [0, 0];
  for (let row = px(box.y + box.height / 4); row < px(box.y + (3 * box.height) / 4); row++, rows++)
    for (const step of [-1, 1] as const) sum += edge(row, step, 0.995 * thicknessMm) - edge(row, step, 0.06);
  return sum / rows / pxPerMm;
}

export const cutFocusObserver: Observer<CutFocusFinding> = {
  on: ['marl', 'acrylic'],
  look: ({ piece, layout }, seed) => ({
    readings: [],
    answers: layout.cells.flatMap(({ index: cellIndex, box }): Answer[] => {
      const loose = isLoose(piece, box);
      const read = (field: string, face?: 'upper'): Answer[] =>
        [0, 1].flatMap((repeat) => {
          const place = { axis: 'x', on: 'part', ...(face && { face }) } as const;
          const shown = caliperReading(piece, box, place, { owner: seed, turn: repeat });
          return 'shows' in shown ? [{ field, cellIndex, repeat, value: Number(shown.shows) }] : [];
        });
      const drop = { field: DROP.field, cellIndex, repeat: 0, value: loose ? 'clean' : 'hangs' };
      return [drop, ...read('width-x'), ...read('top-x', 'upper')];
    }),
  }),
  truth: ({ piece, layout }, { best }) => {
    const tapers = best!.cells.map((index) => taperMm(piece, layout.cells[index]!.box));
    return [tapers.reduce((sum, taper) => sum + taper, 0) / tapers.length];
  },
  claims: ({ best }) => {
    const { mm, sigmaMm } = best!.taper!;
    return [[mm - 2 * sigmaMm, mm + 2 * sigmaMm]];
  },
  widestClaim: 0.06,
};
