import { normalSum } from '../stats/normal';

/** A cut that is kept: what sound stock just came through at, and what it lays down so that the wanted share drops; in one unit, whichever. */
export interface KeptCut {
  readonly comesThrough: number;
  readonly laidDown: number;
}

/** A part that was cut with an energy, and whether it dropped. */
export interface TriedCut {
  readonly energy: number;
  readonly drops: boolean;
}

/** How much more energy a sheet takes than the one that a cut was kept on. */
export interface CutShift {
  /** In the logarithm, with its standard deviation: above zero it takes more. */
  readonly mean: number;
  readonly sigma: number;
  /** Share of parts that drop with an energy, all doubt included. */
  readonly dropsAt: (energy: number) => number;
}

/** Sheets of one stock differ by about so much in the logarithm of what comes through (from memory, without a source). */
const SHEETS = 0.1;
/** From place to place, at the least. */
const LEAST_SCATTER = 0.03;
/** A kept cut drops about 98 of 100: the normal law’s one-sided point. */
const SURE = 2.05;
const STEP = 0.005;
const REACH = 0.8;

/**
 * How far a sheet is off the one that a cut was kept on, by parts cut in it with known energies: the shift of a probit whose scatter is told by how far the
 * kept cut lies above what just comes through, by its posterior on a grid. Nothing tried leaves what is usual of sheets. Throws RangeError for a kept
 * cut that lays down no more than comes through.
 *
 * All of three below the kept energy drop: it takes no more than before. None does: it takes clearly more.
 */
export function cutShift(tried: readonly TriedCut[], { comesThrough, laidDown }: KeptCut): CutShift {
  if (!(comesThrough > 0 && laidDown > comesThrough))
    throw new RangeError('invalid cut: what it lays down must be more than what just comes through');
  const scatter = Math.max(LEAST_SCATTER, Math.log(laidDown / comesThrough) / SURE);
  const drops = (energy: number, shift: number): number =>
    normalSum((Math.log(energy / comesThrough) - shift) / scatter);
  const grid: { shift: number; weight: number }[] = [];
  for (let shift = -REACH; shift <= REACH + STEP / 2; shift += STEP) {
    const prior = Math.exp((-shift * shift) / (2 * SHEETS * SHEETS));
    const weight = tried.reduce((product, { energy, drops: dropped }) => {
      const chance = drops(energy, shift);
      return product * (dropped ? chance : 1 - chance);
    }, prior);
    grid.push({ shift, weight });
  }
  const sum = grid.reduce((total, { weight }) => total + weight, 0);
  const mean = grid.reduce((total, { shift, weight }) => total + shift * weight, 0) / sum;
  const variance = grid.reduce((total, { shift, weight }) => total + (shift - mean) ** 2 * weight, 0) / sum;
  return {
    mean,
    sigma: Math.sqrt(variance),
    dropsAt: (energy) => grid.reduce((total, { shift, weight }) => total + drops(energy, shift) * weight, 0) / sum,
  };
}
