import { describe, expect, it } from 'vitest';
import { gaussian, type Plane } from './gaussian';

const plane = (width: number, height: number, value: (x: number, y: number) => number): Plane => ({
  width,
  height,
  values: Float64Array.from({ length: width * height }, (_, at) => value(at % width, Math.floor(at / width))),
});
const at = ({ values, width }: Plane, x: number, y: number): number => values[y * width + x]!;

describe('softening by a normal law', () => {
  it('spreads a point by the law in both directions, and keeps its sum', () => {
    const soft = gaussian(
      plane(41, 31, (x, y) => (x === 20 && y === 15 ? 1 : 0)),
      2,
      'nothing',
    );
    expect(soft.values.reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 6);
    expect(at(soft, 20, 15)).toBeCloseTo(1 / (2 * Math.PI * 4), 4);
    // exp(-(3² + 1²) / 8)
    expect(at(soft, 23, 16) / at(soft, 20, 15)).toBeCloseTo(Math.exp(-10 / 8), 6);
    expect(at(soft, 19, 12)).toBeCloseTo(at(soft, 23, 16), 12);
  });

  it('goes on at its border as at its edge, or loses what is spread over it', () => {
    const even = plane(20, 10, () => 0.7);
    expect(at(gaussian(even, 3, 'edge'), 0, 0)).toBeCloseTo(0.7, 12);
    // Each border as its own edge: a step of one that lies half way to it is there what the law's sum has beyond.
    const step = gaussian(
      plane(20, 12, (x, y) => (x > 16 ? 1 : 0) + (y > 9 ? 1 : 0)),
      2,
      'edge',
    );
    expect(at(step, 19, 0)).toBeCloseTo(0.894, 2);
    expect(at(step, 0, 11)).toBeCloseTo(0.773, 2);
    expect(at(step, 0, 0)).toBeCloseTo(0, 4);
    // In a corner a quarter of the law is left, and half of the middle line.
    expect(at(gaussian(even, 1, 'nothing'), 0, 5)).toBeCloseTo(0.7 * (0.5 + 0.3989 / 2), 3);
    expect(at(gaussian(even, 1, 'nothing'), 0, 0)).toBeCloseTo(0.7 * (0.5 + 0.3989 / 2) ** 2, 3);
  });

  it('leaves a plane as it is for no sigma', () => {
    const any = plane(3, 2, (x, y) => x + 10 * y);
    expect(gaussian(any, 0, 'edge')).toBe(any);
  });
});
