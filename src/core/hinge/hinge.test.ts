import { describe, expect, it } from 'vitest';
import { leastRadii, linksOf, radiusOverStrength, rowsFor, strengthFrom, type CutLattice } from './bend';
import { pitchOf, slitsIn, type Lattice } from './lattice';
import { torsionCoefficient } from './torsion';
import { tuples } from '../../../tests/support/tuples';

const lattice = (change: Partial<CutLattice> = {}): CutLattice => ({
  pattern: 'rows',
  pitchMm: 2.5,
  slitMm: 24,
  bridgeMm: 4,
  thicknessMm: 3,
  kerfMm: 0.2,
  ...change,
});
const lengths = (slits: ReturnType<typeof slitsIn>): number[] =>
  slits.map(([a, b]) => Math.hypot(b!.x - a!.x, b!.y - a!.y));

/** Ratio of sides and k1. S. P. Timoshenko and J. N. Goodier, Theory of Elasticity, table of coefficients for rectangular bars (from memory). */
const TABLE = [
  [1, 0.675],
  [1.2, 0.759],
  [1.5, 0.848],
  [2, 0.93],
  [2.5, 0.968],
  [3, 0.985],
  [4, 0.997],
  [5, 0.999],
  [10, 1],
] as const;

describe('what twists in a hinge', () => {
  it('is a bar whose coefficient is the named table’s, whichever side is the longer', () => {
    for (const [ratio, k1] of TABLE) {
      expect(Math.abs(torsionCoefficient(ratio, 1) - k1)).toBeLessThan(0.0006);
      expect(torsionCoefficient(2, 2 * ratio)).toBeCloseTo(torsionCoefficient(ratio, 1), 12);
    }
    expect(() => torsionCoefficient(0, 1)).toThrow('invalid bar');
  });

  it('is as wide as a pitch less the cut, and as long as slits overlap', () => {
    expect(linksOf(lattice())).toEqual({ widthMm: 2.3, lengthMm: 10.2 });
    expect(() => linksOf(lattice({ pitchMm: 0.2 }))).toThrow('nothing is left');
    expect(() => linksOf(lattice({ slitMm: 3 }))).toThrow('do not overlap');
    // By hand: a square link of 2.3 mm, 0.675 · 2.3 · 2.5 / 10.2.
    expect(radiusOverStrength(lattice({ thicknessMm: 2.3 }))).toBeCloseTo((0.675 * 2.3 * 2.5) / 10.2, 3);
  });

  it('lets tighter pitches bend further (common practice: 1.75, 2.5 and 4 mm), and longer slits', () => {
    const radii = [1.75, 2.5, 4].map((pitchMm) => radiusOverStrength(lattice({ pitchMm })));
    expect(radii[0]!).toBeLessThan(radii[1]! / 1.5);
    expect(radii[1]!).toBeLessThan(radii[2]! / 1.5);
    expect(radiusOverStrength(lattice({ slitMm: 44 }))).toBeLessThan(radii[1]! / 1.9);
  });
});

