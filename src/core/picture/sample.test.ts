import { describe, expect, it } from 'vitest';
import { lightnessOfLuminance } from '../color/lab';
import { packGreys, unpackGreys } from './greys';
import { pondAtDusk } from './pond';
import { darknessOfPixels, resampled, WHOLE } from './sample';

const pixels = (width: number, ...grey: number[]) => ({
  width,
  height: grey.length / width,
  data: grey.flatMap((byte) => [byte, byte, byte, 255]),
});
const darkOf = (of: ReturnType<typeof pixels>, columns: number, rows: number) => [
  ...unpackGreys(darknessOfPixels(of, columns, rows)),
];

describe('greys', () => {
  it('go through base64 and back, and are refused where they do not fit', () => {
    const bytes = Uint8Array.from([0, 1, 127, 128, 254, 255]);
    expect(packGreys(3, 2, bytes).data).toBe(Buffer.from(bytes).toString('base64'));
    expect(unpackGreys(packGreys(3, 2, bytes))).toEqual(bytes);
    for (const [columns, rows] of [
      [2, 2],
      [0, 6],
      [1.5, 4],
    ] as const)
      expect(() => packGreys(columns, rows, bytes)).toThrow(RangeError);
    expect(() => unpackGreys({ columns: 2, rows: 2, data: packGreys(3, 2, bytes).data })).toThrow(/6 greys for 2 by 2/);
    expect(() => unpackGreys({ columns: 1, rows: 1, data: '%' })).toThrow(RangeError);
  });
});

describe('a picture’s darkness', () => {
  it('is in even steps of L*: white none, black all, and middle grey half', () => {
    // sRGB 119 is an L* of 50.03 (CIE 15, IEC 61966-2-1).
    expect(darkOf(pixels(3, 255, 119, 0), 3, 1)).toEqual([0, 127, 255]);
  });
  it('is averaged as light, not as bytes', () => {
    // Half of white's light is an L* of 76.07.
    expect(lightnessOfLuminance(0.5)).toBeCloseTo(76.07, 2);
    expect(darkOf(pixels(2, 255, 0), 1, 1)).toEqual([61]);
    // Three places as two: a whole and a half each.
    const [left, right] = darkOf(pixels(3, 255, 255, 0), 2, 1);
    expect(left).toBe(0);
    expect(right).toBe(Math.round(255 * (1 - lightnessOfLuminance(1 / 3) / 100)));
  });
  it('takes colours by their luminance, and lays what can be seen through on white', () => {
    const of = (red: number, green: number, blue: number, alpha: number) =>
      unpackGreys(darknessOfPixels({ width: 1, height: 1, data: [red, green, blue, alpha] }, 1, 1))[0];
    // Red, green and blue of sRGB have L* 53.2, 87.7 and 32.3.
    expect([of(255, 0, 0, 255), of(0, 255, 0, 255), of(0, 0, 255, 255)]).toEqual([119, 31, 173]);
    expect([of(0, 0, 0, 0), of(0, 0, 0, 255)]).toEqual([0, 255]);
  });
  it('keeps the upper left where it is, and a part of a picture is that part', () => {
    const corner = packGreys(4, 4, Uint8Array.from([255, 200, 0, 0, 100, 50, 0, 0, 0, 0, 0, 0, 0, 0, 0, 9]));
    expect(resampled(corner, WHOLE, 4, 4)).toEqual(corner);
    const part = resampled(corner, { left: 0, top: 0, width: 0.5, height: 0.5 }, 2, 2);
    expect([...unpackGreys(part)]).toEqual([255, 200, 100, 50]);
    expect([...unpackGreys(resampled(corner, { left: 0.75, top: 0.75, width: 0.25, height: 0.25 }, 1, 1))]).toEqual([
      9,
    ]);
  });
  it('lies between its neighbours where there are more places than before', () => {
    const steps = [...unpackGreys(resampled(packGreys(2, 1, Uint8Array.from([0, 200])), WHOLE, 8, 1))];
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
    expect([steps[0], steps.at(-1)]).toEqual([0, 200]);
    expect(new Set(steps).size).toBeGreaterThan(4);
  });
  it('is refused without a place, or where bytes are missing', () => {
    for (const [columns, rows] of [
      [0, 1],
      [1, 0.5],
    ] as const)
      expect(() => darknessOfPixels(pixels(1, 0), columns, rows)).toThrow(/invalid size/);
    expect(() => darknessOfPixels({ width: 2, height: 1, data: [0, 0, 0, 255] }, 1, 1)).toThrow(/4 bytes for 2 by 1/);
  });
  it('of the pond has all tones: bare, black, and much between', () => {
    const bytes = unpackGreys(pondAtDusk());
    const share = (low: number, high: number): number =>
      bytes.filter((byte) => byte >= low && byte < high).length / bytes.length;
    expect([share(0, 40), share(40, 110), share(110, 180), share(240, 256)].map((part) => part > 0.02)).toEqual([
      true,
      true,
      true,
      true,
    ]);
  });
});
