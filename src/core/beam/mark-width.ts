/**
 * Width in mm of the line that a Gaussian beam of 1/e² radius w0 marks when its peak fluence F0 exceeds the threshold Fth:
 * D = sqrt(2 w0² ln(F0/Fth)); 0 at or below threshold. Both fluences in the same unit.
 * Throws RangeError unless radius and threshold are above zero and the fluence is not negative.
 *
 * w0 0.05, Fth 0.1, F0 0.2 -> 0.05887 mm.
 * Source: J. M. Liu, "Simple technique for measurements of pulsed Gaussian-beam spot sizes", Optics Letters 7 (1982) 196.
 */
export function markWidthMm(radiusMm: number, peakFluence: number, thresholdFluence: number): number {
  if (!(radiusMm > 0)) throw new RangeError(`invalid radiusMm: ${radiusMm}`);
  if (!(thresholdFluence > 0)) throw new RangeError(`invalid thresholdFluence: ${thresholdFluence}`);
  if (!(peakFluence >= 0)) throw new RangeError(`invalid peakFluence: ${peakFluence}`);
  if (peakFluence <= thresholdFluence) return 0;
  return Math.sqrt(2 * radiusMm * radiusMm * Math.log(peakFluence / thresholdFluence));
}
