import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxJoint, type BoxJoint } from './box-joint';

const joint = (change: Partial<BoxJoint> = {}): BoxJoint => ({
  lengthMm: 90,
  thicknessMm: 3.05,
  fingerMm: 10,
  clearanceMm: 0,
  kerfMm: 0.2,
  ...change,
});

describe('a box joint', () => {
  it('has fingers drawn wider by the kerf and gaps narrower, an odd number of both', () => {
    expect(boxJoint(joint())).toMatchObject({ count: 9, fingerMm: 10, gapMm: 10, drawnDepthMm: 3.05, undoneMm: 0.4 });
    expect(boxJoint(joint()).drawnFingerMm).toBeCloseTo(10.2, 9);
    expect(boxJoint(joint()).drawnGapMm).toBeCloseTo(9.8, 9);
    // Eight would leave the ends of an edge unlike.
    expect(boxJoint(joint({ lengthMm: 80 })).count).toBe(7);
    expect(boxJoint(joint({ lengthMm: 82 })).count).toBe(9);
  });

  it('leaves in each gap what was wanted about its finger, and adds up to the edge, whatever its sizes', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 40, max: 300, noNaN: true }),
        fc.double({ min: -0.2, max: 0.4, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (lengthMm, clearanceMm, kerfMm) => {
          const drawn = boxJoint(joint({ lengthMm, clearanceMm, kerfMm }));
          const { count, drawnFingerMm, drawnGapMm, drawnEndMm } = drawn;
          // What is cut on its line: a finger loses a kerf, a gap gains one.
          expect(drawnGapMm + kerfMm - (drawnFingerMm - kerfMm)).toBeCloseTo(clearanceMm, 9);
          const fingers = (count + 1) / 2;
          const edge = 2 * drawnEndMm + (fingers - 2) * drawnFingerMm + (fingers - 1) * drawnGapMm;
          // The edge's own two ends are cut as well.
          expect(edge).toBeCloseTo(lengthMm + kerfMm, 9);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is refused where nothing would be left of it', () => {
    expect(() => boxJoint(joint({ lengthMm: 19 }))).toThrow('too short');
    expect(boxJoint(joint({ lengthMm: 30 })).count).toBe(3);
    expect(() => boxJoint(joint({ kerfMm: -0.1 }))).toThrow('takes something away');
    expect(() => boxJoint(joint({ fingerMm: 0.3, kerfMm: 0.4 }))).toThrow('wider than a gap');
    expect(() => boxJoint(joint({ fingerMm: 0.3, clearanceMm: 0.8 }))).toThrow('nothing is left of a finger');
    expect(() => boxJoint(joint({ fingerMm: 0 }))).toThrow('have a width');
  });
});
