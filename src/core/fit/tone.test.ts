import { describe, expect, it } from 'vitest';
import { lookedUp, TABLE_SIZE } from '../picture/tone-table';
import { greyFor, murrayDaviesCoverage, offStraight, toneOf, toneTable } from './tone';

const GREYS = Array.from({ length: 16 }, (_, step) => (step + 1) / 16);
/** Patches of sixteen greys, twice, by a law of tones; the second half of them differs from the first by so much. */
const wedge = (law: (grey: number) => number, differ = 0, greys = GREYS) =>
  [-1, 1].flatMap((side) => greys.map((grey) => ({ grey, strength: law(grey) + side * differ, sigma: 0.5 })));

describe('a tone curve', () => {
  it('goes through what was measured, from bare stock on, and never falls', () => {
    const law = (grey: number): number => 40 * grey ** 0.5;
    const fit = toneOf(wedge(law))!;
    expect(fit.strongest).toBeCloseTo(40, 9);
    expect(fit.strengthAt(0)).toBe(0);
    for (const grey of GREYS) expect(fit.strengthAt(grey)).toBeCloseTo(law(grey), 9);
    expect(fit.strengthAt(0.53)).toBeCloseTo(law(0.53), 1);
    // What falls is pooled: 30 and 20 in the middle are 25 both.
    const uneven = toneOf(wedge((grey) => (grey === 0.5 ? 30 : grey === 0.5625 ? 20 : 40 * grey)))!;
    for (const grey of [0.5, 0.5625]) expect(uneven.strengthAt(grey)).toBeCloseTo(25, 9);
  });
  it('is the same whatever order patches were burned in', () => {
    const law = (grey: number): number => 40 * grey ** 0.5;
    const turned = [...wedge(law)].reverse();
    expect(toneOf(turned)!.means).toEqual(toneOf(wedge(law))!.means);
    expect(toneOf(turned)!.strengthAt(0.53)).toBeCloseTo(law(0.53), 1);
  });
  it('counts how patches of one grey scatter, and is no surer than they agree', () => {
    const fit = toneOf(wedge((grey) => 40 * grey, 2))!;
    // Two patches 4 apart: a standard deviation of the square root of eight.
    expect(fit.scatter).toBeCloseTo(Math.sqrt(8), 9);
    expect(fit.means[8]).toMatchObject({ grey: 0.5, patches: 2 });
    expect(fit.means[8]!.sigma).toBeCloseTo(2, 9);
    // Two photos' errors of a half, in the mean of two patches.
    expect(toneOf(wedge((grey) => 40 * grey))!.means[8]!.sigma).toBeCloseTo(0.5 / Math.sqrt(2), 9);
    expect(toneOf(GREYS.map((grey) => ({ grey, strength: grey, sigma: 1 })))!.scatter).toBeNull();
  });
  it('says from which grey on nothing gets stronger', () => {
    expect(toneOf(wedge((grey) => 40 * Math.min(1, grey / 0.625)))!.levelFrom).toBeCloseTo(0.625, 9);
    expect(toneOf(wedge((grey) => 40 * grey))!.levelFrom).toBe(1);
  });
  it('is none of too few greys, and refuses what is no patch', () => {
    expect(toneOf(wedge((grey) => grey, 0, GREYS.slice(0, 4)))).toBeNull();
    expect(toneOf(wedge((grey) => grey, 0, GREYS.slice(0, 5)))).not.toBeNull();
    for (const grey of [0, 1.01, NaN]) expect(() => toneOf([{ grey, strength: 1, sigma: 1 }])).toThrow(RangeError);
    expect(() => toneOf([{ grey: 0.5, strength: 1, sigma: 0 }])).toThrow(/sigma 0/);
  });
});

