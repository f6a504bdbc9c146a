import { describe, expect, it } from 'vitest';
import { outlinePath, pieceHolds, RECTANGLE, type Outline } from './outline';
import { points } from '../../../tests/support/points';

const piece = (outline: Outline) => ({ sheetWidthMm: 100, sheetDepthMm: 60, outline });
const square = (x: number, y: number, side = 10) => ({ x, y, width: side, height: side });
const ROUND: Outline = { shape: 'ellipse', radiusMm: 0 };
const SIX: Outline = { shape: 'hexagon', radiusMm: 0 };
const SOFT: Outline = { shape: 'rounded', radiusMm: 10 };

describe('a piece of stock', () => {
  it('holds what lies within its four sides, edges included', () => {
    for (const { x, y } of points([0, 0], [90, 0], [0, 50], [90, 50]))
      expect(pieceHolds(piece(RECTANGLE), square(x, y)), `${x} ${y}`).toBe(true);
    for (const { x, y } of points([-0.01, 0], [90.01, 0], [0, -0.01], [0, 50.01]))
      expect(pieceHolds(piece(RECTANGLE), square(x, y)), `${x} ${y}`).toBe(false);
  });
  it('that is round or oval holds what its curve leaves: (dx/50)² + (dy/30)² of each corner at most one', () => {
    // By hand: a corner at (40, 18) from the middle lies on it exactly, 0.64 + 0.36.
    expect(pieceHolds(piece(ROUND), { x: 10, y: 12, width: 80, height: 36 })).toBe(true);
    expect(pieceHolds(piece(ROUND), { x: 9.9, y: 12, width: 80, height: 36 })).toBe(false);
    expect(pieceHolds(piece(ROUND), { x: 10, y: 12, width: 80, height: 36.1 })).toBe(false);
    expect(pieceHolds(piece(ROUND), square(0, 0))).toBe(false);
  });
  it('that is a hexagon with corners left and right has slopes a quarter of its width wide', () => {
    // At 15 mm above or below the middle the sides lie 50 - 12.5 mm from it.
    expect(pieceHolds(piece(SIX), { x: 12.5, y: 15, width: 75, height: 30 })).toBe(true);
    expect(pieceHolds(piece(SIX), { x: 12.4, y: 15, width: 75, height: 30 })).toBe(false);
    expect(pieceHolds(piece(SIX), { x: 25, y: 0, width: 50, height: 60 })).toBe(true);
  });
  it('with round corners loses little: 10 - 10 / sqrt(2) = 2.929 mm along both sides', () => {
    expect(pieceHolds(piece(SOFT), square(2.93, 2.93))).toBe(true);
    expect(pieceHolds(piece(SOFT), square(2.92, 2.92))).toBe(false);
    expect(pieceHolds(piece(SOFT), square(0, 10))).toBe(true);
    expect(pieceHolds(piece(SOFT), square(10, 0))).toBe(true);
    expect(pieceHolds(piece(RECTANGLE), square(0, 0))).toBe(true);
    // A radius over half of the piece is its half: a stadium.
    expect(pieceHolds(piece({ shape: 'rounded', radiusMm: 99 }), square(8.7, 8.7))).toBe(false);
    expect(pieceHolds(piece({ shape: 'rounded', radiusMm: 99 }), square(8.8, 8.8))).toBe(true);
  });
  it('with round corners of no radius is a rectangle, whatever its outline is called', () => {
    expect(pieceHolds(piece({ shape: 'rounded', radiusMm: 0 }), square(0, 0))).toBe(true);
    // A radius is that of rounded corners: another outline takes no notice of it.
    expect(pieceHolds(piece({ shape: 'rectangle', radiusMm: 30 }), square(0, 0))).toBe(true);
  });
  it('is drawn by its own outline', () => {
    expect(outlinePath(piece(RECTANGLE))).toBe('M0 0H100V60H0z');
    expect(outlinePath(piece(ROUND))).toBe('M0 30a50 30 0 1 1 100 0a50 30 0 1 1 -100 0z');
    expect(outlinePath(piece(SIX))).toBe('M0 30L25 0L75 0L100 30L75 60L25 60z');
    expect(outlinePath(piece(SOFT))).toBe(
      'M10 0H90a10 10 0 0 1 10 10V50a10 10 0 0 1 -10 10H10a10 10 0 0 1 -10 -10V10a10 10 0 0 1 10 -10z',
    );
    expect(outlinePath(piece({ shape: 'rounded', radiusMm: 99 }))).toMatch(/^M30 0H70a30 30/);
    const tall = { sheetWidthMm: 60, sheetDepthMm: 100, outline: { shape: 'rounded', radiusMm: 99 } } as const;
    expect(outlinePath(tall)).toMatch(/^M30 0H30a30 30/);
    expect([pieceHolds(tall, square(8.7, 8.7)), pieceHolds(tall, square(8.8, 8.8))]).toEqual([false, true]);
    expect(outlinePath(piece({ shape: 'rectangle', radiusMm: 30 }))).toBe('M0 0H100V60H0z');
  });
});
