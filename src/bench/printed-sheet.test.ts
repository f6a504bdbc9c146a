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
  it('has a piece laid in the middle of its window, at the piece’s own scale', () => {
    const [width, height, pxPerMm] = [100, 60, 10];
    const after = new Float32Array(width * height * 3).fill(0.3);
    const laid = printedSheet(order, { width, height, pxPerMm, marginMm: 1, before: after, after, depthMm: new Float32Array(width * height), thicknessMm: 3 }, 'a');
    expect(laid.pxPerMm).toBe(pxPerMm);
    expect(at(laid, 20, 15)[0]).toBeCloseTo(0.3, 6);
    expect(at(laid, 15.2, 12.2)[0]).toBeCloseTo(0.3, 6);
    expect(at(laid, 24.8, 17.8)[0]).toBeCloseTo(0.3, 6);
    expect(at(laid, 14.8, 15)[1]).toBeCloseTo(0.86, 6);
    expect(at(laid, 20, 18.2)[1]).toBeCloseTo(0.86, 6);
  });
}); // prettier-ignore
