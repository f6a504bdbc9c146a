import { describe, expect, it } from 'vitest';
import { speedForEqualEnergy, type EnergySettings } from './equal-energy';

const cut: EnergySettings = { powerFraction: 1, speedMmPerS: 500 / 60, passes: 1, intervalMm: null };

describe('equal energy', () => {
  // Common practice: what dropped at 100 % and 500 mm/min also cut at 80 % and 400 mm/min.
  it('is slower with less power, faster with more passes', () => {
    expect(60 * speedForEqualEnergy(cut, { powerFraction: 0.8, passes: 1, intervalMm: null })).toBeCloseTo(400, 9);
    expect(60 * speedForEqualEnergy(cut, { powerFraction: 1, passes: 4, intervalMm: null })).toBeCloseTo(2000, 9);
    expect(
      60 * speedForEqualEnergy({ ...cut, passes: 2 }, { powerFraction: 1, passes: 1, intervalMm: null }),
    ).toBeCloseTo(250, 9);
  });
  it('is over the area where lines lie apart: closer lines go faster', () => {
    // 65 % at 300 mm/s and 75 % at 350 mm/s look about the same (common practice).
    const fill: EnergySettings = { powerFraction: 0.65, speedMmPerS: 300, passes: 1, intervalMm: 0.1 };
    expect(speedForEqualEnergy(fill, { powerFraction: 0.75, passes: 1, intervalMm: 0.1 })).toBeCloseTo(346.15, 2);
    expect(speedForEqualEnergy(fill, { powerFraction: 0.65, passes: 1, intervalMm: 0.05 })).toBeCloseTo(600, 9);
  });
  it('is refused of nothing, and between a line and an area', () => {
    expect(() => speedForEqualEnergy(cut, { powerFraction: 0, passes: 1, intervalMm: null })).toThrow(/above zero/);
    expect(() => speedForEqualEnergy(cut, { powerFraction: 1, passes: 1, intervalMm: 0.1 })).toThrow(/in common/);
  });
});
