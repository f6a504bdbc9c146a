import { caliperReading, isLoose, type Box } from '../../src/bench/gauges';
import type { Piece } from '../../src/bench/piece';
import { trySlot } from '../../src/bench/try-slot';
import type { PartFinding } from '../../src/cards/part/find';
import type { Answer } from '../../src/core/card/asks';
import type { Cell } from '../../src/core/card/layout';
import { DROP, FIT } from '../../src/core/card/usual-asks';
import { CALIPER_FIELDS } from './kerf';
import type { Observer } from './observer';

/** A cell as the bench's gauges know it. */
export const cutBoxOf = ({ box, wanted }: Cell): Box => ({
  ...box,
  ...(wanted && { shape: { outline: wanted.outline, on: wanted.on } }),
});

/** How wide a part is between straight jaws: from outside inwards past the cut, on every line of pixels, to the proudest on either side. */
function betweenJaws({ depthMm, width, pxPerMm, marginMm, thicknessMm }: Piece, box: Box, axis: 'x' | 'y'): number {
  const [start, length, across, breadth] =
    axis === 'x' ? [box.y, box.height, box.x, box.width] : [box.x, box.width, box.y, box.height];
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const through = 0.995 * thicknessMm;
  const depth = (line: number, at: number): number => depthMm[axis === 'x' ? line * width + at : at * width + line]!;
  let [low, high] = [Infinity, -Infinity];
  for (let line = px(start + length / 4); line < px(start + (3 * length) / 4); line++) {
    const inward = (from: number, step: 1 | -1): number => {
      let at = from;
      while (depth(line, at) < through) at += step;
      while (depth(line, at) >= through) at += step;
      const [solid, open] = [depth(line, at), depth(line, at - step)];
      return at - (step * (through - solid)) / (open - solid);
    };
    low = Math.min(low, inward(px(across - 0.6), 1));
    high = Math.max(high, inward(px(across + breadth + 0.6), -1));
  }
  return (high - low) / pxPerMm;
}

export const partObserver: Observer<PartFinding> = {
  on: ['marl', 'acrylic'],
  look: ({ piece, layout, pairing }, seed) => {
    const answers = layout.cells.flatMap((cell): Answer[] => {
      const cellIndex = cell.index;
      const box = cutBoxOf(cell);
      const drop = { field: DROP.field, cellIndex, repeat: 0, value: isLoose(piece, box) ? 'clean' : 'hangs' };
      const taken = cell.wanted?.takes && layout.cells[cell.wanted.takes.cellIndex];
      if (taken) {
        const tried = trySlot(piece, box, { family: pairing.stock.family, seed, part: cutBoxOf(taken) });
        return [drop, ...('goes' in tried ? [{ field: FIT.field, cellIndex, repeat: 0, value: tried.goes }] : [])];
      }
      const sizes = CALIPER_FIELDS.filter(([, on]) => on === cell.levels.side).flatMap(([field, on, axis]) =>
        [0, 1].flatMap((repeat): Answer[] => {
          const shown = caliperReading(piece, box, { axis, on }, { owner: seed, turn: repeat });
          return 'shows' in shown ? [{ field, cellIndex, repeat, value: Number(shown.shows) }] : [];
        }),
      );
      return [drop, ...sizes];
    });
    return { readings: [], answers };
  },
  truth: ({ piece, layout }) => {
    const part = layout.cells.find(({ levels }) => levels.side === 'part')!;
    return (['x', 'y'] as const).map((axis) => betweenJaws(piece, cutBoxOf(part), axis));
  },
  claims: ({ sizes }) =>
    (['x', 'y'] as const).map((axis) => {
      const { wantedMm, offMm, sigmaMm } = sizes.find((size) => size.side === 'part' && size.axis === axis)!;
      return [wantedMm + offMm - 2 * sigmaMm, wantedMm + offMm + 2 * sigmaMm];
    }),
  widestClaim: 0.08,
};
