import { describe, expect, it } from 'vitest';
import { drawnPatch } from '../../../../tests/support/drawn-lines';
import type { Layout } from '../../card/layout';
import { rectRing } from '../../card/shape';
import { lightAcross } from './across';
import { blurAcross, blurBetween } from './blur';
import { softEdge } from './soft-edge';
import { tuples } from '../../../../tests/support/tuples';

const PX = 40;
const pixel = 1 / Math.sqrt(12) / PX;
/** Burned squares on bare stock, like a card's markers, whose sides are as soft as a burn leaves them. */
const SQUARES = [0.6, 3.2].flatMap((x) => [0.6, 3.2].map((y) => ({ x, y, sizeMm: 1.6 })));
const layout = { frame: { markers: SQUARES }, cells: [], before: [] } as unknown as Layout;
const photo = (blurMm: number) =>
  drawnPatch({
    widthMm: 5.4,
    heightMm: 5.4,
    pxPerMm: PX,
    turned: 2,
    noise: 0.003,
    blurMm,
    share: (x, y) =>
      SQUARES.some((square) => x > square.x && x < square.x + 1.6 && y > square.y && y < square.y + 1.6) ? 0.25 : 1,
  });

describe('an edge', () => {
  it.each([0.015, 0.03, 0.06])('is as soft as it was blurred, by %d mm, whichever side is burned', (blurMm) => {
    for (const [near, far] of tuples([1, 0.3], [0.3, 1])) {
      const fine = drawnPatch({
        widthMm: 3,
        heightMm: 1,
        pxPerMm: PX,
        turned: 2,
        noise: 0.003,
        blurMm,
        share: (_, y) => (y < 0.53 ? near : far),
      });
      const edge = softEdge(lightAcross(fine, { x: 0.2, y: 0, width: 2.6, height: 1 }, 'horizontal'))!;
      expect(edge.sigmaMm / Math.hypot(blurMm, pixel)).toBeGreaterThan(0.9);
      expect(edge.sigmaMm / Math.hypot(blurMm, pixel)).toBeLessThan(1.12);
      expect(edge.clear).toBeGreaterThan(20);
    }
  });

  it('is none where nothing changes', () => {
    const fine = drawnPatch({ widthMm: 2, heightMm: 1, pxPerMm: PX, noise: 0.003, share: () => 0.6 });
    const edge = softEdge(lightAcross(fine, { x: 0, y: 0, width: 2, height: 1 }, 'horizontal'));
    expect(edge === null || edge.clear < 8).toBe(true);
  });
});

describe('what a camera blurs', () => {
  it.each(['horizontal', 'vertical'] as const)(
    'across %s lines is no more than the edges of markers are soft',
    (run) => {
      const blur = blurAcross(photo(0.04), layout, run, 0.08)!;
      const drawn = Math.hypot(0.04, pixel);
      expect(blur.mostMm).toBeGreaterThan(0.95 * drawn);
      expect(blur.mostMm).toBeLessThan(1.12 * drawn);
      // A beam of 0.08 mm softens an edge by at most 0.02, and by two fifths of that at the least.
      expect(blur.leastMm).toBeCloseTo(Math.sqrt(blur.mostMm ** 2 + 0.008 ** 2 - 0.02 ** 2), 9);
    },
  );

  it('is no less than any camera’s, where the beam could have softened edges by as much, or nothing is known of it', () => {
    const floor = 0.45 / PX;
    expect(blurAcross(photo(0.015), layout, 'horizontal', 0.2)!.leastMm).toBeCloseTo(floor, 9);
    expect(blurAcross(photo(0.04), layout, 'horizontal', null)!.leastMm).toBeCloseTo(floor, 9);
  });

  it('is told by what is filled alone: grain at the rims of cells with a single line is no edge', () => {
    const settings = { intervalMm: 0.1, direction: 'horizontal' };
    const cells = [1, 2, 3, 4].map((y) => {
      const area = [rectRing({ x: 0.4, y: y - 0.05, width: 4.6, height: 0.1 })];
      return {
        leftOut: false,
        box: { x: 0.4, y: y - 0.4, width: 4.6, height: 0.8 },
        burns: [{ shape: { do: 'sweep', area }, settings }],
      };
    });
    // Light steps where the cells end, far softer than a camera leaves an edge.
    const soft = drawnPatch({
      widthMm: 5.4,
      heightMm: 5.4,
      pxPerMm: PX,
      noise: 0.001,
      blurMm: 0.02,
      share: (_, y) => 1 - 0.2 * Math.sin((2 * Math.PI * y) / 1.6) ** 2,
    });
    expect(
      blurAcross(soft, { frame: { markers: [] }, cells, before: [] } as unknown as Layout, 'horizontal', 0.1),
    ).toBeNull();
  });

  it('is not told without clear edges', () => {
    const bare = drawnPatch({ widthMm: 5.4, heightMm: 5.4, pxPerMm: 20, noise: 0.003, share: () => 0.9 });
    expect(blurAcross(bare, layout, 'horizontal', 0.08)).toBeNull();
  });

  it('leaves of a wave what the Fourier transform of a normal law leaves', () => {
    // exp(-2 pi² (1/10)²) = 0.8209; sigma a quarter of the pitch leaves 0.2912.
    expect(blurBetween(0.01, 0.01).leftOf(0.1)).toEqual({
      share: expect.closeTo(0.8209, 4) as number,
      relativeSigma: 0,
    });
    expect(blurBetween(0.025, 0.025).leftOf(0.1).share).toBeCloseTo(0.2912, 4);
    const between = blurBetween(0.01, 0.025).leftOf(0.1);
    expect(between.share).toBeCloseTo(Math.sqrt(0.8209 * 0.2912), 3);
    // Evenly between two ends: the width over the root of twelve.
    expect(between.relativeSigma).toBeCloseTo(Math.log(0.8209 / 0.2912) / Math.sqrt(12), 3);
  });
});
