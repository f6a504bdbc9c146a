import { describe, expect, it } from 'vitest';
import { bandOfWavelength } from './bench';
import { LatticeNoise, NoiseTable, randomFrom } from './random';

describe('randomness', () => {
  it('is normal enough, smooth enough, and seeded', () => {
    const values = new Float32Array(20000);
    const noise = new NoiseTable(randomFrom('noise'));
    noise.fill(values.subarray(0, 8000));
    noise.fill(values.subarray(8000));
    expect(values[0]).not.toBe(values[8000]);
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
  it('adds smooth noise to a row as it is at each of its places', () => {
    const lattice = new LatticeNoise(randomFrom('lattice'));
    const xs = Float64Array.from({ length: 50 }, (_, k) => k * 0.37 - 5);
    const row = new Float64Array(50).fill(2);
    lattice.addRow(row, 0.5, xs, -3.7);
    expect([...row]).toEqual(Array.from(xs, (x) => 2 + 0.5 * lattice.at(x, -3.7)));
  });
  it.each([
    [355, 'ultraviolet'],
    [450, 'blue'],
    [1064, 'near'],
    [10600, 'far'],
  ] as const)('%i nm is %s', (nm, band) => expect(bandOfWavelength(nm)).toBe(band));
});
