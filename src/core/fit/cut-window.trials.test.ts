import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { cutWindowOf, type CutTrial } from './cut-window';
import { tuples } from '../../../tests/support/tuples';

const DISC_MM = 19;
/** Discs at energies that are evenly apart in their logarithm, each dropped or not as a threshold of its own has it. */
const discs = (from: number, to: number, count: number, least: (at: number) => number, passes = 1): CutTrial[] =>
  Array.from({ length: count }, (_, at) => {
    const energy = from * (to / from) ** (at / (count - 1));
    return { energy, passes, outlineMm: DISC_MM, drops: energy > least(at) };
  });

describe('the energies at which parts drop', () => {
  // C. I. Bliss, "The calculation of the dosage-mortality curve", Ann. Appl. Biol. 22 (1935) 134: beetles by log10 of the dose. Its probit line by
  // maximum likelihood, -34.935 + 19.728 x: A. J. Dobson, A. G. Barnett, An Introduction to Generalized Linear Models (2008), table 7.4.
  it('are those of a published probit line, where nothing holds up', () => {
    const beetles = [
      [1.6907, 59, 6],
      [1.7242, 60, 13],
      [1.7552, 62, 18],
      [1.7842, 56, 28],
      [1.8113, 63, 52],
      [1.8369, 59, 53],
      [1.861, 62, 61],
      [1.8839, 60, 60],
    ] as const;
    const trials = beetles.flatMap(([dose, of, killed]) =>
      Array.from({ length: of }, (_, at): CutTrial => ({
        energy: 10 ** dose,
        passes: 1,
        outlineMm: 1,
        drops: at < killed,
      })),
    );
    const window = cutWindowOf(trials, 1e-6);
    const line = (probit: number): number => 10 ** ((probit + 34.935) / 19.728);
    expect(window.comesThrough(1).energy / line(0)).toBeCloseTo(1, 2);
    for (const [chance, probit] of tuples([0.5, 0], [0.9, 1.2816], [0.98, 2.0537]))
      expect(Math.abs(window.energyFor(chance, 1, 1)! / line(probit) - 1), `${chance}`).toBeLessThan(0.03);
    // By the line's own information matrix, of which its standard errors of 2.65 and 1.49 are the roots: 90 % lies between 85.6 and 93.3 % with 95 %
    // certainty, and the dose for half of them between 10^(1.7708 - 0.0075) and 10^(1.7708 + 0.0075). Scatters are weighed in steps of two, coarse
    // for as many as 481: bands come out up to a third too narrow.
    const { low, high } = window.chanceAt(line(1.2816), 1, 1);
    expect(Math.abs(low - 0.856)).toBeLessThan(0.025);
    expect(Math.abs(high - 0.933)).toBeLessThan(0.025);
    const half = window.comesThrough(1);
    for (const end of [half.low, half.high]) {
      const away = Math.abs(Math.log10(end) - 1.7708) / 0.0075;
      expect(away).toBeGreaterThan(0.6);
      expect(away).toBeLessThan(1.1);
    }
  });

  it('scale with the unit of energy', () => {
    const [one, ten] = [1, 10].map((unit) =>
      cutWindowOf(
        discs(0.5 * unit, 3 * unit, 24, () => 1.1 * unit),
        0.3,
      ),
    );
    expect(ten!.energyFor(0.98, 1, DISC_MM)! / one!.energyFor(0.98, 1, DISC_MM)!).toBeCloseTo(10, 1);
    expect(ten!.chanceAt(12, 1, DISC_MM).chance).toBeCloseTo(one!.chanceAt(1.2, 1, DISC_MM).chance, 2);
    expect(ten!.heldUp).toEqual(one!.heldUp);
  });

  it('let more drop with more energy, and fewer with a longer outline: of one twice as long no fewer than both its halves', () => {
    const window = cutWindowOf(
      discs(0.5, 3, 36, (at) => (at % 11 === 7 ? 2 : 1.1)),
      0.3,
    );
    let before = 0;
    for (let energy = 0.6; energy < 3; energy *= 1.08) {
      const { chance, low, high } = window.chanceAt(energy, 1, DISC_MM);
      expect(chance).toBeGreaterThanOrEqual(before - 1e-9);
      expect(low).toBeLessThanOrEqual(high);
      before = chance;
      const twice = window.chanceAt(energy, 1, 2 * DISC_MM).chance;
      expect(twice).toBeLessThanOrEqual(chance + 1e-9);
    }
    // Where sound stock is through for certain, both halves drop as by two throws; doubt about how many places hold up binds them together.
    const [once, twice] = [1, 2].map((times) => window.chanceAt(2.2, 1, times * DISC_MM).chance);
    expect(twice).toBeGreaterThanOrEqual(once! ** 2);
    expect(window.energyFor(0.98, 1, 200)!).toBeGreaterThan(1.2 * window.energyFor(0.98, 1, DISC_MM)!);
  });

  it('are unsure where few discs were tapped, and surer with each', () => {
    // How the discs happen to lie about what just comes through evens out over a few.
    const margin = (count: number): number =>
      [1.02, 1.08, 1.14].reduce((sum, least) => {
        const window = cutWindowOf(
          discs(0.5, 3, count, () => least),
          0.03,
        );
        return sum + window.energyFor(0.98, 1, DISC_MM)! / least / 3;
      }, 0);
    const margins = [6, 12, 36].map(margin);
    expect(margins).toEqual([...margins].sort((one, other) => other - one));
    expect(margins[0]).toBeGreaterThan(1.3);
    expect(margins[2]).toBeLessThan(1.2);
  });

  it('see places that hold up, and ask for more where there are some', () => {
    const sound = cutWindowOf(
      discs(0.5, 3, 36, () => 1.1),
      0.3,
    );
    const glued = cutWindowOf(
      discs(0.5, 3, 36, (at) => (at % 5 === 0 ? 1.9 : 1.1)),
      0.3,
    );
    // What was usual before stays about that where nothing held up.
    expect(sound.heldUp.per100Mm).toBeGreaterThan(0.1);
    expect(sound.heldUp.per100Mm).toBeLessThan(0.6);
    expect(glued.heldUp.per100Mm).toBeGreaterThan(2 * sound.heldUp.per100Mm);
    expect(glued.energyFor(0.98, 1, DISC_MM)!).toBeGreaterThan(1.3 * sound.energyFor(0.98, 1, DISC_MM)!);
    // No energy that would be asked for drops nearly all of a long outline that is glued every few centimetres.
    expect(glued.energyFor(0.999, 1, 100 * DISC_MM)).toBeNull();
    // Sound stock comes through where it did.
    expect(glued.comesThrough(1).energy).toBeCloseTo(sound.comesThrough(1).energy, 1);
  });

  it('are told by passes where these differ, dearer or cheaper than one', () => {
    const mixed = (factor: number): CutTrial[] =>
      [1, 2, 4].flatMap((passes) => discs(0.6, 2.2, 12, () => 1.1 * factor ** Math.log2(passes), passes));
    for (const factor of [0.9, 1, 1.15]) {
      const window = cutWindowOf(mixed(factor), 0.03);
      const ratio = window.comesThrough(4).energy / window.comesThrough(1).energy;
      expect(ratio / factor ** 2, `${factor}`).toBeGreaterThan(0.85);
      expect(ratio / factor ** 2, `${factor}`).toBeLessThan(1.15);
    }
  });

  it('end with an answer, or none, for anything that may be answered', () => {
    const random = seedrandom('anything');
    const guesses = discs(0.5, 3, 30, () => 1.1).map((one) => ({ ...one, drops: random() < 0.5 }));
    const unsure = cutWindowOf(guesses, 0.3);
    expect(unsure.energyFor(0.98, 1, DISC_MM) ?? Infinity).toBeGreaterThan(3);
    const backwards = discs(0.5, 3, 30, () => 1.1).map((one) => ({ ...one, drops: !one.drops }));
    expect(cutWindowOf(backwards, 0.3).energyFor(0.98, 1, DISC_MM) ?? Infinity).toBeGreaterThan(3);
    const alike = Array.from({ length: 8 }, (_, at): CutTrial => ({
      energy: 1,
      passes: 1,
      outlineMm: DISC_MM,
      drops: at < 4,
    }));
    expect(cutWindowOf(alike, 0.3).chanceAt(1, 1, DISC_MM).chance).toBeCloseTo(0.5, 1);
    expect(() => cutWindowOf([], 0.3)).toThrow(/there are none/);
    for (const wrong of [{ energy: 0 }, { energy: NaN }, { passes: 0 }, { outlineMm: -1 }])
      expect(() => cutWindowOf([{ ...alike[0]!, ...wrong }], 0.3)).toThrow(/above zero/);
  });

  // Made-up stocks of the test's own: sound stock scatters, and some discs meet a place that asks for more.
  it('drop what they promise, over stocks that differ, and not with needlessly much', () => {
    const random = seedrandom('stocks');
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let [dropped, all] = [0, 0];
    const margins: number[] = [];
    for (let stock = 0; stock < 16; stock++) {
      const grown = stock % 2 === 0;
      const middle = Math.exp(0.3 * normal());
      const scatter = 0.01 + 0.05 * random();
      const share = grown ? 0.02 + 0.08 * random() : 0;
      const least = (): number => middle * Math.exp(scatter * normal() + (random() < share ? 0.1 + 0.4 * random() : 0));
      const window = cutWindowOf(discs(0.45, 2.9, 36, least), grown ? 0.3 : 0.03);
      const energy = window.energyFor(0.98, 1, DISC_MM)!;
      const places = Array.from({ length: 500 }, least).sort((a, b) => a - b);
      dropped += places.filter((one) => energy > one).length;
      all += places.length;
      margins.push(energy / places[Math.floor(0.98 * places.length)]!);
    }
    expect(dropped / all).toBeGreaterThan(0.98);
    margins.sort((a, b) => a - b);
    expect(margins[8]).toBeLessThan(1.25);
  });
});