describe('a tone table', () => {
  it('makes any law of tones a straight line', () => {
    for (const law of [
      (grey: number) => 40 * (1 - Math.exp(-4 * grey)),
      (grey: number) => 55 * grey ** 2.2,
      // Nothing at all up to a fifth, then steep, then level.
      (grey: number) => 30 * Math.min(1, Math.max(0, (grey - 0.2) / 0.5)),
    ]) {
      const fit = toneOf(
        wedge(
          law,
          0,
          Array.from({ length: 64 }, (_, step) => (step + 1) / 64),
        ),
      )!;
      const table = toneTable(fit);
      expect(table).toHaveLength(TABLE_SIZE);
      expect(table[0]).toBe(0);
      const black = fit.strongest;
      for (let entry = 8; entry < TABLE_SIZE; entry++) {
        expect(table[entry]).toBeGreaterThanOrEqual(table[entry - 1]!);
        expect(Math.abs(law(table[entry]!) - (entry / 255) * black), `${entry}`).toBeLessThan(0.02 * black);
      }
    }
  });
  it('burns tones paler than next to nothing leaves like that, or not at all, whichever is nearer', () => {
    // A floor that leaves 8 of 40 at once, and an even rise from there.
    const strengthAt = (grey: number) => (grey <= 0 ? 0 : 8 + 32 * grey);
    const knots = [0, 0.003, 1].map((grey) => ({ grey, strength: strengthAt(grey), sigma: 0.1 }));
    const table = toneTable({ strengthAt, strongest: 40, knots });
    // Of 255 in even steps to 40, those below 25 are nearer to nothing than to 8, those from 51 on can be had.
    const least = knots[1]!.strength;
    for (let entry = 1; entry < 60; entry++) {
      const wanted = (entry / 255) * 40;
      if (wanted < least / 2) expect(table[entry]).toBe(0);
      else if (wanted < least) expect(table[entry]).toBe(0.003);
      else expect(strengthAt(table[entry]!)).toBeCloseTo(wanted, 1);
    }
    // Where the palest that was burned is more than next to nothing, what lies below it is told by the curve.
    const from = knots.map((knot, at) => (at === 1 ? { ...knot, grey: 0.1, strength: strengthAt(0.1) } : knot));
    expect(toneTable({ strengthAt, strongest: 40, knots: from })[60]).toBeCloseTo(((60 / 255) * 40 - 8) / 32, 3);
  });
  it('burns no more than is needed: of a level stretch the least grey', () => {
    const level = { strengthAt: (grey: number) => 20 * Math.min(1, 2 * grey), strongest: 20 };
    expect(greyFor(level, 20)).toBeCloseTo(0.5, 9);
    expect(greyFor(level, 99)).toBeCloseTo(0.5, 9);
    expect(greyFor(level, 5)).toBeCloseTo(0.125, 9);
    expect(greyFor(level, 0)).toBe(0);
  });
  it('is looked up between its entries, and held at its ends', () => {
    const table = Array.from({ length: TABLE_SIZE }, (_, entry) => (entry / 255) ** 2);
    expect(lookedUp(table, 1)).toBe(1);
    expect(lookedUp(table, 100 / 255)).toBeCloseTo((100 / 255) ** 2, 12);
    expect(lookedUp(table, 100.5 / 255)).toBeCloseTo((100 ** 2 + 101 ** 2) / 2 / 255 ** 2, 12);
    expect([lookedUp(table, -1), lookedUp(table, 2)]).toEqual([0, 1]);
    expect(() => lookedUp(table.slice(1), 0.5)).toThrow(/255 entries/);
  });
});

describe('figures of a wedge', () => {
  it('say how far it lies off a straight line', () => {
    const straight = GREYS.map((grey) => ({ grey, strength: 40 * grey }));
    expect(offStraight(straight, 40)).toBe(0);
    expect(
      offStraight(
        straight.map((one, index) => ({ ...one, strength: one.strength + (index % 2 === 0 ? 3 : -3) })),
        40,
      ),
    ).toBeCloseTo(3, 12);
  });
  it('say how much looks covered: half way in light is half', () => {
    expect(murrayDaviesCoverage(0.5, 0.3, 0.1)).toBeCloseTo(0.5, 12);
    // By densities as they are printed: (1 - 10^-D) / (1 - 10^-Ds) of 0.3 in 1.5 over the paper.
    expect(murrayDaviesCoverage(0.8, 0.8 * 10 ** -0.3, 0.8 * 10 ** -1.5)).toBeCloseTo(0.5151, 4);
  });
});
