import { FITS, type Fit } from '../fit/fit-bounds';

/** Which of two ladders a card has of its own: holes, or parts. */
export type MateSide = 'hole' | 'part';

/** What goes together with the cells of a card: parts of the same sheet or of another one, each drawn tighter by a step of its own. */
export interface Mates {
  /** What the card's own ladder is; of a card with both its holes. */
  readonly own: MateSide;
  /** How much tighter each of the others was drawn, on every side, in mm: parts larger, holes smaller. */
  readonly othersMm: readonly number[];
  /** Full widths that the cuts were taken to take. */
  readonly kerfMm: Readonly<Record<MateSide, number>>;
  /** What the others are cut of; null for the same sheet. */
  readonly otherStock: string | null;
  /** How they are shaped, in words. */
  readonly shape: string;
}

/** How holes and parts are called: holes by letters, parts by numbers, which are burned on them, since they fall out. */
export const nameOfMate = (side: MateSide, step: number): string =>
  side === 'hole' ? String.fromCharCode(65 + step) : String(step + 1);

/** Two ladders of which every pair is tighter by another sum, and all sums are even steps apart. */
export interface MateLadders {
  readonly holesMm: readonly number[];
  readonly partsMm: readonly number[];
}

const tenthOfMicron = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/**
 * Steps for holes and parts so that all pairs together make even sums: parts go by one step, holes by as many as there are parts. Half of the first sum
 * lies with either.
 *
 * From 0.1 by 0.01 with 2 holes and 3 parts: parts 0.05, 0.06, 0.07; holes 0.05, 0.08; sums 0.1 to 0.15.
 */
export function mateLadders(fromMm: number, stepMm: number, holes: number, parts: number): MateLadders {
  const ladder = (count: number, by: number): number[] =>
    Array.from({ length: count }, (_, k) => tenthOfMicron(fromMm / 2 + k * by));
  return { holesMm: ladder(holes, stepMm * parts), partsMm: ladder(parts, stepMm) };
}

/** One pair, and what was said of it. */
export interface PairOfMates {
  readonly cellIndex: number;
  /** The step of the other ladder. */
  readonly other: number;
  /** How much tighter the pair was drawn, on every side. */
  readonly tighterMm: number;
  readonly fit: Fit | null;
}

/**
 * The pair to try next: halfway between two that went differently, where most is left open, the loosest taken to be loose and the tightest not to go in
 * before they were tried. Null where no pair that is left lies between two that differ.
 *
 * Nothing tried of five: the third; when that is snug, one between it and an end.
 */
export function nextMates(pairs: readonly PairOfMates[]): PairOfMates | null {
  const sorted = [...pairs].sort((a, b) => a.tighterMm - b.tighterMm);
  const tried = sorted.flatMap(({ fit }, at) => (fit === null ? [] : [{ at, rank: FITS.indexOf(fit) }]));
  const known = [{ at: -1, rank: FITS.length - 1 }, ...tried, { at: sorted.length, rank: 0 }];
  let best: { at: number; open: number } | null = null;
  for (let k = 0; k + 1 < known.length; k++) {
    const [a, b] = [known[k]!, known[k + 1]!];
    const between = b.at - a.at - 1;
    const open = between * Math.abs(a.rank - b.rank);
    if (open > (best?.open ?? 0)) best = { at: a.at + Math.ceil((between + 1) / 2), open };
  }
  return best && sorted[best.at]!;
}
