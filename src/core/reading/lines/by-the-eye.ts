import { normalSum } from '../../stats/normal';
import type { LinesSeen } from './lines-of-fill';

/**
 * What an eye just makes out of a fine grating in good light: a tenth of its mean at 30 periods to a degree, and e times that for each further 10.9,
 * so that beyond 55 nothing at all. From memory, without a source, after the measured fall of contrast sensitivity towards its limit (the
 * numbers usually given are F. W. Campbell, J. G. Robson, J. Physiol. 197 (1968) 551). 30 periods to a degree are one minute of arc for half
 * a period, the common limit of the trade: 0.175 mm at 300 mm.
 */
const AT_30_PER_DEGREE = 0.1;
const PER_DEGREE_A_POWER = 10.9;

/** Periods of a pitch to a degree of what is seen from a distance. */
const perDegree = (pitchMm: number, distanceMm: number): number => ((Math.PI / 180) * distanceMm) / pitchMm;

/** The least ripple, as its amplitude over the mean, that an eye makes out at a pitch from a distance; 1 and more: none, however strong. */
export function leastRippleSeen(pitchMm: number, distanceMm: number): number {
  return AT_30_PER_DEGREE * Math.exp((perDegree(pitchMm, distanceMm) - 30) / PER_DEGREE_A_POWER);
}

/** Chance from which on what a photo shows is taken for an answer. */
const SURE = 0.9;

/**
 * Whether an eye sees lines of a pitch from a distance, by what a photo shows of them; null where that is too close to call, or the photo does not
 * tell. Lines too fine for any eye are not seen, whatever the photo shows.
 */
export function eyeSeesLines(lines: LinesSeen | null, pitchMm: number, distanceMm: number): boolean | null {
  const least = leastRippleSeen(pitchMm, distanceMm);
  if (least >= 1) return false;
  return lines && isAbove(lines, least);
}

/** Whether a ripple is above a level, where it is sure enough; null where not. */
export function isAbove({ visibility, visibilitySigma }: LinesSeen, level: number): boolean | null {
  const chance = visibilitySigma > 0 ? normalSum((visibility - level) / visibilitySigma) : Number(visibility > level);
  if (chance >= SURE) return true;
  return chance <= 1 - SURE ? false : null;
}
