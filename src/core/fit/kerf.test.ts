import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { kerfAlong, type SizeReadings } from './kerf';

const CALIPER = { resolution: 0.01, statedError: 0.02 };
const piece = (side: 'part' | 'hole', drawnMm: number, ...readingsMm: number[]): SizeReadings => ({
  side,
  drawnMm,
  readingsMm,
});

const NUMPY = { kerf: 0.162421169514, scale: 0.000350974595, combined: 0.009187485, uA: 0.003668100714 };

describe('kerf along an axis', () => {
  it('of a part and its hole is half of what they differ by, whatever was drawn', () => {
    const both = (drawn: number) => kerfAlong([piece('part', drawn, 19.86), piece('hole', drawn, 20.18)], CALIPER).kerf;
    expect(both(20).mean).toBeCloseTo(0.16, 9);
    expect(both(20.3).mean).toBeCloseTo(0.16, 9);
    // Two jaws, each off by step and stated error on its own: their root sum of squares, halved. By hand.
    expect(both(20).combined).toBeCloseTo(Math.hypot(0.01 / Math.sqrt(12), 0.02 / Math.sqrt(3)) / Math.SQRT2, 4);
  });
  it('of parts alone is as unsure as the axis, in proportion to their size', () => {
    const of = (mm: number) => kerfAlong([piece('part', mm, mm - 0.2)], CALIPER).kerf;
    const jaws = Math.hypot(0.01 / Math.sqrt(12), 0.02 / Math.sqrt(3));
    // A thousandth of 50 mm, by hand.
    expect(of(50).combined).toBeCloseTo(Math.hypot(jaws, 0.05), 4);
    expect(of(5).combined).toBeCloseTo(Math.hypot(jaws, 0.005), 4);
    expect(of(50).mean).toBeCloseTo(0.2, 9);
  });
  it('is told from an axis that goes too far by two sizes', () => {
    // Two thousandths too far and a kerf of 0.2 mm, read without error by a gauge without any.
    const exact = { resolution: 1e-4, statedError: 0 };
    const two = [8, 40].map((mm) => piece('part', mm, ...[1, 2, 3].map(() => mm * 1.002 - 0.2)));
    const { kerf, scale } = kerfAlong(two, exact, 0.01);
    expect(kerf.mean).toBeCloseTo(0.2, 4);
    expect(scale!.mean).toBeCloseTo(0.002, 5);
    // One size alone takes the axis for kerf: 40 mm x 0.002.
    expect(kerfAlong(two.slice(1), exact, 1e-9)).toMatchObject({
      scale: null,
      kerf: { mean: expect.closeTo(0.12, 6) },
    });
  });
  // Generalized least squares by NumPy 2.4, of the same readings with the same prior knowledge: numpy.linalg.inv(X'WX + P) and its gains.
  it('is that of another program’s least squares', () => {
    const { kerf, scale } = kerfAlong(
      [
        piece('part', 20, 19.83, 19.85, 19.84),
        piece('hole', 20, 20.19, 20.17),
        piece('part', 8, 7.84, 7.86),
        piece('hole', 8, 8.16, 8.17, 8.15),
      ],
      CALIPER,
    );
    expect(kerf.mean).toBeCloseTo(NUMPY.kerf, 9);
    expect(kerf.combined).toBeCloseTo(NUMPY.combined, 9);
    expect(scale!.mean).toBeCloseTo(NUMPY.scale, 9);
    expect(kerf.uA).toBeCloseTo(NUMPY.uA, 9);
  });
  it('holds the truth in nineteen of twenty by calipers and axes of their own, and is halved by as many readings as it says', () => {
    const random = seedrandom('calipers');
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let held = 0;
    for (let turn = 0; turn < 400; turn++) {
      const [outside, inside] = [0.02 * (2 * random() - 1), 0.02 * (2 * random() - 1)];
      const scale = 0.001 * normal();
      const read = (side: 'part' | 'hole', mm: number): SizeReadings =>
        piece(
          side,
          mm,
          ...[1, 2, 3].map(() => {
            const true_ = mm * (1 + scale) + (side === 'part' ? -0.17 : 0.17);
            return Math.round((true_ + (side === 'part' ? outside : inside) + 0.006 * normal()) * 100) / 100;
          }),
        );
      const { kerf } = kerfAlong([read('part', 20), read('hole', 20), read('part', 8), read('hole', 8)], CALIPER);
      if (Math.abs(kerf.mean - 0.17) <= kerf.expanded95) held++;
    }
    expect(held / 400).toBeGreaterThan(0.93);
    expect(held / 400).toBeLessThanOrEqual(1);
  });
  it('says how many times as many readings halve the doubt, by the caliper’s own error: many where it hardly counts, never where it is most', () => {
    const scattered = [19.7, 19.9, 19.8, 19.6, 20];
    const plain = { resolution: 0.001, statedError: 0 };
    const { kerf, halvedBy } = kerfAlong([piece('part', 20, ...scattered)], plain, 0);
    // Without error of the gauge half the doubt takes four times the readings.
    expect(halvedBy).toBeCloseTo(4, 2);
    expect(kerf.uA).toBeCloseTo(Math.sqrt(0.025 / 5), 9);
    expect(kerfAlong([piece('part', 20, 19.8, 19.81)], CALIPER).halvedBy).toBeNull();
    expect(() => kerfAlong([piece('part', 20)], CALIPER)).toThrow('missing readings');
    // Readings that are all alike tell no scatter: what is left is the caliper's.
    const alike = kerfAlong([piece('part', 20, 19.8, 19.8, 19.8)], CALIPER);
    expect(alike).toMatchObject({ halvedBy: null, kerf: { uA: 0, degrees: Infinity } });
    expect(alike.kerf.expanded95 / alike.kerf.combined).toBeCloseTo(1.96, 2);
    // Two sizes are two where one is half as large again.
    const sizes = (mm: number) => kerfAlong([piece('part', 20, 19.8), piece('part', mm, mm - 0.2)], CALIPER).scale;
    expect([sizes(20 / 1.49), sizes(20 / 1.5) !== null]).toEqual([null, true]);
  });
});
