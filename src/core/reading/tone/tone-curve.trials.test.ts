import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { linearToSrgb, srgbToLinear } from '../../color/srgb';
import { toneCurve, type SeenTwice } from './tone-curve';

/** A stored value of light by a phone that bends tones: an S through black, middle and white of what sRGB would store. */
const stored = (light: number, strength: number): number => {
  const value = linearToSrgb(light);
  return value - 0.16 * strength * Math.sin(2 * Math.PI * value);
};
/** What sRGB would have stored, by halving. */
function unbent(tone: number, strength: number): number {
  let [low, high] = [0, 1];
  for (let turn = 0; turn < 40; turn++) {
    const middle = (low + high) / 2;
    if (middle - 0.16 * strength * Math.sin(2 * Math.PI * middle) < tone) low = middle;
    else high = middle;
  }
  return low;
}
const STOP = Math.log(2);

/**
 * Places from dark to bright seen under two exposures a stop apart, with noise of so much of the light, which so many of them have in common, as the
 * three channels of a square do.
 */
function pairsOf(strength: number, noise = 0, seed = 'tone', count = 400, alike = 1): SeenTwice[] {
  const random = seedrandom(seed);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  let [first, second] = [0, 0];
  return Array.from({ length: count }, (_, k) => {
    if (k % alike === 0) [first, second] = [noise * normal(), noise * normal()];
    const light = Math.exp(Math.log(0.02) + ((k + 0.5) / count) * (Math.log(0.8) - Math.log(0.02)));
    return {
      first: stored(light * (1 + first), strength),
      second: stored((light / 2) * (1 + second), strength),
      noise: 0,
      x: (k * 7) % 40,
      y: (k * 11) % 30,
    };
  });
}
/** By how much the curve misjudges the light of tones against that of the brightest, each as a logarithm. */
const errors = (curve: NonNullable<ReturnType<typeof toneCurve>>, strength: number): number[] =>
  [0.03, 0.05, 0.08, 0.12, 0.2, 0.3, 0.45, 0.6].map(
    (light) => curve.lightAt(stored(light, strength)) - curve.lightAt(stored(0.75, strength)) - Math.log(light / 0.75),
  );

