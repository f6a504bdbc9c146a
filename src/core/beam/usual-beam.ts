import type { SourceKind } from '../machine/machine';
import { focusedDiameterMm } from './gaussian';

/** What a kind of source usually sends to the lens: width of the beam there, in mm, and its propagation ratio M². From memory. */
export interface UsualBeam {
  readonly diameterMm: number;
  readonly beamQuality: number;
  /** Widest beam that reaches a lens of such machines. */
  readonly widestMm: number;
}

export const USUAL_BEAM: Readonly<Record<SourceKind, UsualBeam>> = {
  'blue-diode': { diameterMm: 4, beamQuality: 10, widestMm: 8 },
  'co2-glass': { diameterMm: 6, beamQuality: 1.2, widestMm: 14 },
  'co2-rf': { diameterMm: 7, beamQuality: 1.2, widestMm: 20 },
  fibre: { diameterMm: 7, beamQuality: 1.5, widestMm: 16 },
  uv: { diameterMm: 8, beamQuality: 1.3, widestMm: 16 },
};

interface Source {
  readonly sourceKind: SourceKind;
  readonly wavelengthNm: number;
}

/**
 * Spot in mm by the beam formulas for the usual beam of a source; null where they do not hold: a diode's spot is the picture of its
 * emitters, several and oblong, and must be measured. Null also for numbers that are no lengths.
 */
export function computedSpotMm({ sourceKind, wavelengthNm }: Source, focalLengthMm: number): number | null {
  if (sourceKind === 'blue-diode' || !(focalLengthMm > 0) || !(wavelengthNm > 0)) return null;
  const { diameterMm, beamQuality } = USUAL_BEAM[sourceKind];
  return focusedDiameterMm({
    wavelengthMm: wavelengthNm / 1e6,
    focalLengthMm,
    beamDiameterMm: diameterMm,
    beamQuality,
  });
}

/** No spot of these machines is wider than this in focus. */
const WIDEST_SPOT_MM = 0.6;

/**
 * Why a spot is hard to believe, and what to do; null where it is plausible. No beam that fits through these machines focuses finer
 * than its diffraction limit, and none that is in focus is as wide as a pencil line.
 */
export function spotDoubt(source: Source, focalLengthMm: number, spotMm: number): string | null {
  if (!(spotMm > 0) || !(focalLengthMm > 0) || !(source.wavelengthNm > 0)) return null;
  const finestMm = focusedDiameterMm({
    wavelengthMm: source.wavelengthNm / 1e6,
    focalLengthMm,
    beamDiameterMm: USUAL_BEAM[source.sourceKind].widestMm,
    beamQuality: 1,
  });
  if (spotMm < finestMm * 0.95)
    return `A spot of ${spotMm} mm is finer than this wavelength and focal length allow (about ${finestMm.toPrecision(2)} mm at best). Measure it: burn single lines and look through a loupe.`;
  if (spotMm > WIDEST_SPOT_MM)
    return `A spot of ${spotMm} mm is wider than a sharp one usually is. Was it measured out of focus?`;
  return null;
}
