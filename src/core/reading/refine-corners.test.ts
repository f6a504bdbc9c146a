import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/point';
import type { GrayImage } from '../image/raster';
import type { Quad } from './quad';
import { refineCorners } from './refine-corners';
import { points } from '../../../tests/support/points';

const WIDTH = 120;
const HEIGHT = 90;
const LOOKS = 8;

/** A dark convex quad on light ground, each pixel the mean of 64 looks; pixel centres lie at whole coordinates. */
function drawn(corners: readonly Point[], dark = 60, light = 180): GrayImage {
  const inside = (x: number, y: number): boolean =>
    corners.every((from, side) => {
      const to = corners[(side + 1) % 4]!;
      return (to.x - from.x) * (y - from.y) - (to.y - from.y) * (x - from.x) >= 0;
    });
  const data = Uint8Array.from({ length: WIDTH * HEIGHT }, (_, index) => {
    const [x, y] = [index % WIDTH, Math.floor(index / WIDTH)];
    let share = 0;
    for (let k = 0; k < LOOKS * LOOKS; k++) {
      const u = ((k % LOOKS) + 0.5) / LOOKS - 0.5;
      const v = (Math.floor(k / LOOKS) + 0.5) / LOOKS - 0.5;
      if (inside(x + u, y + v)) share += 1 / LOOKS ** 2;
    }
    return Math.round(light + (dark - light) * share);
  });
  return { data, width: WIDTH, height: HEIGHT };
}
const TRUTH = points([30.3, 20.7], [84.6, 26.2], [79.9, 70.4], [26.1, 66.5]);
const REACH = { reachPx: 4, softenedPx: 1 };
const moved = (...by: readonly (readonly [x: number, y: number])[]): Quad =>
  TRUTH.map(({ x, y }, index) => {
    const [right, down] = by[index % by.length]!;
    return { x: x + right, y: y + down };
  }) as unknown as Quad;
const off = (quad: Quad, truth: readonly Point[] = TRUTH): number[] =>
  quad.map(({ x, y }, index) => Math.hypot(x - truth[index]!.x, y - truth[index]!.y));

describe('corners of a dark quad', () => {
  it.each([
    [moved([0, 0]), 0.05],
    [moved([1.5, -1], [-1.2, 1.4], [1, 1.3], [-1.6, -0.8]), 0.05],
    [moved([2, 2]), 0.07],
  ] as const)('are found from a guess that is off, at %j, to %f pixels', (guess, most) => {
    for (const distance of off(refineCorners(drawn(TRUTH), guess, REACH))) expect(distance).toBeLessThan(most);
  });

  it('are found where the quad was given the other way round, too', () => {
    const back = [0, 3, 2, 1].map((index) => TRUTH[index]!);
    const guess = back.map(({ x, y }) => ({ x: x + 1, y: y - 1 })) as unknown as Quad;
    for (const distance of off(refineCorners(drawn(TRUTH), guess, REACH), back)) expect(distance).toBeLessThan(0.05);
  });

  it('are found beside a burr that hides a part of one side', () => {
    const image = drawn(TRUTH);
    for (let y = 16; y < 24; y++) image.data.fill(60, y * WIDTH + 50, y * WIDTH + 57);
    for (const distance of off(refineCorners(image, moved([1, 1]), REACH))) expect(distance).toBeLessThan(0.1);
  });

  it('stay where they are where there is no edge: on even ground, on light ones, and where contrast is too faint', () => {
    const guess = moved([1, 1]);
    expect(refineCorners(drawn(TRUTH, 180, 180), guess, REACH)).toEqual(guess);
    expect(refineCorners(drawn(TRUTH, 178, 180), guess, REACH)).toEqual(guess);
    // Light on dark is turned round before: here its edges go the wrong way.
    expect(refineCorners(drawn(TRUTH, 180, 60), guess, REACH)).toEqual(guess);
  });

  it('stay where they are at a side whose edge lies out of reach', () => {
    const guess = moved([0, -8], [0, -8], [0, 0], [0, 0]);
    const found = refineCorners(drawn(TRUTH), guess, REACH);
    expect(found[0]).toEqual(guess[0]);
    expect(found[1]).toEqual(guess[1]);
    expect(off(found)[2]).toBeLessThan(0.1);
    expect(off(found)[3]).toBeLessThan(0.1);
  });

  it('of a quad at the picture’s border are found as far as it can be seen', () => {
    const atBorder = points([1.2, 20.4], [40.5, 18.3], [42.2, 60.1], [2.8, 62.6]);
    const found = refineCorners(drawn(atBorder), atBorder.map(({ x, y }) => ({ x: x + 0.8, y })) as unknown as Quad, {
      reachPx: 4,
      softenedPx: 1,
    });
    expect(off(found, atBorder)[1]).toBeLessThan(0.05);
    expect(off(found, atBorder)[2]).toBeLessThan(0.05);
    for (const { x, y } of found) expect(Number.isFinite(x) && Number.isFinite(y)).toBe(true);
  });
});
