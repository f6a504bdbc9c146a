import { describe, expect, it } from 'vitest';
import { focusedDiameterMm, rayleighRangeMm } from './gaussian';

// Values worked out by hand from the formulas of S. A. Self, Applied Optics 22 (1983) 658, and ISO 11146-1.
describe('focused Gaussian beam', () => {
  it.each([
    { focal: 50.8, beam: 6, quality: 1, spot: 0.11427, rayleigh: 0.9675 },
    { focal: 38.1, beam: 8, quality: 1.1, spot: 0.0707, rayleigh: 0.337 },
    { focal: 50.8, beam: 8, quality: 1.1, spot: 0.0943, rayleigh: 0.599 },
    { focal: 101.6, beam: 8, quality: 1.1, spot: 0.1885, rayleigh: 2.395 },
  ])('f $focal mm, D $beam mm, M² $quality', ({ focal, beam, quality, spot, rayleigh }) => {
    const optics = { wavelengthMm: 0.0106, focalLengthMm: focal, beamDiameterMm: beam, beamQuality: quality };
    const d0 = focusedDiameterMm(optics);
    expect(d0).toBeCloseTo(spot, 4);
    expect(rayleighRangeMm(d0, 0.0106, quality)).toBeCloseTo(rayleigh, 3);
  });

  it.each([NaN, 0, -1, Infinity])('refuses a focal length of %f', (focalLengthMm) => {
    expect(() => focusedDiameterMm({ wavelengthMm: 0.01, focalLengthMm, beamDiameterMm: 6, beamQuality: 1 })).toThrow(
      RangeError,
    );
  });
  it('refuses a beam that would be better than an ideal one', () => {
    const optics = { wavelengthMm: 0.01, focalLengthMm: 50, beamDiameterMm: 6, beamQuality: 0.9 };
    expect(() => focusedDiameterMm(optics)).toThrow('invalid beamQuality: 0.9');
  });
});
