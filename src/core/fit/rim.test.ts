import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { darkensFrom } from './rim';

const powers = Array.from({ length: 32 }, (_, index) => 0.1 + 0.02 * index);
/** None up to 30 %, then 0.2 L* for each per cent more. */
const law = (power: number): number => Math.max(0, 20 * (power - 0.3));
const rims = (darker: (power: number, index: number) => number) =>
  powers.map((power, index) => ({ power, darker: darker(power, index) }));
const told = (darker: Parameters<typeof rims>[0], from = 0, to = powers.length) =>
  darkensFrom(rims(darker).slice(from, to), 2);

describe('the rim of patches', () => {
  it('is darker from where its curve passes the level, by hand: 2 L* at 40 %', () => {
    const plain = told(law)!;
    expect(plain.from).toBeCloseTo(0.4, 3);
    expect(plain.low).toBeLessThan(0.4);
    // In whatever order they are told.
    expect(darkensFrom(rims(law).toReversed(), 2)).toEqual(plain);
    expect(plain.high).toBeGreaterThan(0.4);
    // Twice as steep in half of the powers: half as wide.
    const steep = told((power) => 2 * law(power))!;
    expect(steep.from).toBeCloseTo(0.35, 3);
    expect(steep.high - steep.low).toBeLessThan(0.7 * (plain.high - plain.low));
  });

  it('has a range that holds the truth in at least 90 of 100, of rims that scatter', () => {
    let held = 0;
    for (let run = 0; run < 100; run++) {
      const random = seedrandom(`rim ${run}`);
      const noisy = rims((power) => law(power) + 1.2 * (random() + random() + random() - 1.5));
      const { low, high } = darkensFrom(noisy, 2) ?? { low: 1, high: 0 };
      if (low <= 0.4 && high >= 0.4) held++;
    }
    expect(held).toBeGreaterThanOrEqual(90);
  });

  it('goes by its neighbours where a flame licked over one', () => {
    const clean = told(law)!;
    const licked = told((power, index) => (index === 6 || index === 12 ? 15 : law(power)))!;
    expect(Math.abs(licked.from - clean.from)).toBeLessThan(0.02);
    expect(licked.low).toBeGreaterThan(0.3);
  });

  it('is not told where it never surely passes, is dark throughout, or too little was read', () => {
    expect(told((power) => law(power) / 4)).toBeNull();
    expect(told((power) => 3 + law(power))).toBeNull();
    expect(told(law, -5)).toBeNull();
    expect(told((_, index) => 3 * (index - 5), 5, 10)).toBeNull();
    expect(told((_, index) => 3 * (index - 5), 5, 11)).not.toBeNull();
    expect(told((power) => 2 + law(power))).toBeNull();
    // One dark rim at the end is no more than a smudge where rims scatter as much.
    expect(told((_, index) => (index === 31 ? 3 : index % 2))).toBeNull();
  });
});
