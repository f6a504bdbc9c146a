import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../bench/random';
import { focusOf, type RippleAtOffset } from './focus';

/** A beam of 0.1 mm at its waist and 1.2 mm Rayleigh range draws lines 0.16 mm apart, by Self's law: the first harmonic of normal profiles. */
const WAIST = 0.35;
const beamMm = (offset: number): number => 0.1 * Math.sqrt(1 + ((offset - WAIST) / 1.2) ** 2);
/** 1/e² width w over pitch p: 2 exp(-π² w² / 8 p²). */
const ripple = (offset: number): number => 2 * Math.exp(-((Math.PI * beamMm(offset)) ** 2) / (8 * 0.16 ** 2));
const patches = (offsets: readonly number[], of = ripple, sigma = 0.004): RippleAtOffset[] =>
  offsets.map((offsetMm) => ({ offsetMm, visibility: of(offsetMm), sigma }));
const NINE = [-2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2];

describe('the focus of a beam', () => {
  it('is its waist, by nine patches, by five and by three', () => {
    for (const offsets of [NINE, [-2, -1, 0, 1, 2], [-1, 0.2, 1.4]])
      expect(focusOf(patches(offsets))!.waistMm, String(offsets)).toBeCloseTo(WAIST, 6);
  });
  it('is as sure as ripples are told: within two sigmas nineteen times of twenty', () => {
    const random = randomFrom('focus');
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const found = Array.from({ length: 300 }, () =>
      focusOf(patches([-2, -1, 0, 1, 2], (offset) => ripple(offset) * (1 + 0.05 * normal())))!,
    );
    const held = found.filter(({ waistMm, waistSigmaMm }) => Math.abs(waistMm - WAIST) < 2 * waistSigmaMm).length;
    expect(held / found.length).toBeGreaterThan(0.9);
    const sigmas = found.map(({ waistSigmaMm }) => waistSigmaMm);
    expect(Math.max(...sigmas)).toBeLessThan(0.15);
  });
  it('is no surer than the focus is set: each patch by a hand of its own, and what they count from as well', () => {
    const random = randomFrom('by hand');
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const scatterMm = 0.25;
    const looks = Array.from({ length: 300 }, () => {
      const from = scatterMm * normal();
      const seen = patches(NINE).map((patch) => ({
        ...patch,
        visibility: ripple(patch.offsetMm + from + scatterMm * normal()),
      }));
      return { fit: focusOf(seen, scatterMm), blind: focusOf(seen), truth: WAIST - from };
    });
    const held = (of: 'fit' | 'blind'): number => {
      const told = looks.flatMap((look) => (look[of] ? [{ ...look[of], truth: look.truth }] : []));
      return (
        told.filter(({ waistMm, waistSigmaMm, truth }) => Math.abs(waistMm - truth) < 2 * waistSigmaMm).length /
        told.length
      );
    };
    expect(held('fit')).toBeGreaterThan(0.92);
    expect(held('fit')).toBeGreaterThan(held('blind') + 0.05);
    // A patch where the law is steep is less sure, one at the top as sure as before.
    const [hand, motor] = [focusOf(patches(NINE), scatterMm)!, focusOf(patches(NINE))!];
    expect(hand.at(-2).high - hand.at(-2).low).toBeGreaterThan(1.3 * (motor.at(-2).high - motor.at(-2).low));
    expect(hand.waistSigmaMm).toBeGreaterThan(0.25);
    expect(hand.fillSigmaMm).toBeGreaterThan(Math.hypot(motor.fillSigmaMm, 0.24));
  });
  it('says how far to either side lines still show by four fifths, and where gaps close', () => {
    const fit = focusOf(patches(NINE))!;
    expect(ripple(WAIST + fit.depthMm) / ripple(WAIST)).toBeCloseTo(0.8, 3);
    // By hand: from 17 to 8 per cent, the middle of them, above the waist.
    const away = (level: number): number =>
      1.2 * Math.sqrt((8 * 0.16 ** 2 * Math.log(2 / level)) / (Math.PI * 0.1) ** 2 - 1);
    expect(fit.fillMm).toBeCloseTo(WAIST + (away(0.17) + away(0.08)) / 2, 2);
    expect(fit.fillSigmaMm).toBeGreaterThan((away(0.08) - away(0.17)) / Math.sqrt(12) - 1e-9);
    expect(fit.at(1).visibility).toBeCloseTo(ripple(1), 3);
    expect(fit.at(1).low).toBeLessThan(fit.at(1).visibility);
    expect(fit.at(1).high).toBeGreaterThan(fit.at(1).visibility);
  });
  it('has its gaps closed at the waist where lines are never plain', () => {
    const faint = focusOf(patches(NINE, (offset) => 0.1 * ripple(offset)))!;
    expect(faint.fillMm).toBe(faint.waistMm);
    expect(faint.fillSigmaMm).toBeGreaterThan(0.1);
  });
  it('is told by no patch whose lines do not stand out, and by no end of the range', () => {
    expect(focusOf(patches([-2, -1, 0, 1, 2], ripple, 1))).toBeNull();
    expect(focusOf(patches([-2, -1.5, -1, -0.5]))).toBeNull();
    expect(focusOf(patches(NINE, () => 0.4))).toBeNull();
    // A waist where lines show least is none, nor is one that hardly stands out of noise.
    expect(focusOf(patches(NINE, (offset) => 0.2 + 0.1 * offset ** 2))).toBeNull();
    expect(focusOf(patches(NINE, (offset) => 0.4 - 0.002 * offset ** 2, 0.02))).toBeNull();
    expect(focusOf(patches(NINE, (offset) => 0.4 - 0.05 * offset ** 2, 0.02))).not.toBeNull();
    expect(focusOf(patches([0, 1]))).toBeNull();
    expect(focusOf([])).toBeNull();
    const used = focusOf([...patches(NINE), { offsetMm: 4, visibility: 0.01, sigma: 0.01 }])!.used;
    expect(used).toHaveLength(9);
  });
  it('goes less by what lies far out than by what lies near', () => {
    const offBy = (offset: number): number => {
      const odd = patches(NINE).map((patch) =>
        patch.offsetMm === offset ? { ...patch, visibility: patch.visibility * 1.5 } : patch,
      );
      return Math.abs(focusOf(odd)!.waistMm - WAIST);
    };
    // Of equal weight the far one would pull by a quarter more: 0.155 mm.
    expect(offBy(2)).toBeLessThan(0.14);
    expect(offBy(2)).toBeGreaterThan(0.05);
  });
  it('hardly goes by what lies far out', () => {
    const far = patches(NINE).map((patch) =>
      Math.abs(patch.offsetMm) === 2
        ? { ...patch, visibility: patch.visibility * (patch.offsetMm > 0 ? 1.15 : 1) }
        : patch,
    );
    expect(Math.abs(focusOf(far)!.waistMm - WAIST)).toBeLessThan(0.06);
  });
});
