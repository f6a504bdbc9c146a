import { describe, expect, it } from 'vitest';
import { likelyBoxes, type Likelihood, type Range } from './likely-boxes';
import { tuples } from '../../../tests/support/tuples';

/** Two unknowns that go together: a normal law with these means and deviations. */
const MEANS = [0.31, -1.2] as const;
const TOGETHER = 0.6;
const ranges: readonly Range[] = tuples([-2, 2], [-5, 3]);

/** Logarithm of a normal law's density, so many times as narrow. */
function normal(narrow: number, [x, y]: readonly number[]): number {
  const [u, v] = [(x! - MEANS[0]) * narrow, ((y! - MEANS[1]) * narrow) / 2];
  const left = 1 - TOGETHER ** 2;
  return -(u * u - 2 * TOGETHER * u * v + v * v) / (2 * left) - Math.log((4 * Math.PI * Math.sqrt(left)) / narrow ** 2);
}
const told = (narrow: number, most?: number): Likelihood<{ readonly logLikelihood: number }> =>
  likelyBoxes(ranges, (at) => ({ logLikelihood: normal(narrow, at) }), most);

describe('boxes of a likelihood', () => {
  it.each([2.5, 10, 40])('have the normal law’s mean, deviations and integral, %d times as narrow', (narrow) => {
    const { boxes, logMean } = told(narrow, 600);
    const mean = (of: (at: readonly number[]) => number): number =>
      boxes.reduce((sum, { at, share }) => sum + share * of(at), 0);
    const [x, y] = [mean((at) => at[0]!), mean((at) => at[1]!)];
    expect((x - MEANS[0]) * narrow).toBeCloseTo(0, 1);
    expect(((y - MEANS[1]) * narrow) / 2).toBeCloseTo(0, 1);
    expect(Math.sqrt(mean((at) => (at[0]! - x) ** 2)) * narrow).toBeCloseTo(1, 1);
    expect((Math.sqrt(mean((at) => (at[1]! - y) ** 2)) * narrow) / 2).toBeCloseTo(1, 1);
    expect((mean((at) => (at[0]! - x) * (at[1]! - y)) * narrow ** 2) / 2).toBeCloseTo(TOGETHER, 1);
    // So many share it that it is told well, where five halvings do for that; what is far less likely than the likeliest is not among them.
    expect(1 / boxes.reduce((sum, { share }) => sum + share ** 2, 0)).toBeGreaterThan(narrow < 40 ? 30 : 10);
    expect(boxes.length).toBeGreaterThan(24);
    expect(Math.min(...boxes.map(({ share }) => share)) / boxes[0]!.share).toBeGreaterThan(Math.exp(-10));
    // All of the law lies in the ranges, which are 4 by 8: its integral is 1.
    expect(Math.exp(logMean) * 32).toBeCloseTo(1, 1);
  });

  it('are at the most so many, which cuts the law’s tails off', () => {
    const { boxes } = told(10);
    const mean = boxes.reduce((sum, { at, share }) => sum + share * at[0]!, 0);
    const deviation = 10 * Math.sqrt(boxes.reduce((sum, { at, share }) => sum + share * (at[0]! - mean) ** 2, 0));
    expect(boxes.length).toBeLessThanOrEqual(96);
    expect(deviation).toBeGreaterThan(0.9);
    expect(deviation).toBeLessThan(1);
  });

  it('come with what was found in them, the likeliest first', () => {
    const { boxes } = likelyBoxes(ranges, (at) => ({ logLikelihood: normal(5, at), place: at }));
    for (const { at, found } of boxes) expect(found.place).toEqual(at);
    expect(boxes[0]!.share).toBe(Math.max(...boxes.map(({ share }) => share)));
    expect(boxes.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
  });

  it('are the first ones where all are alike, and few where few are asked for', () => {
    const even = likelyBoxes(ranges, () => ({ logLikelihood: 2 }), 36);
    expect(even.boxes).toHaveLength(36);
    expect(even.logMean).toBeCloseTo(2, 12);
    const few = likelyBoxes(ranges, (at) => ({ logLikelihood: normal(40, at) }), 4);
    expect(few.boxes).toHaveLength(4);
    // Within the law's own breadth.
    expect(Math.abs(few.boxes[0]!.at[0]! - MEANS[0]) * 40).toBeLessThan(1);
  });

  it('are halved no further than is needed, nor more often than five times', () => {
    const looks = (narrow: number): number => {
      let count = 0;
      likelyBoxes(ranges, (at) => {
        count++;
        return { logLikelihood: normal(narrow, at) };
      });
      return count;
    };
    // 36 at first; where one box has it all 24 are kept each time, and parted in four.
    expect(looks(0.01)).toBe(36);
    expect(looks(1e9)).toBe(36 + 5 * 4 * 24);
  });

  it('are none where nothing is likely, and leave out what is not', () => {
    expect(likelyBoxes(ranges, () => ({ logLikelihood: -Infinity }))).toEqual({ boxes: [], logMean: -Infinity });
    const half = likelyBoxes([[0, 1]], ([x]) => ({ logLikelihood: x! < 0.5 ? 0 : -Infinity }));
    expect(half.boxes.every(({ at }) => at[0]! < 0.5)).toBe(true);
    expect(Math.exp(half.logMean)).toBeCloseTo(0.5, 12);
  });
});
