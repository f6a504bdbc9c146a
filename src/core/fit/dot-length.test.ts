import { describe, expect, it } from 'vitest';
import { shorterAt } from '../motion/dot-length';
import { dotFit, type DotSeen } from './dot-length';

const SPEEDS = [100, 100, 200, 200, 300, 300];
/** Two depths at each speed, which are 0.3 and 0.2 where nothing else is said. */
const dots = (
  longerOf: (speed: number, depth: number, place: number) => number,
  depthOf: (speed: number, place: number) => number = (_speed, place) => (place % 2 === 0 ? 0.3 : 0.2),
  sigmaMm = 0.003,
): DotSeen[] =>
  SPEEDS.map((speedMmPerS, place) => {
    const depth = depthOf(speedMmPerS, place);
    return { speedMmPerS, longerMm: longerOf(speedMmPerS, depth, place), sigmaMm, depth };
  });

describe('the length of dots by speed', () => {
  it('is what the mark adds at rest, less the way that the head makes before the beam is on', () => {
    // 0.05 ms at 300 mm/s are 0.015 mm of way.
    const fit = dotFit(dots((speed) => 0.055 - 0.00005 * speed))!;
    expect(fit.slowOnS).toBeCloseTo(0.00005, 12);
    expect(fit.standingMm).toBeCloseTo(0.055, 12);
    expect(shorterAt(fit, 300)).toBeCloseTo(0.015, 12);
    expect([fit.fromMmPerS, fit.toMmPerS]).toEqual([100, 300]);
    expect(dotFit(dots((speed) => 0.055 + 0.00002 * speed))!.slowOnS).toBeCloseTo(-0.00002, 12);
  });
  it('is not taken in by a machine that gives more than it was told at some speeds: deeper dots are longer ones', () => {
    // Slow dots come out deeper by 0.06, and longer for that by 0.1 mm for each whole depth.
    const depths = (speed: number, place: number): number =>
      (place % 2 === 0 ? 0.3 : 0.2) + 0.06 * ((300 - speed) / 200);
    const fit = dotFit(dots((speed, depth) => 0.055 - 0.00005 * speed + 0.1 * (depth - 0.25), depths))!;
    expect(fit.slowOnS).toBeCloseTo(0.00005, 12);
    // As deep as the fastest, 0.25 in the mean.
    expect(fit.standingMm).toBeCloseTo(0.055, 12);
    for (const { speedMmPerS, longerMm, depth } of fit.atOneDepth) {
      expect(longerMm).toBeCloseTo(0.055 - 0.00005 * speedMmPerS, 12);
      expect(depth).toBeCloseTo(0.25, 12);
    }
    const less = dotFit(
      dots(
        (speed, depth) => 0.055 - 0.00005 * speed + 0.1 * (depth - 0.25),
        (speed, place) => depths(600 - speed, place),
      ),
    )!;
    expect(less.slowOnS).toBeCloseTo(0.00005, 12);
  });
  it('is less sure the more dots scatter, and at rest than among the speeds that were burned', () => {
    const fit = dotFit(dots(() => 0.05))!;
    const wild = dotFit(dots((_speed, _depth, place) => 0.05 + (place % 3 === 0 ? 0.03 : -0.03)))!;
    expect(wild.slowOnSigmaS).toBeGreaterThan(4 * fit.slowOnSigmaS);
    expect(wild.misfit).toBeGreaterThan(4);
    expect(fit.sigmaAt(0)).toBeCloseTo(fit.standingSigmaMm, 12);
    expect(fit.standingSigmaMm).toBeGreaterThan(fit.sigmaAt(200));
    // Six dots of one sigma, 100 mm/s about their middle and depth balanced over speeds: s / √(4 × 100²), and Student’s factor for three degrees, 1.197.
    expect(fit.slowOnSigmaS).toBeCloseTo((1.197 * 0.003) / 200, 7);
  });
  it('is none of two dots, of one speed, or where depth goes with speed alone', () => {
    expect(dotFit(dots(() => 0).slice(0, 3))).toBeNull();
    expect(dotFit([])).toBeNull();
    expect(dotFit(dots(() => 0).map((dot) => ({ ...dot, speedMmPerS: 100 })))).toBeNull();
    expect(
      dotFit(
        dots(
          () => 0,
          (speed) => speed / 1000,
        ),
      ),
    ).toBeNull();
    expect(() => dotFit(dots(() => 0, undefined, 0))).toThrow(RangeError);
  });
});
