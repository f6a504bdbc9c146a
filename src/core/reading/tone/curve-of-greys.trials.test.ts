import { describe, expect, it } from 'vitest';
import { linearToSrgb, srgbToLinear } from '../../color/srgb';
import type { SeenGrey, SheetGreys } from '../sheet/sheet-greys';
import { curveOfGreys } from './curve-of-greys';

const COUNT = 36;
const reflectance = (step: number): number => 0.04 * 25 ** (step / (COUNT - 1));
const SHEET: SheetGreys = {
  reflectances: Array.from({ length: COUNT }, (_, step) => [reflectance(step), reflectance(step), reflectance(step)]),
  contrastSigma: 0.01,
};
/** A stored tone of light by a phone: an S through what sRGB would store. */
const stored = (light: number, bend: number): number => {
  const value = linearToSrgb(light);
  return value - (bend / 2) * Math.sin(2 * Math.PI * value);
};
/** Light that falls off to the right, dimmer in blue. */
const lightAt = ({ x }: { x: number }, channel: number): number => 0.8 * [1, 0.95, 0.7][channel]! * Math.exp(-x / 800);
interface Shot {
  readonly bend?: number;
  readonly count?: number;
  readonly added?: (grey: { readonly x: number; readonly y: number }) => number;
  readonly hidden?: number;
}
/** Greys scattered over a sheet of 200 by 120 mm, some of them under a scrap as dark as their own half. */
function seen({ bend = 0.1, count = COUNT, added = () => 0, hidden = 0 }: Shot = {}): SeenGrey[] {
  return Array.from({ length: count }, (_, k) => {
    const step = count === COUNT ? k : Math.round((k * (COUNT - 1)) / (count - 1));
    const place = { x: (k * 77) % 200, y: (k * 53) % 120 };
    const sent = (k % 7 === 3 && k / 7 < hidden ? 0.4 : 1) * reflectance(step);
    const tone = (channel: number): number => stored((sent + added(place)) * lightAt(place, channel), bend);
    return { step, ...place, rgb: [tone(0), tone(1), tone(2)] };
  });
}

describe('the tone curve of a camera by one photo of greys', () => {
  it('is told whatever the camera bends and whatever light falls on them', () => {
    for (const bend of [0, 0.1, -0.08]) {
      const { curve, residuals, paperLightAt, added } = curveOfGreys(seen({ bend }), SHEET)!;
      const of = (light: number): number => curve.lightAt(stored(light, bend)) - curve.lightAt(stored(0.5, bend));
      for (const light of [0.05, 0.1, 0.2, 0.35, 0.7])
        expect(Math.abs(of(light) - Math.log(light / 0.5))).toBeLessThan(0.03);
      expect(Math.max(...residuals.map(Math.abs))).toBeLessThan(0.03);
      // Paper is darker in blue, and by an eighth of an e-fold for every hundred millimetres.
      const [left, right] = [paperLightAt({ x: 20, y: 60 }), paperLightAt({ x: 180, y: 60 })];
      expect(left[2] - left[1]).toBeCloseTo(Math.log(0.7 / 0.95), 1);
      expect(right[1] - left[1]).toBeCloseTo(-0.2, 1);
      for (const one of added) expect(Math.abs(one.added)).toBeLessThan(0.01 + 0.03 * one.grey);
    }
  });
  it('is not told by too few greys, by greys that are too alike, or where one is black', () => {
    expect(curveOfGreys(seen({ count: 18 }), SHEET)).not.toBeNull();
    expect(curveOfGreys(seen({ count: 17 }), SHEET)).toBeNull();
    expect(curveOfGreys(seen().slice(17), SHEET)).not.toBeNull();
    expect(
      curveOfGreys(
        seen()
          .slice(18, 36)
          .map((grey) => ({ ...grey, step: 35 })),
        SHEET,
      ),
    ).toBeNull();
    const alike = seen().map((grey) => ({ ...grey, rgb: [0.5, 0.5 + grey.step / 200, 0.5] as const }));
    expect(curveOfGreys(alike, SHEET)).toBeNull();
    const black = seen().map((grey, k) => (k === 0 ? { ...grey, rgb: [0, 0.2, 0.2] as const } : grey));
    expect(curveOfGreys(black, SHEET)).toBeNull();
  });
  it('says how unsure each grey is: by its print, and at the dark end by a part of what the camera bends there', () => {
    const of = (bend: number) => curveOfGreys(seen({ bend }), SHEET)!.added;
    for (const bend of [0, 0.1]) for (const { sigmaShare } of of(bend)) expect(sigmaShare).toBe(0.008);
    for (const { bentShare } of of(0)) expect(bentShare).toBe(0);
    const bent = [...of(0.1)].sort((a, b) => a.grey - b.grey);
    // By hand, of the darkest grey: light of 0.03 is stored so much darker that it looks half an e-fold darker.
    const light = 0.04 * 0.8;
    const off = Math.log(srgbToLinear(stored(light, 0.1)) / light) - Math.log(srgbToLinear(stored(0.8, 0.1)) / 0.8);
    expect(bent[0]!.bentShare / (0.06 * Math.abs(off))).toBeGreaterThan(0.6);
    expect(bent[0]!.bentShare / (0.06 * Math.abs(off))).toBeLessThan(1);
    expect(bent.at(-1)!.bentShare).toBeLessThan(0.2 * bent[0]!.bentShare);
  });
  it('leaves out a grey that is hidden, and says so in what it leaves over', () => {
    const plain = curveOfGreys(seen(), SHEET)!;
    const { curve, residuals, added } = curveOfGreys(seen({ hidden: 2 }), SHEET)!;
    const far = residuals.filter((residual) => Math.abs(residual) > 0.5);
    expect(far).toHaveLength(2 * 3);
    expect(added).toHaveLength(COUNT - 2);
    const span = (of: typeof curve): number => of.lightAt(0.8) - of.lightAt(0.3);
    expect(span(curve)).toBeCloseTo(span(plain.curve), 1);
  });
  it('tells where light was added, and about how much', () => {
    const wall = ({ x }: { x: number }): number => 0.04 * (x / 200) ** 2;
    const told = curveOfGreys(seen({ added: wall }), SHEET)!.added;
    const mean = (of: typeof told): number => of.reduce((sum, one) => sum + one.added, 0) / of.length;
    const dark = told.filter(({ grey }) => grey < 0.2);
    const [left, right] = [dark.filter(({ x }) => x < 60), dark.filter(({ x }) => x > 140)];
    expect(mean(right) - mean(left)).toBeGreaterThan(0.015);
    expect(mean(right) - mean(left)).toBeLessThan(0.045);
  });
});
