import seedrandom from 'seedrandom';
import { linearRegression } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { weightedLine, type LinePoint } from './weighted-line';

const random = seedrandom('points');
const POINTS: LinePoint[] = [2, 3, 5, 8, 9, 14].map((x) => ({ x, y: 3 - 0.4 * x + random(), sigma: 0.3 }));
const height = (line: NonNullable<ReturnType<typeof weightedLine>>, x: number): number =>
  line.middleY + line.slope * (x - line.middleX);

describe('a straight line through points', () => {
  it('is another library’s where all points are alike sure', () => {
    const line = weightedLine(POINTS)!;
    const { m, b } = linearRegression(POINTS.map(({ x, y }) => [x, y]));
    expect(line.slope).toBeCloseTo(m, 12);
    expect(height(line, 0)).toBeCloseTo(b, 12);
    expect(line.degrees).toBe(4);
  });
  it('goes by a point twice as sure as by four like it', () => {
    const [first, ...others] = POINTS as [LinePoint, ...LinePoint[]];
    const sure = weightedLine([{ ...first, sigma: first.sigma / 2 }, ...others])!;
    const often = weightedLine([first, first, first, first, ...others])!;
    for (const of of ['middleX', 'middleY', 'slope', 'middleSigma', 'slopeSigma'] as const)
      expect(sure[of], of).toBeCloseTo(often[of], 12);
    const { m } = linearRegression([first, first, first, first, ...others].map(({ x, y }) => [x, y]));
    expect(sure.slope).toBeCloseTo(m, 12);
  });
  it('is so sure as it comes out when points are drawn again by their sigmas', () => {
    const drawn = Array.from({ length: 4000 }, () => {
      const noise = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      return weightedLine(POINTS.map(({ x }) => ({ x, y: 3 - 0.4 * x + 0.3 * noise(), sigma: 0.3 })))!;
    });
    const rms = (of: (line: (typeof drawn)[number]) => number): number =>
      Math.sqrt(drawn.reduce((sum, line) => sum + of(line) ** 2, 0) / drawn.length);
    // Four thousand draws tell a sigma to about a fiftieth.
    expect(rms(({ slope }) => slope + 0.4) / drawn[0]!.slopeSigma).toBeCloseTo(1, 1);
    expect(rms((line) => height(line, line.middleX) - 3 + 0.4 * line.middleX) / drawn[0]!.middleSigma).toBeCloseTo(
      1,
      1,
    );
    expect(rms(({ misfit }) => misfit)).toBeCloseTo(1, 1);
  });
  it('has nothing to scatter about with two points, and is none through one x', () => {
    expect(
      weightedLine([
        { x: 0, y: 1, sigma: 1 },
        { x: 2, y: 5, sigma: 1 },
      ]),
    ).toMatchObject({ slope: 2, misfit: 0, degrees: 0 });
    expect(
      weightedLine([
        { x: 1, y: 1, sigma: 1 },
        { x: 1, y: 5, sigma: 1 },
      ]),
    ).toBeNull();
    expect(() => weightedLine([{ x: 1, y: 1, sigma: 0 }])).toThrow(/invalid sigma: 0/);
  });
});
