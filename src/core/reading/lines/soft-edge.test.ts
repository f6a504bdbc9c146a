import { describe, expect, it } from 'vitest';
import { softEdge } from './soft-edge';

/** Light across an area of half a millimetre, in so many bins. */
function across(light: (mm: number) => number, count = 80) {
  const at = Float64Array.from({ length: count }, (_, k) => ((k + 0.5) * 0.5) / count);
  return { at, share: at.map(light), count: new Float64Array(count).fill(3) };
}
/** Sum of a normal law, by Abramowitz and Stegun, Handbook of Mathematical Functions (1964), 26.2.17. */
function normal(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const [a, b, c, d, e] = [0.31938153, -0.356563782, 1.781477937, -1.821255978, 1.330274429] as const;
  const beyond = (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * t * (a + t * (b + t * (c + t * (d + t * e))));
  return z > 0 ? 1 - beyond : beyond;
}
const edge =
  (sigmaMm: number, from = 1, to = 0.3, place = 0.25) =>
  (mm: number): number =>
    from + (to - from) * normal((mm - place) / sigmaMm);

describe('a soft edge', () => {
  it('is as wide as the normal law whose sum it follows, darker or lighter, wherever it lies in the middle', () => {
    for (const sigma of [0.02, 0.04]) {
      expect(softEdge(across(edge(sigma)))!.sigmaMm).toBeCloseTo(sigma, 3);
      expect(softEdge(across(edge(sigma, 0.3, 1)))!.sigmaMm).toBeCloseTo(sigma, 3);
    }
    for (const place of [0.2, 0.3]) expect(softEdge(across(edge(0.02, 1, 0.3, place)))!.sigmaMm).toBeCloseTo(0.02, 3);
  });
  it('is as clear as it is high over what scatters beside it', () => {
    expect(softEdge(across((mm) => (mm < 0.25 ? 1 : 0.3)))!.clear).toBe(Infinity);
    const rough = (mm: number): number => edge(0.01)(mm) + (Math.floor(mm * 160) % 2 === 0 ? 0.01 : -0.01);
    const { clear } = softEdge(across(rough))!;
    expect(clear).toBeGreaterThan(60);
    expect(clear).toBeLessThan(75);
  });
  it('is not moved by noise on the flats, and goes by its last rise', () => {
    const bumped = (mm: number): number => edge(0.02)(mm) - (mm > 0.13 && mm < 0.16 ? 0.09 : 0);
    expect(softEdge(across(bumped))!.sigmaMm).toBeCloseTo(0.02, 3);
  });
  it('is none in even light, in a bar that goes back, or in too few bins', () => {
    expect(softEdge(across(() => 0.7))).toBeNull();
    expect(softEdge(across((mm) => (Math.abs(mm - 0.25) < 0.05 ? 0.3 : 1)))).toBeNull();
    expect(softEdge(across(edge(0.02), 7))).toBeNull();
    expect(softEdge(across(edge(0.05), 8))).not.toBeNull();
  });
});
