function positive(name: string, value: number): void {
  if (!(value > 0)) throw new RangeError(`invalid ${name}: ${value}`);
}

/**
 * Time in s of a move from rest to rest over `distanceMm` at no more than `speedMmPerS` with constant acceleration:
 * t = v/a + d/v when the speed is reached (d >= v²/a), otherwise t = 2 sqrt(d/a). A distance of 0 takes 0 s.
 * Throws RangeError for a negative distance, or a speed or acceleration not above zero.
 *
 * moveTimeS(10, 100, 1000) === 0.2; moveTimeS(5, 100, 1000) ≈ 0.1414
 */
export function moveTimeS(distanceMm: number, speedMmPerS: number, accelerationMmPerS2: number): number {
  if (!(distanceMm >= 0)) throw new RangeError(`invalid distanceMm: ${distanceMm}`);
  positive('speedMmPerS', speedMmPerS);
  positive('accelerationMmPerS2', accelerationMmPerS2);
  if (distanceMm >= (speedMmPerS * speedMmPerS) / accelerationMmPerS2) {
    return speedMmPerS / accelerationMmPerS2 + distanceMm / speedMmPerS;
  }
  return 2 * Math.sqrt(distanceMm / accelerationMmPerS2);
}

/** Run-up in mm that a head needs on each side of a mark to hold `speedMmPerS` over all of it: v² / (2 a). */
export function runUpMm(speedMmPerS: number, accelerationMmPerS2: number): number {
  positive('speedMmPerS', speedMmPerS);
  positive('accelerationMmPerS2', accelerationMmPerS2);
  return (speedMmPerS * speedMmPerS) / (2 * accelerationMmPerS2);
}

/**
 * Time in s of one line of a fill with its ramps outside the mark: L/v + 2 v/a.
 *
 * fillLineTimeS(100, 300, 3000) ≈ 0.5333
 */
export function fillLineTimeS(lengthMm: number, speedMmPerS: number, accelerationMmPerS2: number): number {
  positive('speedMmPerS', speedMmPerS);
  positive('accelerationMmPerS2', accelerationMmPerS2);
  return lengthMm / speedMmPerS + (2 * speedMmPerS) / accelerationMmPerS2;
}

/**
 * The speed past which a fill of lines `lengthMm` long gets slower again: v* = sqrt(L a / 2), where L/v + 2 v/a is least.
 *
 * fastestFillSpeedMmPerS(100, 3000) ≈ 387.3
 */
export function fastestFillSpeedMmPerS(lengthMm: number, accelerationMmPerS2: number): number {
  positive('lengthMm', lengthMm);
  positive('accelerationMmPerS2', accelerationMmPerS2);
  return Math.sqrt((lengthMm * accelerationMmPerS2) / 2);
}
