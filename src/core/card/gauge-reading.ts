import { plainNumber } from '../quantities/format';

const MM_PER_INCH = 25.4;
/** A reading within this factor of what was drawn may be one of it. */
const NEAR = 1.4;

const isNear = (readingMm: number, drawnMm: number): boolean =>
  readingMm > drawnMm / NEAR && readingMm < drawnMm * NEAR;

/**
 * Why a reading in mm is no measure of something that was drawn so large: in words, with what may have been meant; null where it may be one. A number
 * that is 25.4 times off was read in the other unit.
 *
 * 0.787 of 20 mm: "0.787 mm is 25 times less than the 20 mm that were drawn: in inches? Then type 0.787 in."
 */
export function farOff(readingMm: number, drawnMm: number): string | null {
  if (isNear(readingMm, drawnMm)) return null;
  const reading = plainNumber(readingMm, 5);
  const drawn = `the ${plainNumber(drawnMm, 4)} mm that were drawn`;
  if (isNear(readingMm * MM_PER_INCH, drawnMm))
    return `${reading} mm is 25 times less than ${drawn}: in inches? Then type ${reading} in.`;
  if (isNear(readingMm / MM_PER_INCH, drawnMm)) {
    const meant = plainNumber(readingMm / MM_PER_INCH, 5);
    return `${reading} mm is 25 times ${drawn}: in millimetres? Then type ${meant} mm.`;
  }
  return `${reading} mm is far from ${drawn}: measure again.`;
}
