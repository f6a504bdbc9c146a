import { expect, it } from 'vitest';
import { bendFlap, lookAtStitches } from './flap';
import type { Piece } from './piece';

const PX = 25;
/** A flap of 10 by 5 mm cut on three sides, its line through but for a share of every 2 mm, or cut to a depth. */
function flapped(stands: number, depthShare = 1, freed = true): Piece {
  const [width, height] = [16 * PX, 12 * PX];
  const depthMm = new Float32Array(width * height);
  const cut = (x0: number, y0: number, x1: number, y1: number, depth: number): void => {
    for (let y = Math.round(y0 * PX); y <= Math.round(y1 * PX); y++)
      for (let x = Math.round(x0 * PX); x <= Math.round(x1 * PX); x++) depthMm[y * width + x] = depth;
  };
  if (freed) {
    cut(2.9, 3, 3.1, 8.1, 3);
    cut(12.9, 3, 13.1, 8.1, 3);
    cut(2.9, 7.9, 13.1, 8.1, 3);
  }
  for (let x = 3; x < 13; x += 2) cut(x, 2.9, x + 2 * (1 - stands), 3.1, 3 * depthShare);
  const rest = { before: new Float32Array(0), after: new Float32Array(0), through: new Float32Array(0) };
  return { ...rest, width, height, pxPerMm: PX, marginMm: 0, depthMm, thicknessMm: 3, around: [0, 0, 0] };
}
const box = { x: 3, y: 3, width: 10, height: 5 };
const bent = (piece: Piece, family: string): string => bendFlap(piece, box, { family, seed: 'a test' });

it('falls, tears, folds or breaks by what stands of its line, and gives nothing where its sides hold it', () => {
  expect(bent(flapped(0), 'plywood')).toBe('off');
  expect(bent(flapped(0.1), 'plywood')).toBe('clean');
  expect(bent(flapped(0.22), 'plywood')).toBe('ragged');
  expect(bent(flapped(0.42), 'plywood')).toBe('breaks');
  expect(bent(flapped(0.42), 'card')).toBe('folds');
  expect(bent(flapped(0, 0.65), 'card')).toBe('folds');
  expect(bent(flapped(0, 0.2), 'card')).toBe('stiff');
  expect(bent(flapped(0.1, 1, false), 'card')).toBe('stiff');
});

it('dashes look like stitching where they show, lie on the sheet, and something is left between them', () => {
  // The flap's line, looked at along the middle of a box round it.
  const seen = (piece: Piece): string => lookAtStitches(piece, { x: 3, y: 1, width: 10, height: 4 });
  expect(seen(flapped(0.3, 0.1))).toBe('stitching');
  expect(seen(flapped(0.3, 0.01))).toBe('faint');
  expect(seen(flapped(0.3, 0.7))).toBe('deep');
  expect(seen(flapped(0, 0.1))).toBe('together');
});
