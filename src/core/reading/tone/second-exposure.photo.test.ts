import { describe, expect, it } from 'vitest';
import { linearToSrgb, srgbToLinear } from '../../color/srgb';
import type { Rectified } from '../rectify';
import { seenTwice, undoneTones } from './second-exposure';

const PX = 20;

/** A straightened card of 12 x 10 mm whose squares of half a millimetre get darker one after another, as a camera stores them. */
function seen(share: number, bends = (encoded: number) => encoded): Rectified {
  const [width, height] = [12 * PX, 10 * PX];
  const data = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const square = Math.floor(y / 10) * 24 + Math.floor(x / 10);
      const light = share * 0.8 * Math.exp(-3.4 * (square / 480));
      for (const channel of [0, 1, 2])
        data[(y * width + x) * 3 + channel] = srgbToLinear(bends(linearToSrgb(light * [1, 0.9, 0.7][channel]!)));
    }
  return { data, width, height, pxPerMm: PX, clipped: new Uint8Array(width * height) };
}
const STOP = { logRatio: Math.log(2), logRatioSigma: 0 };

describe('what two photos both show of a card', () => {
  it('is every even square, channel by channel, from the first to the second', () => {
    const pairs = seenTwice(seen(1), seen(0.5));
    expect(pairs).toHaveLength(480 * 3);
    for (const { first, second } of pairs) expect(srgbToLinear(first) / srgbToLinear(second)).toBeCloseTo(2, 4);
  });
  it('is heard alike in all tones: of many squares of one tone only some are taken', () => {
    const even = seen(1);
    even.data.fill(0.5, 0, even.data.length / 2);
    const pairs = seenTwice(even, even);
    const same = pairs.filter(({ first }) => Math.abs(first - linearToSrgb(0.5)) < 1e-3);
    // Half of 480 squares are of one tone: sixty of them are taken, and three channels of each.
    expect(same).toHaveLength(180);
    expect(pairs.length - same.length).toBeGreaterThan(200 * 3);
  });
  it('leaves out squares with an edge in them, and those at an end of the camera’s range, in either photo', () => {
    const [edge, ended] = [seen(1), seen(0.9)];
    for (let y = 0; y < 10; y++) edge.data.fill(0.1, (y * edge.width + 5) * 3, (y * edge.width + 10) * 3);
    ended.clipped[30] = 1;
    expect(seenTwice(edge, seen(0.9))).toHaveLength(479 * 3);
    expect(seenTwice(seen(0.9), edge)).toHaveLength(479 * 3);
    expect(seenTwice(seen(1), ended)).toHaveLength(479 * 3);
    expect(seenTwice(ended, seen(1))).toHaveLength(479 * 3);
    // Where a channel has no light at all, nothing tells how much more the other photo has.
    for (const channel of [0, 1, 2]) {
      const black = seen(1);
      for (let y = 0; y < 10; y++) for (let x = 0; x < 10; x++) black.data[(y * black.width + x) * 3 + channel] = 0;
      expect(seenTwice(black, seen(0.9)), `${channel}`).toHaveLength(479 * 3);
    }
  });
  it('is nothing where they are not of one size', () => {
    expect(seenTwice(seen(1), { ...seen(0.5), width: 10 })).toEqual([]);
  });
});

describe('tones undone', () => {
  const bends = (encoded: number): number => encoded - 0.05 * Math.sin(2 * Math.PI * encoded);
  it('give each stored byte the light that made it', () => {
    const { linearOfByte, sigmaOfRatio } = undoneTones(seen(1, bends), seen(0.5, bends), STOP)!;
    const of = (light: number): number => linearOfByte[Math.round(255 * bends(linearToSrgb(light)))]!;
    for (const light of [0.05, 0.1, 0.2, 0.4]) expect(of(light) / of(0.7) / (light / 0.7)).toBeCloseTo(1, 1);
    expect(linearOfByte[0]).toBe(0);
    // As bright as it was where it was brightest.
    const top = bends(linearToSrgb(0.8));
    expect(linearOfByte[Math.round(255 * top)]! / srgbToLinear(top)).toBeCloseTo(1, 1);
    expect(linearOfByte.every((light, byte) => byte === 0 || light > linearOfByte[byte - 1]!)).toBe(true);
    expect(sigmaOfRatio(0.3, 0.3)).toBe(0);
  });
  it('are sRGB’s own where the camera has them so', () => {
    const { linearOfByte, bentBy } = undoneTones(seen(1), seen(0.5), STOP)!;
    for (const byte of [40, 90, 150, 210]) expect(linearOfByte[byte]! / srgbToLinear(byte / 255)).toBeCloseTo(1, 3);
    expect(bentBy).toBeLessThan(0.001);
  });
  it('are as unsure of a ratio of lights as the exposures are of theirs', () => {
    const told = undoneTones(seen(1, bends), seen(0.5, bends), { ...STOP, logRatioSigma: 0.05 * Math.log(2) })!;
    expect(told.sigmaOfRatio(0.07, 0.7)).toBeCloseTo(0.05 * Math.log(10), 2);
  });
  it('are not told by two photos that have nothing in common', () => {
    expect(undoneTones(seen(1), { ...seen(0.5), width: 10 }, STOP)).toBeNull();
  });
});
