import { converter } from 'culori';
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { chromaOfLinear, lightnessOfLuminance, luminanceOfLightness } from './lab';
import { byteOfLinear, hexColour, LINEAR_OF_BYTE, linearToSrgb, luminance, parseHexColour, srgbToLinear } from './srgb';

/** CIELAB of D65 by another library. */
const reference = converter('lab65');
const byte = fc.integer({ min: 0, max: 255 });

describe('sRGB', () => {
  // IEC 61966-2-1: the linear piece ends at 0.04045 encoded.
  it('is continuous where its two pieces meet', () => expect(srgbToLinear(0.04045)).toBeCloseTo(0.04045 / 12.92, 6));
  it('is straight up to 0.0031308 of the light, that included', () =>
    expect(linearToSrgb(0.0031308)).toBe(12.92 * 0.0031308));
  prop([fc.double({ min: 0, max: 1, noNaN: true })])('turns round and back', (value) => {
    expect(linearToSrgb(srgbToLinear(value))).toBeCloseTo(value, 6);
  });
  it('brings every byte back by table', () => {
    for (let byte = 0; byte < 256; byte++) expect(byteOfLinear(LINEAR_OF_BYTE[byte]!)).toBe(byte);
  });
  it('ends at black and white, whatever comes', () => {
    expect([-1, -1e-9, 0, NaN].map(byteOfLinear)).toEqual([0, 0, 0, 0]);
    expect([1, 1.0001, 7, Infinity].map(byteOfLinear)).toEqual([255, 255, 255, 255]);
    // Just under white the table still answers: the last byte begins at half a byte below it.
    expect([0.9999, 0.99, 1e-12].map(byteOfLinear)).toEqual([255, 254, 0]);
  });
  it('reads and writes #rrggbb', () => {
    expect(hexColour(parseHexColour('#c8a06e'))).toBe('#c8a06e');
    for (const wrong of ['red', 'x#c8a06e', '#c8a06e0', '#c8a06'])
      expect(() => parseHexColour(wrong)).toThrow(`invalid colour: ${wrong}`);
    expect(hexColour([1, 300, -4])).toBe('#01ff00');
    expect([-0.2, 1.3].map(linearToSrgb)).toEqual([0, linearToSrgb(1)]);
  });
});

describe('CIELAB lightness', () => {
  const lightnessOfBytes = (bytes: readonly [number, number, number]): number => {
    const [r, g, b] = bytes.map((byte) => srgbToLinear(byte / 255)) as [number, number, number];
    return lightnessOfLuminance(luminance(r, g, b));
  };
  // Evaluated independently from IEC 61966-2-1 and CIE 15.
  it.each([
    [[128, 128, 128], 53.585],
    [[119, 119, 119], 50.034],
    [[200, 160, 110], 68.423],
  ] as const)('%o has L* %f', (rgb, lightness) => expect(lightnessOfBytes(rgb)).toBeCloseTo(lightness, 2));

  prop([byte, byte, byte])('agrees with a reference library', (r, g, b) => {
    const expected = reference({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
    expect(Math.abs(lightnessOfBytes([r, g, b]) - expected.l)).toBeLessThan(0.02);
  });

  prop([fc.double({ min: 0, max: 100, noNaN: true })])('turns round and back', (lightness) => {
    expect(lightnessOfLuminance(luminanceOfLightness(lightness))).toBeCloseTo(lightness, 8);
  });
});

describe('CIELAB a* and b*', () => {
  const chromaOfBytes = (bytes: readonly [number, number, number]) =>
    chromaOfLinear(...(bytes.map((byte) => srgbToLinear(byte / 255)) as [number, number, number]));
  // Published conversions of sRGB's primaries by B. Lindbloom's calculator, D65.
  it.each([
    [[255, 0, 0], 80.09, 67.2],
    [[0, 255, 0], -86.18, 83.18],
    [[0, 0, 255], 79.19, -107.86],
  ] as const)('of %o are %f and %f', (rgb, a, b) => {
    const chroma = chromaOfBytes(rgb);
    expect(Math.abs(chroma.a - a)).toBeLessThan(0.2);
    expect(Math.abs(chroma.b - b)).toBeLessThan(0.2);
  });
  it('are nought for every grey', () => {
    for (const byte of [0, 3, 40, 128, 255]) {
      const { a, b } = chromaOfBytes([byte, byte, byte]);
      expect(Math.hypot(a, b)).toBeLessThan(1e-6);
    }
  });
  prop([byte, byte, byte])('are as another library has them', (r, g, b) => {
    const expected = reference({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
    const chroma = chromaOfBytes([r, g, b]);
    expect(Math.abs(chroma.a - expected.a)).toBeLessThan(0.1);
    expect(Math.abs(chroma.b - expected.b)).toBeLessThan(0.1);
  });
});
