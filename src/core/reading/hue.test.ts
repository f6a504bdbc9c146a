import { describe, expect, it } from 'vitest';
import { hueShift } from './hue';

const LEATHER = [0.46, 0.25, 0.12] as const;
const even = (red: number, green = red, blue = red) => Array.from({ length: 4 }, () => ({ red, green, blue }));

describe('the hue of a burn', () => {
  it('is the stock’s own where all channels are taken alike, however dark or light it is', () => {
    for (const share of [0.03, 0.3, 0.9, 1.6]) {
      const { a, b } = hueShift(even(share), LEATHER, 0);
      expect(a).toBeCloseTo(0, 9);
      expect(b).toBeCloseTo(0, 9);
    }
  });
  it('is bluish, yellowish, reddish or greenish by what is left of each channel', () => {
    const bluish = hueShift(even(0.3, 0.3, 0.5), LEATHER, 0);
    expect(bluish.b).toBeLessThan(-5);
    expect(hueShift(even(0.3, 0.3, 0.2), LEATHER, 0).b).toBeGreaterThan(3);
    expect(hueShift(even(0.4, 0.3, 0.3), LEATHER, 0).a).toBeGreaterThan(3);
    expect(hueShift(even(0.2, 0.3, 0.3), LEATHER, 0).a).toBeLessThan(-3);
  });
  it('is as CIELAB has it: a grey burn on orange stock loses the stock’s own colour', () => {
    // On grey of the luminance of the cell there is no a* and b*: what is missing is the plain darker stock's.
    const grey = even(0.1 / LEATHER[0], 0.1 / LEATHER[1], 0.1 / LEATHER[2]);
    const { a, b } = hueShift(grey, LEATHER, 0);
    const share = 0.1 / (0.2126 * 0.46 + 0.7152 * 0.25 + 0.0722 * 0.12);
    const [r, g, c] = LEATHER.map((value) => value * share) as [number, number, number];
    const x = (0.4124 * r + 0.3576 * g + 0.1805 * c) / 0.9505;
    const z = (0.0193 * r + 0.1192 * g + 0.9505 * c) / 1.089;
    expect(a).toBeCloseTo(-500 * (Math.cbrt(x) - Math.cbrt(0.1)), 6);
    expect(b).toBeCloseTo(-200 * (Math.cbrt(0.1) - Math.cbrt(z)), 6);
  });
  it('is the less sure the darker the cell, the more its parts scatter, and the less is known of the light', () => {
    const sigma = (parts: ReturnType<typeof even>, light = 0): number => hueShift(parts, LEATHER, light).sigma;
    expect(sigma(even(0.05))).toBeGreaterThan(1.2 * sigma(even(0.8)));
    const [one, two] = [even(0.3, 0.3, 0.25), even(0.3, 0.3, 0.35)];
    expect(sigma([...one.slice(0, 2), ...two.slice(0, 2)])).toBeGreaterThan(1.5 * sigma(even(0.3)));
    expect(sigma(even(0.3), 0.3)).toBeGreaterThan(3);
    expect(() => hueShift(even(0.3).slice(0, 1), LEATHER, 0)).toThrow(RangeError);
  });
});
