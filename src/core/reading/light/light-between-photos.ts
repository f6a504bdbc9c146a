import { ownSigma, type CellReading } from '../observations';
import { lightnessUnderVeil } from './under-veil';

/** With fewer cells in both photos than this nothing is said of them. */
const LEAST_CELLS = 6;
/** More light on one photo is told where it is so many times its own standard deviation. */
const SURE = 2;
/**
 * Ordinary photos of a piece differ by about this share of white, however many cells they show: measured on pairs by the tests' second renderer,
 * root mean squares from 0.0002 on cork to 0.001 on slate.
 */
const LEAST_SIGMA = 0.0005;
/** A share of white small enough that a cell moves by so much of its slope. */
const SMALL = 1e-4;

/** L* by which light added to a cell and to bare stock alike moves its reading, for each share of white, at its beginning. */
const slopeOf = ({ lightness, deltaLightness }: CellReading): number =>
  (lightnessUnderVeil(lightness, lightness - deltaLightness, SMALL) - lightness) / SMALL;

/** The cells that a photo shows. */
export interface CellsOfPhoto {
  readonly cells: readonly CellReading[];
  /** Whether it shows the card as a mirror does, through its sheet: what that takes of its contrast is no light that lies over it. */
  readonly isMirrored: boolean;
}

/** How much more light lies over each photo of a piece than over the one with least, as shares of white that nothing in any of them told. */
export interface LightBetween {
  /** By the photos' order; 0 for those that may have none. */
  readonly added: readonly number[];
  /** L* that a reading may be off by such light, as a standard deviation: as much as differs between photos may lie under all of them. */
  sigmaOf(cell: CellReading): number;
}

/**
 * What photos of one piece tell of each other's light. Added light moves a mark's L* by the more the more it differs from bare stock, all marks of a
 * photo in one sense: less contrast. It is never taken away, so that of two photos the one with more contrast is nearer to the piece. Weighted
 * least squares through nought of what cells differ by over their slopes, each photo against the one that shows most cells; wider by what cells
 * scatter about that.
 *
 * Example: marks of L* 50 and 60 on stock of 19 that a second photo has under 0.003 of white: [0, 0.003], and 0.003 of a slope as a standard deviation.
 */
export function lightBetween(photos: readonly CellsOfPhoto[]): LightBetween {
  const fronts = photos.filter(({ isMirrored }) => !isMirrored);
  const whole = fronts.find(({ cells }) => fronts.every((other) => other.cells.length <= cells.length));
  const against = photos.map((photo) => {
    if (photo === whole) return { added: 0, sigma: 0 };
    return photo.isMirrored ? null : moreThan(whole!.cells, photo.cells);
  });
  const least = against.reduce((one, other) => (other && (!one || other.added < one.added) ? other : one), null);
  const added = against.map((one) => {
    if (!one || !least) return 0;
    const more = one.added - least.added;
    return more > SURE * Math.max(LEAST_SIGMA, Math.hypot(one.sigma, least.sigma)) ? more : 0;
  });
  const most = Math.max(0, ...added);
  return { added, sigmaOf: (cell) => (most === 0 ? 0 : Math.abs(most * slopeOf(cell))) };
}

/** How much more light lies over a photo than over another one; null where too few cells are in both. */
function moreThan(
  other: readonly CellReading[],
  cells: readonly CellReading[],
): { added: number; sigma: number } | null {
  const known = new Map(other.filter(isTold).map((cell) => [cell.cellIndex, cell]));
  const pairs = cells.filter(isTold).flatMap((cell) => {
    const there = known.get(cell.cellIndex);
    if (!there) return [];
    const variance = ownSigma(cell) ** 2 + ownSigma(there) ** 2;
    return [{ slope: (slopeOf(cell) + slopeOf(there)) / 2, apart: cell.lightness - there.lightness, variance }];
  });
  const steep = pairs.reduce((sum, { slope, variance }) => sum + slope ** 2 / variance, 0);
  if (pairs.length < LEAST_CELLS || steep === 0) return null;
  const added = pairs.reduce((sum, { slope, apart, variance }) => sum + (slope * apart) / variance, 0) / steep;
  const left = pairs.reduce((sum, { slope, apart, variance }) => sum + (apart - added * slope) ** 2 / variance, 0);
  return { added, sigma: Math.max(1, Math.sqrt(left / (pairs.length - 1))) / Math.sqrt(steep) };
}

/** What a photo doubts for another reason than its light, like tones that a camera bends, tells nothing of that. */
const isTold = ({ doubts }: CellReading): boolean => doubts.every((doubt) => doubt === 'reflection');