describe('slits of a hinge', () => {
  const field = { x: 10, y: 20, width: 56, height: 10 };
  it('lie in rows a pitch apart, each second one shifted by half, and none reaches the field’s sides', () => {
    const slits = slitsIn(lattice(), field);
    const rows = [...new Set(slits.map(([a]) => a!.y))].sort((a, b) => a - b);
    expect(rows).toEqual([21.25, 23.75, 26.25, 28.75]);
    const of = (y: number) => slits.filter(([a]) => a!.y === y).map(([a, b]) => [a!.x, b!.x]);
    expect(of(21.25)).toEqual([
      [12, 36],
      [40, 64],
    ]);
    // Half a slit at either side, a whole one between.
    expect(of(23.75)).toEqual(tuples([12, 22], [26, 50], [54, 64]));
    expect(of(26.25)).toEqual(of(21.25));
    expect(of(28.75)).toEqual(of(23.75));
  });
  it('that are crossed bend both ways: as many upright as lying, none nearer to another than half of what is between their ends', () => {
    const crossed: Lattice = { pattern: 'crossed', pitchMm: 1, slitMm: 10, bridgeMm: 4 };
    expect(pitchOf(crossed)).toBe(7);
    const slits = slitsIn(crossed, { x: 0, y: 0, width: 70, height: 70 });
    // Half a bridge is left at every side.
    for (const along of ['x', 'y'] as const) {
      const places = slits.flatMap((slit) => slit.map((point) => point[along]));
      expect([Math.min(...places), Math.max(...places)]).toEqual([2, 68]);
    }
    const lying = slits.filter(([a, b]) => a!.y === b!.y);
    expect(lying).toHaveLength(50);
    expect(slits).toHaveLength(100);
    expect(Math.max(...lengths(slits))).toBeCloseTo(10, 9);
    // Of one row they lie a bridge apart.
    for (const [a, b] of lying)
      for (const [c] of lying.filter(([other]) => other!.y === a!.y && other!.x > a!.x))
        expect(c!.x - b!.x).toBeGreaterThan(3.999);
    for (const [a, b] of lying)
      for (const [c, d] of slits.filter(([p, q]) => p!.x === q!.x)) {
        const dx = Math.max(0, c!.x - b!.x, a!.x - c!.x);
        const dy = Math.max(0, c!.y - a!.y, a!.y - d!.y);
        expect(Math.hypot(dx, dy)).toBeGreaterThan(1.999);
      }
  });
});

describe('the strength of a stock', () => {
  it('comes back from samples of several pitches, with a spread that widens what is safe', () => {
    const bent = (strength: number, pitchMm: number) => ({
      lattice: lattice({ pitchMm }),
      // Held a step above where it broke.
      heldMm: (strength * radiusOverStrength(lattice({ pitchMm }))) / 0.9,
    });
    const even = strengthFrom([bent(90, 1.75), bent(90, 2.5), bent(90, 4)]);
    expect(even.median).toBeCloseTo(90, 6);
    const uneven = strengthFrom([bent(70, 1.75), bent(90, 2.5), bent(115, 4)]);
    // By hand: four degrees of 0.12, and two of what the samples' logarithms have about their mean.
    expect(even.logSpread).toBeCloseTo(Math.sqrt((4 * 0.12 ** 2) / 6), 9);
    const logs = [70, 90, 115].map((strength) => Math.log(strength));
    const mean = (logs[0]! + logs[1]! + logs[2]!) / 3;
    const squares = logs.reduce((sum, log) => sum + (log - mean) ** 2, 0);
    expect(uneven.logSpread).toBeCloseTo(Math.sqrt((4 * 0.12 ** 2 + squares) / 6), 9);
    const [a, b] = [even, uneven].map((strength) => leastRadii(lattice(), strength));
    expect(a!.breaksMm).toBeCloseTo(90 * radiusOverStrength(lattice()), 6);
    expect(a!.safeMm).toBeGreaterThan(a!.breaksMm * 1.1);
    expect(b!.safeMm).toBeGreaterThan(a!.safeMm * 1.15);
    // One alone says nothing of others.
    const one = strengthFrom([bent(90, 2.5)]);
    expect(one.logSpread).toBeCloseTo(0.12, 9);
    // Student's t of one side, 95 %, four degrees: 2.132 (any printed table).
    expect(leastRadii(lattice(), one).safeMm / a!.breaksMm).toBeCloseTo(Math.exp(2.132 * 0.12 * Math.SQRT2), 3);
    expect(() => strengthFrom([])).toThrow('nothing was bent');
  });
  it('gives as many rows as the arc has pitches', () => {
    // A quarter turn at 20 mm is 31.4 mm.
    expect(rowsFor({ radiusMm: 20, angleDeg: 90 }, 2.5)).toEqual({ rows: 13, lengthMm: 32.5 });
    expect(rowsFor({ radiusMm: 1, angleDeg: 1 }, 4).rows).toBe(1);
  });
});
