import { describe, expect, it } from 'vitest';
import seedrandom from 'seedrandom';
import { parabolaThrough } from './parabola';

const over = (xs: readonly number[], y: (x: number) => number, sigma = 0.01) => xs.map((x) => ({ x, y: y(x), sigma }));
const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

describe('a parabola', () => {
  it('has its vertex and bend where they were put, wherever the points lie', () => {
    const found = parabolaThrough(over([-1, 0, 0.5, 2, 3, 7], (x) => 4 - 0.7 * (x - 1.3) ** 2))!;
    expect(found.x).toBeCloseTo(1.3, 8);
    expect(found.bend).toBeCloseTo(-0.7, 8);
    expect(found.misfit).toBeLessThan(1e-6);
    expect(found.at(5).y).toBeCloseTo(4 - 0.7 * 3.7 ** 2, 8);
    expect(parabolaThrough(over([-1, 0, 2], (x) => 0.2 * (x + 5) ** 2))!.x).toBeCloseTo(-5, 7);
  });
  it('needs three places, and a bend', () => {
    expect(parabolaThrough([...over([0, 1], (x) => x), ...over([0, 1], (x) => x + 1)])).toBeNull();
    expect(parabolaThrough(over([0, 1, 2, 3], () => 5))).toBeNull();
    expect(() => parabolaThrough(over([0, 1, 2], (x) => x * x, 0))).toThrow(/invalid sigma/);
  });
  it('has the sigmas of NumPy’s polyfit with weights', () => {
    // numpy.polyfit(x, y, 2, w=1/s, cov='unscaled') of NumPy 2, made-up points.
    const points = [
      [-2, 0.1, 0.2],
      [-1, 3.05, 0.1],
      [0, 3.9, 0.2],
      [1, 3.02, 0.1],
      [2, -0.1, 0.3],
    ].map(([x, y, sigma]) => ({ x: x!, y: y!, sigma: sigma! }));
    const found = parabolaThrough(points)!;
    expect(found.bend).toBeCloseTo(-0.99122718, 7);
    expect(found.bendSigma).toBeCloseTo(0.05705767, 7);
    expect(found.at(1.2).y).toBeCloseTo(2.54940365, 7);
    expect(found.at(1.2).sigma).toBeCloseTo(0.09676437, 7);
    expect(found.x).toBeCloseTo(-0.01320919, 7);
    expect(found.sigma).toBeCloseTo(0.02784832, 7);
    expect(found.misfit).toBeCloseTo(0.48735012, 7);
  });
  it('is as sure as it says, by the points’ own sigmas', () => {
    // To one side of the middle: slope and bend go together there.
    const xs = [-3, -2.8, -2.5, -2, -1, 1, 3];
    const random = seedrandom('vertex');
    const told = Array.from({ length: 2000 }, () =>
      parabolaThrough(over(xs, (x) => -0.5 * (x - 0.4) ** 2 + 0.5 * normal(random), 0.5))!,
    );
    const held = told.filter(({ x, sigma }) => Math.abs(x - 0.4) < sigma).length / told.length;
    // Where points scatter more than they should, sigmas grow; where less, they do not shrink.
    expect(held).toBeGreaterThan(0.66);
    expect(held).toBeLessThan(0.8);
    const heldAt = told.filter((one) => Math.abs(one.at(2).y + 0.5 * 1.6 ** 2) < one.at(2).sigma).length / told.length;
    expect(Math.abs(heldAt - 0.72)).toBeLessThan(0.06);
  });
  it('says by its misfit that points scatter more than they should, and grows unsurer by it', () => {
    const zigzag = (sigma: number) =>
      parabolaThrough([-3, -2, -1, 0, 1, 2, 3].map((x, at) => ({ x, y: x * x + (at % 2 ? 1 : -1), sigma })))!;
    expect(zigzag(0.1).misfit).toBeGreaterThan(9);
    expect(zigzag(0.1).sigma).toBeCloseTo(zigzag(0.01).sigma, 9);
    expect(zigzag(10).sigma).toBeGreaterThan(5 * zigzag(0.1).sigma);
    expect(zigzag(0.1).bendSigma).toBeGreaterThan(0);
  });
});