describe('a camera’s tone curve from two exposures', () => {
  it('is none where it stores light as sRGB has it', () => {
    for (const error of errors(toneCurve(pairsOf(0), STOP, 0)!, 0)) expect(Math.abs(error)).toBeLessThan(1e-6);
  });
  it.each([0.4, 0.8, -0.4])('is found where it bends tones by %f', (strength) => {
    // Undone, a cell of 0.03 is within half a per cent of its light: taken for sRGB it would be off by a quarter and more.
    for (const error of errors(toneCurve(pairsOf(strength), STOP, 0)!, strength))
      expect(Math.abs(error)).toBeLessThan(0.005);
    const asStored = Math.log(
      srgbToLinear(stored(0.03, strength)) / srgbToLinear(stored(0.75, strength)) / (0.03 / 0.75),
    );
    expect(Math.abs(asStored)).toBeGreaterThan(0.25);
  });
  it('is told apart from light that differs by place, as lenses make it', () => {
    const falls = (x: number, y: number): number => 1 + 0.06 * (x / 40 - 0.5) - 0.08 * ((y / 30 - 0.5) ** 2 - 1 / 12);
    const pairs = pairsOf(0.6).map((pair) => {
      const light = srgbToLinear(unbent(pair.second, 0.6)) * falls(pair.x, pair.y);
      return { ...pair, second: stored(light, 0.6) };
    });
    for (const error of errors(toneCurve(pairs, STOP, 0)!, 0.6)) expect(Math.abs(error)).toBeLessThan(0.015);
  });
  it('is told by clear places rather than by noisy ones', () => {
    const pairs = pairsOf(0.6, 0.005).map((pair, k) =>
      k % 2 === 0 ? { ...pair, second: pair.second * 1.06, noise: 0.2 } : pair,
    );
    const worst = (of: readonly SeenTwice[]): number => Math.max(...errors(toneCurve(of, STOP, 0)!, 0.6).map(Math.abs));
    const believed = pairs.map((pair) => ({ ...pair, noise: 0 }));
    expect(worst(pairs)).toBeLessThan(0.04);
    expect(worst(believed)).toBeGreaterThan(1.5 * worst(pairs));
  });
  it('does not care which of the two was the brighter', () => {
    const turned = pairsOf(0.6).map(({ first, second, ...rest }) => ({ ...rest, first: second, second: first }));
    for (const error of errors(toneCurve(turned, -STOP, 0)!, 0.6)) expect(Math.abs(error)).toBeLessThan(0.005);
  });
  it('is not led astray by a tenth of the places, where a shadow or a hand came between', () => {
    const pairs = pairsOf(0.6, 0.01).map((pair, k) => (k % 10 === 3 ? { ...pair, second: pair.second * 0.75 } : pair));
    for (const error of errors(toneCurve(pairs, STOP, 0)!, 0.6)) expect(Math.abs(error)).toBeLessThan(0.02);
  });
  it('says how sure it is: most of the time the truth lies within one sigma, nearly always within two', () => {
    let [within, twice, all] = [0, 0, 0];
    for (let seed = 0; seed < 16; seed++) {
      const curve = toneCurve(pairsOf(0.5, 0.02, `sure ${seed}`, 400, 3), STOP, 0)!;
      errors(curve, 0.5).forEach((error, index) => {
        const light = [0.03, 0.05, 0.08, 0.12, 0.2, 0.3, 0.45, 0.6][index]!;
        const sigma = curve.sigmaBetween(stored(light, 0.5), stored(0.75, 0.5));
        all++;
        if (Math.abs(error) < sigma) within++;
        if (Math.abs(error) < 2 * sigma) twice++;
      });
    }
    expect(within / all).toBeGreaterThan(0.55);
    expect(twice / all).toBeGreaterThan(0.88);
    expect(within / all).toBeLessThan(0.95);
  });
  it('is as unsure as the ratio of the exposures, in proportion', () => {
    const curve = toneCurve(pairsOf(0), STOP, 0.02 * STOP)!;
    const [dark, bright] = [stored(0.075, 0), stored(0.75, 0)];
    expect(curve.sigmaBetween(dark, bright)).toBeCloseTo(0.02 * Math.log(10), 4);
    expect(curve.sigmaBetween(bright, bright)).toBe(0);
    // A ratio that is told five per cent too large makes all steps of light that much too large.
    const wrong = toneCurve(pairsOf(0), 1.05 * STOP, 0)!;
    expect((wrong.lightAt(dark) - wrong.lightAt(bright)) / Math.log(0.1)).toBeCloseTo(1.05, 3);
  });
  it('goes on beyond the tones that were seen as sRGB does', () => {
    const curve = toneCurve(pairsOf(0.5), STOP, 0)!;
    const [least, most] = curve.range;
    expect(least).toBeCloseTo(stored(0.01, 0.5), 2);
    expect(most).toBeCloseTo(stored(0.8, 0.5), 2);
    const light = (tone: number): number => Math.log(srgbToLinear(tone));
    expect(curve.lightAt(0.99) - curve.lightAt(most)).toBeCloseTo(light(0.99) - light(most), 9);
    expect(curve.lightAt(least) - curve.lightAt(0.01)).toBeCloseTo(light(least) - light(0.01), 9);
  });
  it('cannot be told from few places, from exposures that are nearly alike, or from tones that do not meet', () => {
    expect(toneCurve(pairsOf(0.5, 0, 'few', 39), STOP, 0)).toBeNull();
    expect(toneCurve(pairsOf(0.5, 0, 'few', 40), STOP, 0)).not.toBeNull();
    expect(toneCurve(pairsOf(0.5), 0.3, 0)).toBeNull();
    const flat = Array.from({ length: 200 }, (_, k) => ({
      first: 0.8 + 0.001 * k,
      second: 0.5 + 0.0005 * k,
      noise: 0,
      x: 0,
      y: 0,
    }));
    expect(toneCurve(flat, 1, 0)).toBeNull();
  });
  it('is none where the brighter photo is darker than the other: the two were told the wrong way round', () => {
    expect(toneCurve(pairsOf(0), -STOP, 0)).toBeNull();
  });
});
