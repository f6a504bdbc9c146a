import { describe, expect, it } from 'vitest';
import { hazeOf, valuesAt } from './smoke';

const plane = { data: Float32Array.of(0, 1, 4, 5, 8, 9), width: 2, height: 3 };
const at = (y: number, ...xs: number[]): number[] => {
  const values = new Float64Array(xs.length);
  valuesAt(plane, Float64Array.from(xs), y, values);
  return [...values].map((value) => Math.round(value * 100) / 100);
};

describe('a haze on coarse blocks', () => {
  it('is each block’s own in its middle, a mixture between two, and held at the edges', () => {
    expect(at(0.5, 0.5, 1.5)).toEqual([0, 1]);
    expect(at(1.5, 0.5, 1.5)).toEqual([4, 5]);
    expect(at(0.75, 0.5, 0.75)).toEqual([1, 1.25]);
    expect(at(2.9, 0, 2)).toEqual([8, 9]);
    expect(at(0, 0.5)).toEqual([0]);
  });
  it('grows with how strongly blocks burned, and with the stock’s smoke', () => {
    const even = { data: new Float32Array(25).fill(1), width: 5, height: 5 };
    expect(hazeOf(even, 0.5).data[12]).toBeCloseTo(0.06, 6);
    const one = { ...even, data: Float32Array.from({ length: 25 }, (_, k) => (k === 12 ? 1 : 0)) };
    const spread = hazeOf(one, 1).data;
    expect(spread[12]!).toBeGreaterThan(spread[11]!);
    expect(spread[11]!).toBeGreaterThan(spread[10]!);
  });
});
