import type { Lab } from './lab';

const RADIANS = Math.PI / 180;
const POWER_25_7 = 25 ** 7;

function hueDegrees(b: number, a: number): number {
  if (a === 0 && b === 0) return 0;
  const degrees = Math.atan2(b, a) / RADIANS;
  return degrees < 0 ? degrees + 360 : degrees;
}

/**
 * Colour difference CIEDE2000 with unit weights kL = kC = kH = 1.
 * Where the two hues are exactly 180 degrees apart the mean hue is discontinuous and rounding decides.
 *
 * Source: G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000 color-difference formula", Color Research and Application 30 (2005) 21.
 */
export function ciede2000([l1, a1, b1]: Lab, [l2, a2, b2]: Lab): number {
  const meanChroma = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2;
  const chroma7 = meanChroma ** 7;
  const g = 0.5 * (1 - Math.sqrt(chroma7 / (chroma7 + POWER_25_7)));
  const a1Prime = (1 + g) * a1;
  const a2Prime = (1 + g) * a2;
  const c1 = Math.hypot(a1Prime, b1);
  const c2 = Math.hypot(a2Prime, b2);
  const h1 = hueDegrees(b1, a1Prime);
  const h2 = hueDegrees(b2, a2Prime);

  const deltaL = l2 - l1;
  const deltaC = c2 - c1;
  let deltaHue = 0;
  if (c1 * c2 !== 0) {
    deltaHue = h2 - h1;
    if (deltaHue > 180) deltaHue -= 360;
    else if (deltaHue < -180) deltaHue += 360;
  }
  const deltaH = 2 * Math.sqrt(c1 * c2) * Math.sin((deltaHue / 2) * RADIANS);

  const meanL = (l1 + l2) / 2;
  const meanC = (c1 + c2) / 2;
  let meanHue = h1 + h2;
  if (c1 * c2 !== 0) {
    if (Math.abs(h1 - h2) <= 180) meanHue = (h1 + h2) / 2;
    else meanHue = h1 + h2 < 360 ? (h1 + h2 + 360) / 2 : (h1 + h2 - 360) / 2;
  }
  const t =
    1 -
    0.17 * Math.cos((meanHue - 30) * RADIANS) +
    0.24 * Math.cos(2 * meanHue * RADIANS) +
    0.32 * Math.cos((3 * meanHue + 6) * RADIANS) -
    0.2 * Math.cos((4 * meanHue - 63) * RADIANS);
  const rotation = 30 * Math.exp(-(((meanHue - 275) / 25) ** 2));
  const meanC7 = meanC ** 7;
  const chromaTerm = 2 * Math.sqrt(meanC7 / (meanC7 + POWER_25_7));
  const weightL = 1 + (0.015 * (meanL - 50) ** 2) / Math.sqrt(20 + (meanL - 50) ** 2);
  const weightC = 1 + 0.045 * meanC;
  const weightH = 1 + 0.015 * meanC * t;
  const rotationTerm = -Math.sin(2 * rotation * RADIANS) * chromaTerm;
  const partC = deltaC / weightC;
  const partH = deltaH / weightH;
  return Math.sqrt((deltaL / weightL) ** 2 + partC ** 2 + partH ** 2 + rotationTerm * partC * partH);
}
