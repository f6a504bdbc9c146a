import { describe, expect, it } from 'vitest';
import { lineLaw, peakOfLine, widthBy, type WidthAtPower } from './line-width';

/** Widths at powers, each to a hundredth of a millimetre. */
const at = (powers: readonly number[], widthOf: (power: number, place: number) => number): WidthAtPower[] =>
  powers.map((powerW, place) => ({ powerW, widthMm: widthOf(powerW, place), sigmaMm: 0.01 }));
const POWERS = [3, 4, 5.5, 8, 11, 15];

describe('the law of a line’s width', () => {
  it('gives back the beam and threshold that widths were reckoned with', () => {
    // Liu's law by hand: a beam radius of 0.06 mm, so that D² = 2 · 0.06² · ln(P / 2).
    const law = lineLaw(at(POWERS, (power) => Math.sqrt(2 * 0.06 ** 2 * Math.log(power / 2))))!;
    expect(law.spotMm).toBeCloseTo(0.12, 9);
    expect(law.thresholdW).toBeCloseTo(2, 9);
    expect(law.misfit).toBeLessThan(1e-6);
    expect(widthBy(law, 4)).toBeCloseTo(0.0706, 4);
    expect(widthBy(law, 1.9)).toBe(0);
  });
  it('holds the truth about as often as it says, where widths scatter by their sigmas', () => {
    let [spots, thresholds] = [0, 0];
    const runs = 400;
    for (let run = 0; run < runs; run++) {
      const noise = (place: number): number => {
        const [u, v] = [run * 7 + place, run * 13 + place * 5].map(
          (n) => Math.abs(Math.sin(n * 12.9898 + 4.1) * 43758.5453) % 1,
        ) as [number, number];
        return Math.sqrt(-2 * Math.log(1 - u)) * Math.cos(2 * Math.PI * v);
      };
      const law = lineLaw(
        at(POWERS, (power, place) => Math.sqrt(2 * 0.06 ** 2 * Math.log(power / 2)) + 0.01 * noise(place)),
      );
      if (!law) continue;
      if (Math.abs(law.spotMm - 0.12) <= law.spotSigmaMm) spots++;
      if (law.thresholdLowW <= 2 && 2 <= law.thresholdHighW) thresholds++;
    }
    expect(spots / runs).toBeGreaterThan(0.6);
    expect(spots / runs).toBeLessThan(0.95);
    expect(thresholds / runs).toBeGreaterThan(0.9);
  });
  it('is as unsure of its threshold as a line’s own is of where it crosses nought, by the delta method', () => {
    // The delta method (from memory: Draper and Smith, Applied Regression Analysis): the variance of x0 = -a / b is s² / b² (1 / n + (x0 - mean)² / Sxx) for even sigmas.
    const even = POWERS.map((powerW): WidthAtPower => {
      const widthMm = Math.sqrt(2 * 0.06 ** 2 * Math.log(powerW / 2));
      return { powerW, widthMm, sigmaMm: 0.0001 / (2 * widthMm) };
    });
    const law = lineLaw(even)!;
    const xs = POWERS.map(Math.log);
    const mean = xs.reduce((sum, x) => sum + x, 0) / xs.length;
    const sxx = xs.reduce((sum, x) => sum + (x - mean) ** 2, 0);
    const sigma = (0.0001 / (2 * 0.06 ** 2)) * Math.sqrt(1 / xs.length + (Math.log(2) - mean) ** 2 / sxx);
    // Student's t of four degrees holds 95 % within 2.776.
    expect(Math.log(law.thresholdHighW / law.thresholdW)).toBeCloseTo(2.776 * sigma, 4);
  });
  it('is as sure as the widths it goes by, and less where they lie beside it', () => {
    const exact = (power: number): number => Math.sqrt(2 * 0.06 ** 2 * Math.log(power / 2));
    const sure = lineLaw(at(POWERS, exact).map((line) => ({ ...line, sigmaMm: 0.001 })))!;
    const unsure = lineLaw(at(POWERS, exact))!;
    expect(unsure.spotSigmaMm / sure.spotSigmaMm).toBeCloseTo(10, 1);
    const beside = lineLaw(at(POWERS, (power, place) => exact(power) + (place % 2 === 0 ? 0.04 : -0.04)))!;
    expect(beside.misfit).toBeGreaterThan(2);
    expect(beside.spotSigmaMm).toBeGreaterThan(2 * unsure.spotSigmaMm);
  });
  it('is none of three widths, of two powers, or of widths that fall with power', () => {
    expect(lineLaw(at([3, 4, 5], () => 0.1))).toBeNull();
    expect(lineLaw(at([3, 3, 4, 4], (power) => power / 30))).toBeNull();
    expect(lineLaw(at(POWERS, (power) => 1 / power))).toBeNull();
    expect(() => lineLaw([{ powerW: 0, widthMm: 0.1, sigmaMm: 0.01 }])).toThrow(/invalid line: 0 W/);
    for (const sigmaMm of [0, -1]) expect(() => lineLaw([{ powerW: 1, widthMm: 0.1, sigmaMm }])).toThrow(/sigma/);
    expect(lineLaw(at([3, 4, 5, 5], (power) => power / 30))).not.toBeNull();
    expect(lineLaw(at([3, 4, 5], (power) => power / 30))).toBeNull();
  });
  it('knows the peak of a line by the beam’s own law', () => {
    // All of a line's energy crosses it: the peak times √(π / 8) of the 1/e² width.
    expect(peakOfLine(0.1, 0.1)).toBeCloseTo(1.596, 3);
    expect(peakOfLine(0.1, 0.1) * Math.sqrt(Math.PI / 8) * 0.1).toBeCloseTo(0.1, 12);
  });
});
