import type { Piece } from '../../src/bench/piece';
import { edgeOfMate, tryMate, type CutEdge } from '../../src/bench/try-mate';
import type { KnobsFinding } from '../../src/cards/knobs/find';
import type { Answer } from '../../src/core/card/asks';
import type { Cell } from '../../src/core/card/layout';
import { MATE } from '../../src/core/card/usual-asks';
import type { Burned, Observer } from './observer';
import { oncePer } from './once-per';
import { cutBoxOf } from './part';

/** Clearances at which the bench's hand calls a joint snug, and slipping: see the bench's own numbers. */
const SNUG_FROM_MM = -0.012;
const SLIP_FROM_MM = 0.055;

/** How far from a place a cut begins and ends along a line, by pixels. */
function cutAlong({ depthMm, width, pxPerMm, marginMm, thicknessMm }: Piece, cell: Cell, ux: number, uy: number) {
  const { x, y } = cell.wanted!.on;
  const through = 0.995 * thicknessMm;
  const step = 0.2 / pxPerMm;
  const depth = (way: number): number => {
    const [px, py] = [x + ux * way, y + uy * way].map((mm) => Math.floor((mm + marginMm) * pxPerMm)) as [
      number,
      number,
    ];
    return depthMm[py * width + px]!;
  };
  let way = 0;
  while (depth(way) < through) way += step;
  const begins = way;
  while (depth(way) >= through) way += step;
  return { begins, ends: way };
}

/** How much more room a pair has than it was drawn with, along an axis: what the cuts took of hole and part. */
function taken({ piece, layout }: Burned, axis: 'x' | 'y'): number {
  const [ux, uy] = axis === 'x' ? [1, 0] : [0, 1];
  const of = (side: string): number => {
    const offs = layout.cells.flatMap((cell) => {
      if (cell.levels.side !== side) return [];
      const [there, back] = [cutAlong(piece, cell, ux, uy), cutAlong(piece, cell, -ux, -uy)];
      const drawn = axis === 'x' ? cell.box.width : cell.box.height;
      return [side === 'hole' ? there.ends + back.ends - drawn : drawn - there.begins - back.begins];
    });
    return offs.reduce((sum, mm) => sum + mm, 0) / offs.length;
  };
  return of('hole') + of('part');
}

/** The edge of every cell of a piece. */
const edgesOf = oncePer(({ piece, layout }: Burned): readonly CutEdge[] =>
  layout.cells.map((cell) => edgeOfMate(piece, cutBoxOf(cell), cell.levels.side as 'hole' | 'part')),
);

/** Every part put into every hole by the bench's hand. */
function putTogether(burned: Burned, seed: string): Answer[] {
  const { layout, pairing } = burned;
  const edge = edgesOf(burned);
  const of = (side: 'hole' | 'part') => layout.cells.filter(({ levels }) => levels.side === side);
  const parts = of('part').map(({ index }) => edge[index]!);
  return of('hole').flatMap((cell) => {
    const hole = edge[cell.index]!;
    return parts.flatMap((part, repeat): Answer[] => {
      const { family } = pairing.stock;
      const tried = tryMate({ hole, part, families: [family, family], seed: `${seed} ${cell.index} ${repeat}` });
      return 'goes' in tried ? [{ field: MATE.field, cellIndex: cell.index, repeat, value: tried.goes }] : [];
    });
  });
}

export const knobsObserver: Observer<KnobsFinding> = {
  on: ['marl', 'acrylic'],
  look: (burned, seed) => ({ readings: [], answers: putTogether(burned, seed) }),
  // A part goes in as far as its narrower way lets it.
  truth: oncePer((burned) => {
    const off = Math.min(taken(burned, 'x'), taken(burned, 'y'));
    return [SNUG_FROM_MM - off, SLIP_FROM_MM - off];
  }),
  claims: ({ bounds }) =>
    (['snug', 'slip'] as const).map((fit) => {
      const { atMm, sigmaMm } = bounds!.from[fit];
      return [atMm - 2 * sigmaMm, atMm + 2 * sigmaMm];
    }),
  widestClaim: 0.16,
};
