import { meanAndSpread } from '../stats/robust';
import { studentFactor } from '../stats/student';
import { pitchOf, type Lattice } from './lattice';
import { torsionCoefficient } from './torsion';

/** A lattice as it was cut into a sheet. */
export interface CutLattice extends Lattice {
  readonly thicknessMm: number;
  /** What each slit takes. */
  readonly kerfMm: number;
}

/** What twists when a lattice bends. */
export interface Links {
  /** Width of what stands between two rows, and how long it is free. */
  readonly widthMm: number;
  readonly lengthMm: number;
}

/**
 * The links of a lattice: between two rows stands a pitch less the kerf; each is free from the end of one bridge to the start of the next, half of slit
 * less bridge, and longer by the kerf, which rounds the slits' ends. Throws RangeError where nothing of a link is left, or slits do not overlap.
 */
export function linksOf(lattice: CutLattice): Links {
  const { slitMm, bridgeMm, kerfMm, pattern } = lattice;
  const widthMm = (pattern === 'rows' ? pitchOf(lattice) : bridgeMm / 2) - kerfMm;
  if (!(widthMm > 0))
    throw new RangeError('The cut is as wide as what shall stand between two slits: nothing is left of it.');
  const lengthMm = pattern === 'rows' ? (slitMm - bridgeMm) / 2 + kerfMm : slitMm / 2;
  if (!(lengthMm > 0))
    throw new RangeError('Slits do not overlap: nothing can twist. Make them longer than what is between them.');
  return { widthMm, lengthMm };
}

/**
 * Least radius over the strength constant of the stock (its G/τ, the modulus over the stress it breaks at), in mm: each row bends by its pitch over the
 * radius, and its links twist by that over their length. Source: Saint-Venant’s torsion of a rectangle, `torsion.ts`.
 *
 * Rows 2.5 mm apart, a kerf of 0.2, links of 10 mm, a sheet of 2.3: k1 0.675, and 0.675 · 2.3 · 2.5 / 10 = 0.388.
 */
export function radiusOverStrength(lattice: CutLattice): number {
  const { widthMm, lengthMm } = linksOf(lattice);
  const { thicknessMm } = lattice;
  const k1 = torsionCoefficient(widthMm, thicknessMm);
  return (k1 * Math.min(widthMm, thicknessMm) * pitchOf(lattice)) / lengthMm;
}

/** A sample that was bent round smaller and smaller things: the least that it held round. */
export interface BentSample {
  readonly lattice: CutLattice;
  readonly heldMm: number;
}

/** Strength of a stock against twisting, as a median with its spread in the logarithm. */
export interface Strength {
  /** G/τ at which samples broke. */
  readonly median: number;
  /** Standard deviation of its logarithm from sample to sample, what is usual counted in, and how many told it. */
  readonly logSpread: number;
  readonly samples: number;
}

/** Mandrels, pipes and bottles at hand differ by about so much: what held broke somewhere down to the next smaller one (from memory, without a source). */
const STEP_SHARE = 0.2;
/** Strips of one sheet differ by about so much in the logarithm, which is worth so many degrees of freedom (from memory, without a source). */
const USUAL = { logSpread: 0.12, degrees: 4 } as const;

/**
 * The strength constant of a stock from samples of one pattern: their mean in the logarithm, and their spread pooled with what is usual, since two or three
 * strips say little of how others differ. Throws RangeError for none.
 */
export function strengthFrom(samples: readonly BentSample[]): Strength {
  if (samples.length === 0) throw new RangeError('missing samples: nothing was bent');
  const logs = samples.map(({ lattice, heldMm }) =>
    Math.log((heldMm * (1 - STEP_SHARE / 2)) / radiusOverStrength(lattice)),
  );
  const { mean, spread } = meanAndSpread(logs);
  const own = samples.length - 1;
  const squares = USUAL.degrees * USUAL.logSpread ** 2 + (own > 0 ? own * spread ** 2 : 0);
  return {
    median: Math.exp(mean),
    logSpread: Math.sqrt(squares / (USUAL.degrees + own)),
    samples: samples.length,
  };
}

/** Of hinges bent to it so many hold. */
const HOLDS = 0.95;

/**
 * The radius at which half of the hinges of a lattice break, and the one to which they can be bent so that 95 of 100 hold, by the spread of the samples
 * and how few they were.
 */
export function leastRadii(
  lattice: CutLattice,
  { median, logSpread, samples }: Strength,
): { readonly breaksMm: number; readonly safeMm: number } {
  const breaksMm = median * radiusOverStrength(lattice);
  // One-sided: Student’s factor for 90 % both ways leaves 5 % on one.
  const factor = studentFactor(USUAL.degrees + samples - 1, 2 * HOLDS - 1);
  return { breaksMm, safeMm: breaksMm * Math.exp(factor * logSpread * Math.sqrt(1 + 1 / samples)) };
}

/** A bend that is wanted. */
export interface Bend {
  readonly radiusMm: number;
  readonly angleDeg: number;
}

/** How many rows a bend takes, and how long they are together: the arc of the sheet's middle. One row at the least. */
export function rowsFor(
  { radiusMm, angleDeg }: Bend,
  pitchMm: number,
): { readonly rows: number; readonly lengthMm: number } {
  const rows = Math.max(1, Math.ceil((radiusMm * angleDeg * (Math.PI / 180)) / pitchMm - 1e-9));
  return { rows, lengthMm: rows * pitchMm };
}
