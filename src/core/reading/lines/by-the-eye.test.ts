import { describe, expect, it } from 'vitest';
import { eyeSeesLines, isAbove, leastRippleSeen } from './by-the-eye';

const lines = (visibility: number, visibilitySigma = 0.01) => ({
  pitchMm: null,
  pitchSigmaMm: null,
  visibility,
  visibilitySigma,
  gapMm: null,
  gapSigmaMm: null,
});

describe('the eye', () => {
  it('needs a tenth of the mean at a minute of arc for half a pitch, more for finer lines, less for coarser ones', () => {
    // One minute of arc for half of 0.175 mm is 300.8 mm away (common practice).
    expect(leastRippleSeen(0.175, 300.8)).toBeCloseTo(0.1, 3);
    expect(leastRippleSeen(0.175, 600)).toBeGreaterThan(1);
    expect(leastRippleSeen(0.35, 300.8)).toBeLessThan(0.03);
    // From twice as far, lines twice as far apart look the same.
    expect(leastRippleSeen(0.2, 400)).toBeCloseTo(leastRippleSeen(0.1, 200), 10);
  });

  it('sees lines that are surely stronger than that, does not see weaker ones, and says so where it is close', () => {
    expect(eyeSeesLines(lines(0.14), 0.175, 300)).toBe(true);
    expect(eyeSeesLines(lines(0.06), 0.175, 300)).toBe(false);
    expect(eyeSeesLines(lines(0.105), 0.175, 300)).toBeNull();
    expect(eyeSeesLines(lines(0.14, 0.05), 0.175, 300)).toBeNull();
    expect(eyeSeesLines(null, 0.175, 300)).toBeNull();
  });

  it('sees no line that is too fine for it, whatever a photo shows', () => {
    expect(eyeSeesLines(lines(0.9), 0.085, 300)).toBe(false);
    expect(eyeSeesLines(null, 0.085, 300)).toBe(false);
  });

  it('is as sure as nine in ten: 1.2816 sigmas of a normal law', () => {
    expect(isAbove(lines(0.1 + 0.0129), 0.1)).toBe(true);
    expect(isAbove(lines(0.1 + 0.0127), 0.1)).toBeNull();
    expect(isAbove(lines(0.1 - 0.0129), 0.1)).toBe(false);
    expect(isAbove(lines(0.1, 0), 0.09)).toBe(true);
  });
});
