import { describe, expect, it } from 'vitest';
import type { Piece } from './piece';
import { printedSheet, type PrintOrder } from './printed-sheet';

const order: PrintOrder = {
  widthMm: 40,
  heightMm: 30,
  window: { x: 10, y: 10, width: 20, height: 10 },
  marks: [0, 0.25, 0.5, 0.75].map((bare, index) => ({ x: 2 + 8 * index, y: 2, width: 6, height: 6, bare })),
};
const at = ({ after, width, pxPerMm, marginMm }: Piece, x: number, y: number): number[] => {
  const pixel = Math.round((y + marginMm) * pxPerMm) * width + Math.round((x + marginMm) * pxPerMm);
  return [...after.subarray(3 * pixel, 3 * pixel + 3)];
};

describe('what the printer by the bench makes', () => {
  const sheet = printedSheet(order, null, 'a');
  it('is white paper with marks where they were ordered, on the paper beyond the frame too', () => {
    expect(sheet.width).toBe(Math.round((40 + 2 * sheet.marginMm) * sheet.pxPerMm));
    expect(at(sheet, 20, 15)[1]).toBeCloseTo(0.86, 6);
    expect(at(sheet, -4, -4)[1]).toBeCloseTo(0.86, 6);
    expect(at(sheet, 4, 4)[1]).toBeLessThan(0.05);
  });
  it('prints greys darker than they were asked for, as dots grow, and each darker than the next', () => {
    const greens = [4, 12, 20, 28].map((x) => at(sheet, x, 4)[1]!);
    expect(greens).toEqual([...greens].sort((a, b) => a - b));
    // Half of the paper bare, by area alone, would send back the mean of both: 0.45.
    expect(greens[2]).toBeLessThan(0.35);
    expect(greens[2]).toBeGreaterThan(0.1);
  });
  it('is alike for one seed, and a little otherwise for another', () => {
    expect(Buffer.from(printedSheet(order, null, 'a').after.buffer).equals(Buffer.from(sheet.after.buffer))).toBe(true);
    const other = at(printedSheet(order, null, 'b'), 12, 4)[1]! / at(sheet, 12, 4)[1]!;
    expect(other).not.toBe(1);
    expect(other).toBeCloseTo(1, 1);
  });
  describe('has a piece laid in its window', () => {
    const pieceOf = (widthMm: number, heightMm: number): Piece => {
      const [width, height] = [widthMm * 20, heightMm * 20];
      const after = new Float32Array(width * height * 3).fill(0.3);
      const flat = new Float32Array(width * height);
      return {
        width,
        height,
        pxPerMm: 20,
        marginMm: 1,
        before: after,
        after,
        depthMm: flat,
        thicknessMm: 3,
        through: flat,
        around: [0.1, 0.1, 0.1],
      };
    };
    const { window } = order;
    /** Places of the sheet where the piece is seen. */
    const seen = (laid: Piece): { x: number; y: number }[] =>
      Array.from({ length: laid.width * laid.height }, (_, k) => k)
        .filter((k) => Math.abs(laid.after[3 * k]! - 0.3) < 1e-3)
        .map((k) => ({
          x: ((k % laid.width) + 0.5) / 20 - laid.marginMm,
          y: (Math.floor(k / laid.width) + 0.5) / 20 - laid.marginMm,
        }));

    it('whole, at its own scale, aside and askew as a hand lays it, on no grey', () => {
      const angles = ['a', 'b', 'c', 'd', 'e', 'f'].map((hand) => {
        const laid = printedSheet(order, pieceOf(12, 5), 'a', hand);
        const places = seen(laid);
        expect(laid.pxPerMm).toBe(20);
        // Its pixels' centres reach half a pixel less far on each side.
        expect(places.length / 400).toBeGreaterThan(0.96 * 60);
        expect(places.length / 400).toBeLessThan(1.01 * 60);
        const inWindow = ({ x, y }: { x: number; y: number }): boolean =>
          x > window.x && x < window.x + window.width && y > window.y && y < window.y + window.height;
        expect(places.every(inWindow)).toBe(true);
        const mean = (of: (place: { x: number; y: number }) => number): number =>
          places.reduce((sum, place) => sum + of(place), 0) / places.length;
        const [mx, my] = [mean(({ x }) => x), mean(({ y }) => y)];
        // The direction of its longer axis, by its moments.
        return (
          (90 / Math.PI) *
          Math.atan2(
            2 * mean(({ x, y }) => (x - mx) * (y - my)),
            mean(({ x }) => (x - mx) ** 2) - mean(({ y }) => (y - my) ** 2),
          )
        );
      });
      expect(Math.max(...angles.map(Math.abs))).toBeLessThanOrEqual(7.1);
      expect(Math.max(...angles) - Math.min(...angles)).toBeGreaterThan(3);
    });
    it('straight in its middle where there is no room for more', () => {
      const places = seen(printedSheet(order, pieceOf(20, 10), 'a', 'a'));
      expect(Math.min(...places.map(({ x }) => x))).toBeCloseTo(10, 0);
      expect(Math.max(...places.map(({ y }) => y))).toBeCloseTo(20, 0);
    });
  });
});
