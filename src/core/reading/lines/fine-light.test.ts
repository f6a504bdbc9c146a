import { describe, expect, it } from 'vitest';
import { LINEAR_OF_BYTE } from '../../color/srgb';
import { invertHomography, project, type Homography } from '../../geometry/homography';
import type { Rect } from '../../geometry/point';
import type { LightOnBare } from '../light/light-on-bare';
import { fineLight } from './fine-light';

const photo = {
  width: 160,
  height: 120,
  data: Uint8Array.from({ length: 160 * 120 * 3 }, (_, at) => 40 + ((at * 37) % 151)),
};
/** Turned, tilted, and so that the far side of the card is smaller. */
const TILTED: Homography = [9, 2.5, 18, -2, 8, 25, 0.012, 0.006, 1];
const STOCK = [0.5, 0.3, 0.2] as const;
const bare = (x: number, y: number) => [0.6 + 0.02 * x, 0.5 - 0.02 * x, 0.4 + 0.002 * x * y] as const;
const levelling = (x: number) => ({ gain: [1.1, 1.2, 1.3 + 0.01 * x], added: [0.02, 0.01, 0.03] }) as const;
const fine = (toPhoto: Homography) =>
  fineLight(photo, toPhoto, { field: { at: bare } as unknown as LightOnBare, levelling }, STOCK, 40);

/** Each pixel that looks at an area, by asking all of them. */
function asked(toPhoto: Homography, area: Rect): { x: number; y: number; share: number }[] {
  const toCard = invertHomography(toPhoto);
  const weights = [0.2126 * STOCK[0], 0.7152 * STOCK[1], 0.0722 * STOCK[2]] as const;
  return Array.from({ length: photo.width * photo.height }, (_, pixel) => {
    const { x, y } = project(toCard, pixel % photo.width, Math.floor(pixel / photo.width));
    const { gain, added } = levelling(x);
    const light = ([0, 1, 2] as const).map(
      (c) => (weights[c] * (gain[c] * LINEAR_OF_BYTE[photo.data[3 * pixel + c]!]! - added[c])) / bare(x, y)[c],
    );
    return { x, y, share: (light[0]! + light[1]! + light[2]!) / (weights[0] + weights[1] + weights[2]) };
  }).filter(({ x, y }) => x >= area.x && x < area.x + area.width && y >= area.y && y < area.y + area.height);
}

describe('the photo’s own pixels on an area of the card', () => {
  const turnedRound: Homography = [-9, -2.5, 140, 2, -8, 95, 0.012, 0.006, 1];
  // The photo's upper left corner looks past the plane of the card.
  const steep: Homography = [9, 2.5, 18, -2, 8, 100, -0.1, 0.3, 1];
  it.each<[string, Homography, Rect]>([
    ['a cell', TILTED, { x: 2, y: 1.5, width: 4, height: 3 }],
    ['a narrow strip across', TILTED, { x: 1, y: 4, width: 7, height: 0.4 }],
    ['a narrow strip down', TILTED, { x: 3, y: 0.5, width: 0.4, height: 7 }],
    ['a card that lies upside down', turnedRound, { x: 2, y: 1.5, width: 4, height: 3 }],
    ['a card that is seen steeply', steep, { x: 2, y: 1.5, width: 4, height: 3 }],
    ['an area that the photo ends in', TILTED, { x: 8, y: -4, width: 5, height: 20 }],
  ])('are each pixel that looks at it, once, with its share of bare stock’s light: %s', (_, toPhoto, area) => {
    const { count, xMm, yMm, share } = fine(toPhoto).pixelsOf(area);
    const all = asked(toPhoto, area);
    expect(all.length).toBeGreaterThan(100);
    expect(count).toBe(all.length);
    const most = (of: (pixel: (typeof all)[0], k: number) => number): number => Math.max(...all.map(of));
    expect(most((pixel, k) => Math.hypot(xMm[k]! - pixel.x, yMm[k]! - pixel.y))).toBeLessThan(1e-9);
    // Light is straight between every sixth pixel.
    expect(most((pixel, k) => Math.abs(share[k]! - pixel.share))).toBeLessThan(3e-3);
  });
  it('are every third of them where so many will do', () => {
    const area = { x: 2, y: 1.5, width: 4, height: 3 };
    const all = fine(TILTED).pixelsOf(area);
    const some = fine(TILTED).pixelsOf(area, 3);
    expect(some.count).toBe(Math.ceil(all.count / 3));
    const third = (values: Float64Array): number[] => [...values.slice(0, all.count)].filter((_, k) => k % 3 === 0);
    for (const of of ['xMm', 'yMm', 'share'] as const)
      expect([...some[of].slice(0, some.count)]).toEqual(third(all[of]));
  });
  it('are none of an area that lies outside the photo', () => {
    expect(fine(TILTED).pixelsOf({ x: 40, y: 40, width: 3, height: 3 }).count).toBe(0);
  });
});
