import { describe, expect, it } from 'vitest';
import { bandOfWavelength } from './bench';
import { LatticeNoise, NoiseTable, randomFrom } from './random';

describe('randomness', () => {
  it('is normal enough, smooth enough, and seeded', () => {
    const noise = new NoiseTable(randomFrom('noise'));
    const values = Array.from({ length: 20000 }, () => noise.next());
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    const variance = values.reduce((sum, value) => sum + value * value, 0) / values.length;
    expect(mean).toBeCloseTo(0, 1);
    expect(variance).toBeCloseTo(1, 1);
    const lattice = new LatticeNoise(randomFrom('lattice'));
    for (let k = 0; k < 200; k++) {
      expect(Math.abs(lattice.at(k * 0.37, 5.5))).toBeLessThanOrEqual(1);
      expect(Math.abs(lattice.at(k * 0.37, 5.5) - lattice.at(k * 0.37 + 0.001, 5.5))).toBeLessThan(0.01);
    }
    expect(randomFrom('a')()).toBe(randomFrom('a')());
  });
  it.each([
    [355, 'ultraviolet'],
    [450, 'blue'],
    [1064, 'near'],
    [10600, 'far'],
  ] as const)('%i nm is %s', (nm, band) => expect(bandOfWavelength(nm)).toBe(band));
});
