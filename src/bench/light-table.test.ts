import { describe, expect, it } from 'vitest';
import { CELL, cutSquare, square } from '../../tests/support/bench';
import { lightTableShot, photograph } from './camera';
import { onLightTable, trueThrough } from './light-table';
import { letsThroughOf, throughAt } from './light-through';
import { burnPiece } from './piece';
import { SPECIMENS } from './specimens';

const coated = { specimen: SPECIMENS['coated-clear']!, lets: letsThroughOf({ family: 'coated-clear', type: '' }) };

describe('light that comes through a piece', () => {
  it('is held back by a coat that looks all but gone, and scattered where the burn went too far', () => {
    const at = (mark: number, ruin = 0): number => throughAt(coated.lets, { mark, ruin, leftMm: 3, thicknessMm: 3 });
    expect(at(0)).toBeLessThan(0.002);
    // Half of its density: the root of what the whole coat lets through.
    expect(at(0.5) / at(1)).toBeCloseTo(Math.sqrt(coated.lets.coat), 6);
    expect(at(0.9)).toBeLessThan(0.55);
    expect(at(1)).toBeGreaterThan(0.85);
    expect(at(1, 1)).toBeLessThan(at(1));
  });
  it('grows with the energy on a coat until that is off, then falls', () => {
    const through = [0, 0.3, 0.6, 1.3, 3].map((energy) => trueThrough(burnPiece(square(energy, coated)), CELL));
    expect(through.slice(0, 4)).toEqual([...through.slice(0, 4)].sort((a, b) => a - b));
    expect(through[3]).toBeGreaterThan(0.7);
    expect(through[4]).toBeLessThan(through[3]!);
  });
  it('is none through wood, and all of it where it is cut', () => {
    const piece = burnPiece(cutSquare(6, 1));
    expect(trueThrough(piece, { x: 6, y: 6, width: 4, height: 4 })).toBeLessThan(0.001);
    expect(piece.through.reduce((most, share) => Math.max(most, share), 0)).toBe(1);
  });
  it('shows pinholes in a coat, others on another piece, and none where there is no coat', () => {
    const holes = (seed: string, change = {}) =>
      burnPiece(square(0, { ...coated, seed, widthMm: 30, heightMm: 30, traces: [], ...change })).through.filter(
        (share) => share > 0.05,
      ).length;
    expect(holes('a')).toBeGreaterThan(20);
    expect(holes('b')).not.toBe(holes('a'));
    expect(holes('a', { lets: { ...coated.lets, pinholes: 0 } })).toBe(0);
  });
  it('is seen beside the open table’s, over a little of the room’s light that the face sends back', () => {
    const piece = burnPiece(square(1.3, coated));
    const [dark, lit] = [onLightTable(piece, 0), onLightTable(piece, 0.5)];
    const middle = (Math.round(6 * piece.pxPerMm) * piece.width + Math.round(6 * piece.pxPerMm)) * 3 + 1;
    expect(dark.after[middle]).toBeCloseTo(piece.through[(middle - 1) / 3]!, 2);
    expect(lit.after[middle]! - dark.after[middle]!).toBeCloseTo(0.5 * piece.after[middle]!, 4);
    const { data, width, placeOf } = photograph(dark, { ...lightTableShot('seen'), widthPx: 400, heightPx: 300 });
    const level = (x: number, y: number): number => {
      const at = placeOf(x, y);
      return data[(Math.round(at.y) * width + Math.round(at.x)) * 3 + 1]!;
    };
    // The open table is what the camera is set on: bright, and not at its end; the coat is black before it.
    expect(level(-3, 5)).toBeGreaterThan(150);
    expect(level(-3, 5)).toBeLessThan(250);
    expect(level(0, 5)).toBeLessThan(30);
    expect(level(5, 5)).toBeGreaterThan(120);
  });
});
