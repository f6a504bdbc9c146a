import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { holdsAt, scanOffsetAt } from '../motion/lag';
import { lagFit, offsetSigmaAt, type OffsetAtSpeed } from './lag';

const SPEEDS = [50, 50, 100, 100, 150, 150, 200, 200];
const pairs = (offsetOf: (speed: number, place: number) => number, sigmaMm = 0.004): OffsetAtSpeed[] =>
  SPEEDS.map((speedMmPerS, place) => ({ speedMmPerS, offsetMm: offsetOf(speedMmPerS, place), sigmaMm }));

describe('the lag between both ways', () => {
  it('is by how much each is late: a line there is shifted forward, a line back is shifted back, by speed times lag', () => {
    // A beam 0.12 ms late at 200 mm/s burns 0.024 mm further along on both ways: 0.048 mm between them.
    const fit = lagFit(pairs((speed) => -2 * speed * 0.12e-3))!;
    expect(fit.lagS).toBeCloseTo(0.12e-3, 12);
    expect(fit.standingMm).toBeCloseTo(0, 12);
    expect(scanOffsetAt(fit, 200)).toBeCloseTo(-0.048, 12);
    expect([fit.fromMmPerS, fit.toMmPerS, fit.misfit]).toEqual([50, 200, expect.closeTo(0, 9)]);
  });
  it('is told apart from what stands at every speed', () => {
    const fit = lagFit(pairs((speed) => 0.03 - 2 * speed * 0.05e-3))!;
    expect(fit.standingMm).toBeCloseTo(0.03, 12);
    expect(fit.lagS).toBeCloseTo(0.05e-3, 12);
    expect(scanOffsetAt(fit, 100)).toBeCloseTo(0.02, 12);
  });
  it('holds the truth about as often as it says, and claims no more doubt than there is', () => {
    const random = seedrandom('lags');
    const noise = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let [lags, offsets] = [0, 0];
    const runs = 600;
    for (let run = 0; run < runs; run++) {
      const fit = lagFit(pairs((speed) => 0.01 - 2e-4 * speed + 0.004 * noise()))!;
      if (Math.abs(fit.lagS - 1e-4) <= fit.lagSigmaS) lags++;
      if (Math.abs(scanOffsetAt(fit, 230) + 0.036) <= offsetSigmaAt(fit, 230)) offsets++;
      expect(fit.standingSigmaMm).toBe(offsetSigmaAt(fit, 0));
    }
    for (const held of [lags, offsets]) {
      expect(held / runs).toBeGreaterThan(0.63);
      expect(held / runs).toBeLessThan(0.85);
    }
  });
  it('is less sure where pairs lie beside it, and of speeds further from those measured', () => {
    const fit = lagFit(pairs((speed) => -2e-4 * speed))!;
    const beside = lagFit(pairs((speed, place) => -2e-4 * speed + (place % 2 === 0 ? 0.02 : -0.02)))!;
    expect(beside.misfit).toBeGreaterThan(4);
    expect(beside.lagSigmaS).toBeGreaterThan(4 * fit.lagSigmaS);
    expect(offsetSigmaAt(fit, 300)).toBeGreaterThan(offsetSigmaAt(fit, 125));
  });
  it('is none of two pairs, or of one speed', () => {
    expect(lagFit(pairs((speed) => speed).slice(3, 5))).toBeNull();
    expect(lagFit(pairs(() => 0).map((pair) => ({ ...pair, speedMmPerS: 100 })))).toBeNull();
    expect(() => lagFit(pairs(() => 0, 0))).toThrow(RangeError);
  });
  it('is asked little beyond the speeds it was measured at', () => {
    const law = { lagS: 0, standingMm: 0, fromMmPerS: 60, toMmPerS: 200 };
    expect([39, 41, 299, 301].map((speed) => holdsAt(law, speed))).toEqual([false, true, true, false]);
  });
});
