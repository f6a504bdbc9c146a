import { describe, expect, it } from 'vitest';
import { coverageOf, evenDots, runsOfRow, screened, SCREENS } from './screen';
import { tuples } from '../../../tests/support/tuples';

const GREYS = [0.02, 0.0625, 0.1, 0.25, 1 / 3, 0.5, 0.6, 0.8, 0.95];

describe('dots for greys', () => {
  it('cover what was wanted, to half a hundredth', () => {
    for (const grey of GREYS) {
      expect(coverageOf(screened(() => grey, 256, 256, 'floyd-steinberg')), `${grey}`).toBeCloseTo(grey, 2);
      expect(Math.abs(coverageOf(screened(() => grey, 256, 256, 'floyd-steinberg')) - grey)).toBeLessThan(0.005);
      // 64 greys: rounded to the nearest.
      expect(Math.abs(coverageOf(screened(() => grey, 256, 256, 'bayer')) - grey)).toBeLessThanOrEqual(1 / 128 + 1e-9);
    }
  });
  it('are none for white and all for black', () => {
    for (const screen of SCREENS)
      for (const [grey, share] of tuples([0, 0], [1, 1])) {
        expect(coverageOf(screened(() => grey, 9, 7, screen))).toBe(share);
        expect(coverageOf(evenDots(grey, 9, 7, screen))).toBe(share);
      }
  });
  it('follow a ramp place by place', () => {
    const { columns, rows, burned } = screened((column) => column / 255, 256, 128, 'floyd-steinberg');
    for (const from of [0, 64, 128, 192]) {
      let dots = 0;
      for (let row = 0; row < rows; row++)
        for (let column = from; column < from + 64; column++) dots += burned[row * columns + column]!;
      expect(dots / (64 * rows)).toBeCloseTo((from + 31.5) / 255, 1.7);
    }
  });
  it('diffuse errors as published: seven, three, five and one sixteenth', () => {
    // One dot of 0.4 burns nothing; its neighbour has 0.4 + 0.4 * 7 / 16 = 0.575 and does. Below, on the way back, by hand:
    // 0.4 + 0.4 * 5 / 16 + (0.575 - 1) * 3 / 16 and 0.4 + 0.4 * 1 / 16 + (0.575 - 1) * 5 / 16.
    const below = [0.4 + (0.4 * 5) / 16 - (0.425 * 3) / 16, 0.4 + 0.4 / 16 - (0.425 * 5) / 16] as const;
    expect(below[1]).toBeLessThan(0.5);
    expect(below[0] + (below[1] * 7) / 16).toBeGreaterThan(0.5);
    expect([...screened(() => 0.4, 2, 2, 'floyd-steinberg').burned]).toEqual([0, 1, 1, 0]);
  });
  it('are added in the published order', () => {
    // The 4 x 4 corner of the 8 x 8 matrix, as printed: 0 32 8 40 / 48 16 56 24 / 12 44 4 36 / 60 28 52 20.
    const order = tuples([0, 32, 8, 40], [48, 16, 56, 24], [12, 44, 4, 36], [60, 28, 52, 20]);
    order.forEach((row, y) =>
      row.forEach((place, x) => {
        const at = (grey: number): number => screened(() => grey, 8, 8, 'bayer').burned[y * 8 + x]!;
        expect(at((place + 0.4) / 64), `${x} ${y}`).toBe(0);
        expect(at((place + 0.6) / 64), `${x} ${y}`).toBe(1);
      }),
    );
  });
  it('of an even grey begin as they go on, light ones too', () => {
    for (const grey of [0.0625, 0.125, 0.9375]) {
      const { columns, rows, burned } = evenDots(grey, 32, 32, 'floyd-steinberg');
      expect(Math.abs(coverageOf({ columns, rows, burned }) - grey)).toBeLessThan(0.012);
      const half = (from: number): number =>
        coverageOf({ columns, rows: 16, burned: burned.subarray(from, from + 512) });
      for (const from of [0, 512]) expect(Math.abs(half(from) - grey), `${grey} ${from}`).toBeLessThan(0.02);
    }
  });
  it('come in runs, and in no size that is none', () => {
    const dots = { columns: 6, rows: 2, burned: Uint8Array.from([1, 1, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0]) };
    expect(runsOfRow(dots, 0)).toEqual([
      [0, 2],
      [4, 5],
    ]);
    expect(runsOfRow(dots, 1)).toEqual([]);
    for (const columns of [0, 1.5, NaN]) expect(() => screened(() => 0, columns, 3, 'bayer')).toThrow(RangeError);
    expect(() => screened(() => 0, 3, 0, 'bayer')).toThrow(RangeError);
  });
});
