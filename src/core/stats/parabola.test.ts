import { describe, expect, it } from 'vitest';
import seedrandom from 'seedrandom';
import { meanAndSpread } from './robust';
import { studentFactor } from './student';
import { vertexOf } from './parabola';

const over = (xs: readonly number[], y: (x: number) => number) => xs.map((x) => ({ x, y: y(x) }));
const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

describe('the vertex of a parabola', () => {
  it('is where it was put, with its bend, wherever the points lie', () => {
    const vertex = vertexOf(over([-1, 0, 0.5, 2, 3, 7], (x) => 4 - 0.7 * (x - 1.3) ** 2))!;
    expect(vertex.x).toBeCloseTo(1.3, 8);
    expect(vertex.bend).toBeCloseTo(-0.7, 8);
    expect(vertex.sigma).toBeLessThan(1e-6);
    expect(vertexOf(over([-1, 0, 0.5, 2], (x) => 0.2 * (x + 5) ** 2))!.x).toBeCloseTo(-5, 7);
  });

  it('needs four points at three places, and a bend', () => {
    expect(vertexOf(over([0, 1, 2], (x) => x * x))).toBeNull();
    expect(vertexOf([...over([0, 1], (x) => x), ...over([0, 1], (x) => x + 1)])).toBeNull();
    expect(vertexOf(over([0, 1, 2, 3], () => 5))).toBeNull();
  });

  it('is as sure as it says: its true place lies within one sigma as often as Student’s law has it', () => {
    // To one side of the middle: slope and bend go together there.
    const xs = [-3, -2.8, -2.5, -2, -1, 1, 3];
    const random = seedrandom('vertex');
    const told = Array.from({ length: 2000 }, () =>
      vertexOf(over(xs, (x) => -0.5 * (x - 0.4) ** 2 + 0.5 * normal(random)))!,
    );
    const held = told.filter(({ x, sigma }) => Math.abs(x - 0.4) < sigma).length / told.length;
    expect(Math.abs(held - 0.6827)).toBeLessThan(0.04);
    // To first order: sigma by the points' own 0.5 over 2c, known from the design of seven even points, whose middle is free of the rest.
    const spread = meanAndSpread(told.map(({ x }) => x)).spread;
    expect(spread).toBeGreaterThan(0.9 * (0.5 / Math.sqrt(28)));
    const median = told.map(({ sigma }) => sigma).sort((a, b) => a - b)[1000]!;
    expect(median / spread).toBeGreaterThan(0.8);
    expect(median / spread).toBeLessThan(1.2 * studentFactor(4, 0.6827));
  });

  it('says how clear its bend is over the scatter', () => {
    const random = seedrandom('bend');
    const flat = vertexOf(over([-3, -2, -1, 0, 1, 2, 3], () => normal(random)))!;
    expect(flat.clear).toBeLessThan(4);
    expect(vertexOf(over([-3, -2, -1, 0, 1, 2, 3], (x) => x * x + 0.01 * normal(random)))!.clear).toBeGreaterThan(100);
  });
});
