import { expect, it } from 'vitest';
import { cutSquare } from '../../tests/support/bench';
import { letsThroughOf } from './light-through';
import { burnPiece } from './piece';
import { turnedOver } from './turned-over';

it('shows a cut board’s holes from behind, left and right exchanged, and none of its marks', () => {
  const piece = burnPiece(cutSquare(6, 1));
  const back = turnedOver(piece, letsThroughOf({ family: 'mdf', type: 'raw' }));
  const { width, thicknessMm } = piece;
  let [holes, marked] = [0, 0];
  piece.depthMm.forEach((depth, at) => {
    const there = 3 * (Math.floor(at / width) * width + width - 1 - (at % width));
    if (depth >= thicknessMm) {
      holes++;
      expect(back.after[there]).toBeLessThan(0.02);
    } else if (Math.abs(back.after[there]! - piece.before[3 * at]!) > 1e-3) marked++;
  });
  expect(holes).toBeGreaterThan(500);
  expect(marked).toBe(0);
});
