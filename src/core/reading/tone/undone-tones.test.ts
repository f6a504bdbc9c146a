import { describe, expect, it } from 'vitest';
import { srgbToLinear } from '../../color/srgb';
import type { ToneCurve } from './tone-spline';
import { tonesOf } from './undone-tones';

const RANGE = [0.1, 0.9] as const;
/** A camera that stores sRGB, but for a bend in the logarithm of light; told to so much of a doubt between any two tones. */
const curveOf = (bend: (stored: number) => number, sigma = 0): ToneCurve => ({
  lightAt: (stored) => Math.log(srgbToLinear(stored)) + bend(stored),
  sigmaBetween: () => sigma,
  range: RANGE,
  firstRange: RANGE,
  sigma: 0,
  others: [],
  residuals: new Float64Array(0),
});
/** So much in the middle, none at both ends and beyond. */
const hump = (most: number) => (stored: number) => most * Math.max(0, 1 - ((stored - 0.5) / 0.4) ** 2);

describe('what a camera did to tones', () => {
  it('is nothing of one that stores light as sRGB has it, whatever the curve’s constant is', () => {
    const { linearOfByte, bentBy } = tonesOf(curveOf(() => 1.7));
    expect(bentBy).toBeCloseTo(0, 9);
    for (const byte of [0, 1, 40, 128, 255]) expect(linearOfByte[byte]).toBeCloseTo(srgbToLinear(byte / 255), 6);
  });
  it('is undone byte by byte, with the brightest tone that was seen as it was', () => {
    const { linearOfByte } = tonesOf(curveOf(hump(0.3)));
    expect(linearOfByte[230]).toBeCloseTo(srgbToLinear(230 / 255), 2);
    const byte = 128;
    const bent = Math.exp(hump(0.3)(byte / 255));
    expect(linearOfByte[byte]! / srgbToLinear(byte / 255)).toBeCloseTo(bent, 6);
  });
  it('is told by the tone that is bent most, wherever it lies, less two sigmas', () => {
    expect(tonesOf(curveOf(hump(0.3))).bentBy).toBeCloseTo(Math.expm1(0.3), 3);
    expect(tonesOf(curveOf(hump(-0.3))).bentBy).toBeCloseTo(Math.expm1(0.3), 3);
    expect(tonesOf(curveOf(hump(0.3), 0.05)).bentBy).toBeCloseTo(Math.expm1(0.2), 3);
    expect(tonesOf(curveOf(hump(0.3), 0.2)).bentBy).toBe(0);
    // Tones that the card is not read by do not count.
    const beyond = curveOf((stored) => (stored < 0.1 ? 2 : 0));
    expect(tonesOf(beyond).bentBy).toBeCloseTo(0, 9);
  });
  it('leaves a ratio of lights as sure as the tones that they were stored as', () => {
    const asked: number[][] = [];
    const curve = { ...curveOf(hump(0.3)), sigmaBetween: (a: number, b: number) => asked.push([a, b]) };
    const { linearOfByte, sigmaOfRatio } = tonesOf(curve);
    asked.length = 0;
    sigmaOfRatio(linearOfByte[90]!, linearOfByte[170]!);
    expect(asked[0]![0]).toBeCloseTo(90 / 255, 4);
    expect(asked[0]![1]).toBeCloseTo(170 / 255, 4);
  });
});
