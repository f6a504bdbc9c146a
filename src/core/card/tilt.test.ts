import { describe, expect, it } from 'vitest';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
import { offsetOnTilt, spacerAwayMm, tiltChecks, tiltWords } from './tilt';

/** One in twenty, on a spacer of 6 mm, level 45 mm from the card's left edge. */
const TILT = { fallMmPerMm: 0.05, levelAtMm: 45, spacerMm: 6 };

describe('a tilted board', () => {
  it('lies nearer to the head on the left of where focus is set, and further away on the right: plus raises the head', () => {
    expect(offsetOnTilt(TILT, 45)).toBe(0);
    // 20 mm to the right the face lies 1 mm lower, as if the head were raised by 1 mm.
    expect(offsetOnTilt(TILT, 65)).toBeCloseTo(1, 12);
    expect(offsetOnTilt(TILT, 5)).toBeCloseTo(-2, 12);
  });
  it('rises by its spacer over the way between the edge it rests on and that', () => {
    expect(spacerAwayMm(TILT)).toBeCloseTo(120, 12);
    expect(spacerAwayMm({ ...TILT, spacerMm: 3 })).toBeCloseTo(60, 12);
  });
  it('is told as somebody does it, in the units they like, and checked before the beam comes on', () => {
    expect(tiltWords(TILT, DEFAULT_LIKED_UNITS)).toBe(
      'tilt the board: rest its right end on the bed, push a spacer of 6 mm under it 120 mm to the left of there, so that its left end is up; set the focus 45 mm from the card’s left edge',
    );
    expect(tiltWords(TILT, { length: 'in', speed: 'mm/s', density: 'lines/mm' } as never)).toContain(
      '4.724 in to the left',
    );
    const checks = tiltChecks(TILT, DEFAULT_LIKED_UNITS);
    expect(checks[0]).toMatch(/^Tilt the board: .*\.$/);
    expect(checks[1]).toMatch(/cannot slide, and the head clears its raised end/);
    expect(tiltChecks(undefined, DEFAULT_LIKED_UNITS)).toEqual([]);
  });
});
