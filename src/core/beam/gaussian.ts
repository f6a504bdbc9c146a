export interface BeamOptics {
  readonly wavelengthMm: number;
  readonly focalLengthMm: number;
  /** 1/e² diameter of the beam where it meets the lens. */
  readonly beamDiameterMm: number;
  /** Beam propagation ratio M², 1 for an ideal Gaussian. */
  readonly beamQuality: number;
}

/**
 * Focused 1/e² diameter in mm, d0 = 4 M² λ f / (π D), for a collimated beam that fills no more than the lens.
 * Throws RangeError unless every value is above zero and M² is at least 1.
 *
 * λ 0.0106, f 50.8, D 6, M² 1 -> 0.11427 mm.
 * Source: S. A. Self, "Focusing of spherical Gaussian beams", Applied Optics 22 (1983) 658; ISO 11146-1.
 */
export function focusedDiameterMm(optics: BeamOptics): number {
  const { wavelengthMm, focalLengthMm, beamDiameterMm, beamQuality } = optics;
  for (const [name, value] of Object.entries(optics) as [string, number][]) {
    if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`invalid ${name}: ${value}`);
  }
  if (!(beamQuality >= 1)) throw new RangeError(`invalid beamQuality: ${beamQuality}`);
  return (4 * beamQuality * wavelengthMm * focalLengthMm) / (Math.PI * beamDiameterMm);
}

/**
 * Rayleigh range in mm, zR = π d0² / (4 M² λ): how far from focus the spot's area has doubled.
 * Source as `focusedDiameterMm`.
 *
 * d0 0.11427, λ 0.0106, M² 1 -> 0.9675 mm.
 */
export function rayleighRangeMm(diameterMm: number, wavelengthMm: number, beamQuality: number): number {
  return (Math.PI * diameterMm * diameterMm) / (4 * beamQuality * wavelengthMm);
}
