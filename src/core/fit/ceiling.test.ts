import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { ceilingOf, type StrengthAtPower } from './ceiling';

/** Patches at forty powers from a twentieth to all. */
const POWERS = Array.from({ length: 40 }, (_, k) => 0.05 * 20 ** (k / 39));
const patches = (strength: (power: number, k: number) => number, sigma = 0.4): StrengthAtPower[] =>
  POWERS.map((power, k) => ({ power, strength: strength(power, k), sigma }));
const ceiling = (strength: Parameters<typeof patches>[0], sigma?: number) => ceilingOf(patches(strength, sigma), 2);
/** Straight up to 40 L* at 0.4, and flat from there: within 2 L* from 0.38 on. */
const bent = (power: number): number => 40 * Math.min(1, power / 0.4);

describe('the power past which nothing gets stronger', () => {
  it('is where strengths come within two L* of the strongest', () => {
    const fit = ceiling(bent)!;
    expect(fit.strongest).toBeCloseTo(40, 1);
    expect(fit.power).toBeCloseTo(0.38, 3);
    expect(fit).toMatchObject({ reached: true, fallsFrom: null });
    expect(fit.low).toBeLessThan(fit.power);
    expect(fit.high).toBeGreaterThan(fit.power);
    expect(ceilingOf(patches(bent), 4)!.power).toBeCloseTo(0.36, 3);
  });
  it('holds the truth about as often as it says, whatever the shape of the rise, and leans to no side by much', () => {
    const random = seedrandom('ceiling');
    const noise = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    // Within 2 of 40: 1 - 2 / 40 by hand of each law.
    const laws = [
      { at: bent, truth: 0.38 },
      { at: (power: number) => 40 * (1 - Math.exp(-power / 0.1)), truth: 0.1 * Math.log(20) },
    ];
    for (const { at, truth } of laws) {
      let [held, sum, strongest] = [0, 0, 0];
      const runs = 200;
      for (let run = 0; run < runs; run++) {
        const fit = ceiling((power) => at(power) + 0.6 * noise(), 0.6)!;
        if (fit.low <= truth && truth <= fit.high) held++;
        sum += fit.power;
        strongest += fit.strongest;
      }
      expect(held / runs, String(truth)).toBeGreaterThan(0.88);
      expect(Math.abs(sum / runs / truth - 1), String(truth)).toBeLessThan(0.1);
      // Not the strongest by chance of many means of a few.
      expect(Math.abs(strongest / runs - 40), String(truth)).toBeLessThan(0.25);
    }
  });
  it('is as unsure as the patches beside it are, not as those far away', () => {
    const range = (unsureAt: (power: number) => boolean): number => {
      const fit = ceilingOf(
        patches(bent).map((one) => ({ ...one, sigma: unsureAt(one.power) ? 3 : 0.4 })),
        2,
      )!;
      return fit.high - fit.low;
    };
    const sure = range(() => false);
    expect(range((power) => power < 0.2)).toBeCloseTo(sure, 6);
    expect(range((power) => power > 0.3 && power < 0.39)).toBeGreaterThan(3 * sure);
  });
  it('says where patches get weaker again, which does not move it', () => {
    const grey = ceiling((power) => (power < 0.7 ? bent(power) : 40 - 60 * (power - 0.7)))!;
    expect(grey.power).toBeCloseTo(0.38, 2);
    expect(grey.fallsFrom!).toBeGreaterThan(0.7);
    expect(grey.fallsFrom!).toBeLessThan(0.9);
  });
  it('is none where the strongest marks stand off bare stock by no more than what counts as the same and three sigmas of theirs', () => {
    // The mean of a window of four patches of sigma 1.6 is sure to 0.8: three of that and two L* are 4.4.
    const most = (strength: number) => ceiling(() => strength, 1.6);
    expect(most(4.3)).toBeNull();
    expect(most(4.5)).not.toBeNull();
  });
  it('is not reached where patches still get stronger at the strongest power', () => {
    const fit = ceiling((power) => 40 * power)!;
    expect(fit.reached).toBe(false);
    expect(ceilingOf(patches(bent).slice(0, 28), 2)!.reached).toBe(false);
  });
  it('is none of few patches, or where hardly anything marks', () => {
    expect(ceilingOf(patches(bent).slice(20, 25), 2)).toBeNull();
    expect(ceilingOf(patches(bent).slice(20, 26), 2)).not.toBeNull();
    expect(ceiling(() => 1)).toBeNull();
    expect(() => ceiling(bent, 0)).toThrow(/invalid patch/);
  });
});
