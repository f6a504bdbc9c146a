import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../bench/random';
import { darknessSurface, LEAST_LEVELS, type SurfacePatch } from './darkness-surface';

/** Made-up stock, by no formula of the core: nothing below a threshold, then along a root, then flat, then slightly paler. */
function marks(power: number, speed: number): number {
  const exposure = (power ** 1.3 / (speed / 100) ** 0.8) * 6;
  if (exposure < 0.4) return 0;
  const rise = Math.min(1, Math.sqrt((exposure - 0.4) / 4));
  return 42 * rise - Math.max(0, exposure - 6) * 0.6;
}
const POWERS = Array.from({ length: 6 }, (_, at) => 0.15 * 5 ** (at / 5));
const SPEEDS = Array.from({ length: 6 }, (_, at) => 60 * 5 ** (at / 5));
const RATIO = { across: 'ratio', down: 'ratio' } as const;

function normal(random: () => number): number {
  return Array.from({ length: 12 }, random).reduce((sum, value) => sum + value, -6);
}
function card(seed: string, scatter: number, repeats = 1): SurfacePatch[] {
  const random = randomFrom(seed);
  return POWERS.flatMap((across) =>
    SPEEDS.flatMap((down) =>
      Array.from({ length: repeats }, () => ({
        across,
        down,
        strength: marks(across, down) + Math.hypot(scatter, 0.5) * normal(random),
        sigma: 0.5,
      })),
    ),
  );
}

