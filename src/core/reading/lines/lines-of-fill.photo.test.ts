import { describe, expect, it } from 'vitest';
import { drawnPatch, type DrawnPatch } from '../../../../tests/support/drawn-lines';
import { meanAndSpread } from '../../stats/robust';
import { blurBetween } from './blur';
import { linesOfFill, rippleOfFill } from './lines-of-fill';

/** Hard-edged horizontal lines, `covered` of each pitch burned to a share of bare stock's light, the first one's middle at a third of a pitch. */
const hard = (pitchMm: number, covered: number, dark: number) => (_: number, y: number) => {
  const phase = (((y / pitchMm - 1 / 3) % 1) + 1) % 1;
  return phase < covered / 2 || phase > 1 - covered / 2 ? dark : 1;
};
const wave = (pitchMm: number, mean: number, relative: number) => (_: number, y: number) =>
  mean * (1 + relative * Math.cos((2 * Math.PI * y) / pitchMm));
const patch = (share: DrawnPatch['share'], more: Partial<DrawnPatch> = {}): DrawnPatch => ({
  widthMm: 3,
  heightMm: 4,
  pxPerMm: 40,
  turned: 1.1,
  noise: 0.004,
  share,
  ...more,
});
const look = (drawn: DrawnPatch, intervalMm: number, blurMm = 0.0072, run: 'horizontal' | 'vertical' = 'horizontal') =>
  linesOfFill(
    drawnPatch(drawn),
    { x: 0, y: 0, width: drawn.widthMm, height: drawn.heightMm },
    { intervalMm, run, blur: blurBetween(blurMm, blurMm) },
  );
/** A pixel's own width as the standard deviation that blurs alike: 1 / sqrt(12) of it. */
const pixel = (pxPerMm: number): number => 1 / Math.sqrt(12) / pxPerMm;

describe('the lines of a fill', () => {
  it.each([
    [40, 0.1],
    [40, 0.13],
    [60, 0.0508],
    [30, 0.102],
  ])('are told by %d px/mm: pitch %d mm and how strongly they show', (pxPerMm, pitchMm) => {
    const seen = look(patch(wave(pitchMm, 0.5, 0.3), { pxPerMm }), pitchMm * 1.03, pixel(pxPerMm))!;
    expect(Math.abs(seen.pitchMm! - pitchMm)).toBeLessThan(4 * seen.pitchSigmaMm!);
    expect(seen.pitchSigmaMm!).toBeLessThan(0.001 * pitchMm);
    expect(seen.visibility).toBeGreaterThan(0.27);
    expect(seen.visibility).toBeLessThan(0.33);
  });

  it('have a ripple over their mean, as the camera shows it: blunted alike in one photo, whatever blunts it', () => {
    const ripple = (relative: number, mean: number, more: Partial<DrawnPatch> = {}) => {
      const drawn = patch(wave(0.1, mean, relative), more);
      return rippleOfFill(
        drawnPatch(drawn),
        { x: 0, y: 0, width: drawn.widthMm, height: drawn.heightMm },
        { intervalMm: 0.1, run: 'horizontal' },
      );
    };
    // Over the mean, so that a darker fill of the same lines has the same; a pixel of 1/40 mm takes a tenth of a wave of 0.1 mm: sinc(1/4).
    for (const mean of [0.5, 0.25]) expect(Math.abs(ripple(0.3, mean)!.amplitude / 0.3 - 0.9)).toBeLessThan(0.03);
    expect(ripple(0.3, 0.5)!.amplitude / ripple(0.15, 0.5)!.amplitude).toBeCloseTo(2, 1);
    expect(ripple(0.3, 0.5)!.sigma).toBeLessThan(0.01);
    // Too few pixels to a line tell none.
    expect(ripple(0.3, 0.5, { pxPerMm: 20 })).toBeNull();
  });

  it('have a pitch as sure as it says: 40 photos scatter by its sigma, within a quarter', () => {
    const errors = Array.from({ length: 40 }, (_, k) => {
      const { pitchMm, pitchSigmaMm } = look(
        patch(wave(0.1, 0.5, 0.06), { noise: 0.03, seed: `pitch ${k}`, widthMm: 1 }),
        0.1,
      )!;
      return (pitchMm! - 0.1) / pitchSigmaMm!;
    });
    // Of 40 values a standard deviation is itself sure to 11 %.
    expect(meanAndSpread(errors).spread).toBeGreaterThan(0.7);
    expect(meanAndSpread(errors).spread).toBeLessThan(1.35);
  });

  it.each([0.3, 0.5, 0.7, 0.9])('that cover %d of their pitch leave the rest as their gap', (covered) => {
    const seen = look(patch(hard(0.2, covered, 0.2)), 0.2)!;
    expect(Math.abs(seen.gapMm! - (1 - covered) * 0.2)).toBeLessThan(0.006);
  });

  it('leave as wide a gap where they lighten dark stock', () => {
    const seen = look(patch(hard(0.2, 0.6, 1.8)), 0.2)!;
    expect(Math.abs(seen.gapMm! - 0.08)).toBeLessThan(0.006);
  });

  it('show as strongly, and leave as wide a gap, to a camera that blurs, as far as its blur is known', () => {
    const blurMm = 0.03;
    const drawn = patch(hard(0.15, 0.6, 0.3), { blurMm, widthMm: 2, heightMm: 3 });
    const seen = look(drawn, 0.15, Math.hypot(blurMm, pixel(40)))!;
    const sharp = look({ ...drawn, blurMm: 0 }, 0.15, pixel(40))!;
    expect(Math.abs(seen.visibility / sharp.visibility - 1)).toBeLessThan(0.06);
    expect(Math.abs(seen.gapMm! - 0.06)).toBeLessThan(0.008);
    // Taken as it is stored, the blurred one would show them half as strongly.
    expect(look(drawn, 0.15, 0)!.visibility / sharp.visibility).toBeLessThan(0.65);
    // What is not known of the blur is in the sigma.
    const unsure = linesOfFill(
      drawnPatch(drawn),
      { x: 0, y: 0, width: 2, height: 3 },
      { intervalMm: 0.15, run: 'horizontal', blur: blurBetween(0.022, 0.038) },
    )!;
    expect(unsure.visibilitySigma).toBeGreaterThan(0.2 * unsure.visibility);
    expect(Math.abs(unsure.visibility - sharp.visibility)).toBeLessThan(2 * unsure.visibilitySigma);
  });

  it('that meet have no pitch, and a visibility of nothing within its sigma', () => {
    const seen = look(
      patch(() => 0.4),
      0.1,
    )!;
    expect(seen.pitchMm).toBeNull();
    expect(seen.visibility).toBeLessThan(3 * seen.visibilitySigma + 1e-4);
    expect(seen.visibilitySigma).toBeLessThan(0.002);
    expect(seen.gapMm!).toBeLessThan(0.002);
  });

  it('are not found in grain that runs as they do', () => {
    const grain = (_: number, y: number): number =>
      0.5 *
      (1 +
        [7.3, 8.9, 11.7, 9.6, 10.8, 12.9, 6.4].reduce(
          (sum, turns, k) => sum + 0.03 * Math.sin(2 * Math.PI * turns * y + k),
          0,
        ));
    const seen = look(patch(grain), 0.1)!;
    expect(seen.pitchMm).toBeNull();
    expect(seen.visibilitySigma).toBeGreaterThan(0.003);
  });
});