describe('a darkness surface', () => {
  it('holds what made-up stock would have marked between the cells, as often as its doubt says', () => {
    let [within, all, off] = [0, 0, 0];
    for (let seed = 0; seed < 25; seed++) {
      const surface = darknessSurface(card(`seed ${seed}`, 0.8), RATIO)!;
      expect(surface.trusted).toBe(true);
      const random = randomFrom(`asked ${seed}`);
      for (let turn = 0; turn < 40; turn++) {
        const [power, speed] = [0.15 * 5 ** random(), 60 * 5 ** random()];
        const { strength, sigma } = surface.at(power, speed);
        const by = strength - marks(power, speed);
        all++;
        off += by ** 2;
        if (Math.abs(by) < 2 * sigma) within++;
      }
    }
    // The corner at the threshold has no shape of the core's.
    expect(within / all).toBeGreaterThan(0.88);
    expect(Math.sqrt(off / all)).toBeLessThan(1.2);
  });
  it('tells what halving the speed is worth: by hand 2^(-0.8 / 1.3)', () => {
    let within = 0;
    for (let seed = 0; seed < 20; seed++) {
      const exchange = darknessSurface(card(`worth ${seed}`, 0.8), RATIO)!.exchangeAt(20);
      expect(exchange!.times).toBeCloseTo(2 ** (-0.8 / 1.3), 1);
      if (Math.abs(Math.log(exchange!.times) + (0.8 / 1.3) * Math.LN2) < 2 * exchange!.logSigma) within++;
    }
    expect(within).toBeGreaterThanOrEqual(12);
    // Turned round, what halving the power is worth in speed.
    const turned = card('worth 0', 0.8).map(({ across, down, ...rest }) => ({ across: down, down: across, ...rest }));
    expect(darknessSurface(turned, RATIO)!.exchangeAt(20)!.times).toBeCloseTo(2 ** (-1.3 / 0.8), 1);
  });
  it('takes the scatter from repeats, without what reading adds', () => {
    for (const scatter of [0.5, 2])
      expect(darknessSurface(card('repeats', scatter, 4), RATIO)!.scatter / scatter).toBeCloseTo(1, 0);
    const offBy = (repeats: number) =>
      [0, 1, 2, 3].reduce((sum, seed) => {
        const surface = darknessSurface(card(`more ${seed}`, 2, repeats), RATIO)!;
        return (
          sum +
          POWERS.reduce(
            (all, power) => all + (surface.at(0.9 * power + 0.03, 130).strength - marks(0.9 * power + 0.03, 130)) ** 2,
            0,
          )
        );
      }, 0);
    expect(Math.sqrt(offBy(4) / offBy(1))).toBeLessThan(0.8);
  });
  it('is surer among its cells than where a quarter of them is missing', () => {
    const all = card('gap', 0.8);
    const some = all.filter(({ across, down }) => !(across > 0.35 && down < 140));
    const at = (patches: SurfacePatch[]) => darknessSurface(patches, RATIO)!.at(0.6, 80).sigma;
    expect(at(some)).toBeGreaterThan(2 * at(all));
  });
  it('is not to be trusted where tone follows neither setting, and tells no exchange then', () => {
    const random = randomFrom('noise');
    const noise = card('any', 0).map((patch) => ({ ...patch, strength: 20 + 9 * normal(random) }));
    const surface = darknessSurface(noise, RATIO)!;
    expect(surface.trusted).toBe(false);
    expect(surface.exchangeAt(20)).toBeNull();
    expect(surface.offL).toBeGreaterThan(6);
  });
  it('is as unsure as it misses its own cells, however smooth it may be', () => {
    // Any strength from none to a hundred, at random: no scatter that is looked at is so large.
    const random = randomFrom('wild');
    const wild = card('any', 0).map((patch) => ({ ...patch, strength: 100 * random() }));
    const { offL, scatter, at } = darknessSurface(wild, RATIO)!;
    expect(offL).toBeGreaterThan(4 * scatter);
    expect(at(0.3, 120).sigma).toBeGreaterThan(2 * scatter);
  });
  it('bends over an offset, strongest where it is sharp', () => {
    const offsets = [-2, -1, 0, 1, 2];
    const patches = POWERS.flatMap((across) =>
      offsets.map((down) => ({
        across,
        down,
        strength: 40 / (1 + Math.exp(-3 - 2 * Math.log(across / 0.4) + 1.2 * (down - 0.4) ** 2)),
        sigma: 0.5,
      })),
    );
    const surface = darknessSurface(patches, { across: 'ratio', down: 'offset' })!;
    const strengths = [-1.6, -0.4, 0.4, 1.6].map((down) => surface.at(0.4, down).strength);
    expect(strengths[2]).toBeGreaterThan(strengths[0]! + 10);
    expect(strengths[2]).toBeGreaterThan(strengths[3]! + 2);
    expect(surface.exchangeAt(20)).toBeNull();
  });
  it('is none for too few levels, one along an edge, or no mark at all', () => {
    const all = card('few', 0.5);
    expect(darknessSurface([], RATIO)).toBeNull();
    expect(darknessSurface(all.slice(0, LEAST_LEVELS - 1), RATIO)).toBeNull();
    const nine = all.filter((_, at) => Math.floor(at / 6) % 2 === 0 && at % 2 === 0);
    expect([nine.length, darknessSurface(nine, RATIO) !== null]).toEqual([LEAST_LEVELS, true]);
    expect(
      darknessSurface(
        all.filter(({ down }) => down === SPEEDS[0]),
        RATIO,
      ),
    ).toBeNull();
    expect(
      darknessSurface(
        all.map((patch) => ({ ...patch, strength: -1 })),
        RATIO,
      ),
    ).toBeNull();
  });
  it('refuses sigmas and ratios that are none', () => {
    const [first, ...rest] = card('bad', 0.5);
    expect(() => darknessSurface([{ ...first!, sigma: 0 }, ...rest], RATIO)).toThrow(/invalid sigma/);
    expect(() => darknessSurface([{ ...first!, across: 0 }, ...rest], RATIO)).toThrow(/invalid level/);
    for (const down of [0, -1])
      expect(() => darknessSurface([{ ...first!, down }, ...rest], RATIO)).toThrow(/invalid level/);
  });
  it('survives equal values everywhere, and one level far stronger than all', () => {
    const same = card('same', 0).map((patch) => ({ ...patch, strength: 30 }));
    expect(darknessSurface(same, RATIO)!.at(0.3, 120).strength).toBeCloseTo(30, 0);
    const odd = card('odd', 0.5).map((patch, at) => (at === 17 ? { ...patch, strength: 60 } : patch));
    const surface = darknessSurface(odd, RATIO)!;
    expect(surface.offL).toBeGreaterThan(3);
    expect(Number.isFinite(surface.at(0.3, 120).sigma)).toBe(true);
  });
});
