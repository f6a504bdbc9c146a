import type { Point, Rect } from '../geometry/point';

/** How slits lie: staggered rows, which bend one way, or crossed ones, which bend both ways. */
export const PATTERNS = ['rows', 'crossed'] as const;
export type Pattern = (typeof PATTERNS)[number];

/** Each pattern as it is called. */
export const PATTERN_NAMES: Readonly<Record<Pattern, string>> = { rows: 'staggered rows', crossed: 'crossed slits' };

/** A field of slits that lets a sheet bend. */
export interface Lattice {
  readonly pattern: Pattern;
  /** From one row of slits to the next. */
  readonly pitchMm: number;
  readonly slitMm: number;
  /** What of the sheet stands between the ends of two slits of a row. */
  readonly bridgeMm: number;
}

/**
 * Crossed slits stand on a grid of squares, every second one upright: slits of both ways are as long as two squares less what stands between their ends,
 * so that their pitch follows.
 */
export const crossedPitchMm = ({ slitMm, bridgeMm }: Pick<Lattice, 'slitMm' | 'bridgeMm'>): number =>
  (slitMm + bridgeMm) / 2;

/** The pitch of a lattice, whichever pattern it has. */
export const pitchOf = (lattice: Lattice): number =>
  lattice.pattern === 'rows' ? lattice.pitchMm : crossedPitchMm(lattice);

/** Shorter ends of slits at the side of a field are left out: they weaken it and bend nothing. */
const SHORTEST_SHARE = 0.2;

/**
 * The slits of a field: rows across it, along x, that follow each other along y, each second one shifted by half of slit and bridge; or crossed ones. They
 * end half a bridge short of the field's sides, and those that would reach past them are shortened. As lines of two places.
 *
 * Rows 2 mm apart, slits of 10 mm and bridges of 2, over 24 by 4 mm: rows at 1 and 3 mm, the first of two slits of 10 mm.
 */
export function slitsIn(lattice: Lattice, field: Rect): Point[][] {
  return lattice.pattern === 'rows' ? rowsIn(lattice, field) : crossedIn(lattice, field);
}

/** How many rows of slits lie in a length. */
export const rowsOver = (lengthMm: number, pitchMm: number): number =>
  Math.max(0, Math.floor(lengthMm / pitchMm + 1e-9));

function rowsIn({ pitchMm, slitMm, bridgeMm }: Lattice, { x, y, width, height }: Rect): Point[][] {
  const period = slitMm + bridgeMm;
  const rows = rowsOver(height, pitchMm);
  const top = y + (height - (rows - 1) * pitchMm) / 2;
  return Array.from({ length: rows }, (_, row) => {
    const first = x + bridgeMm / 2 - (row % 2 === 0 ? 0 : period / 2);
    const count = Math.ceil(width / period) + 1;
    return Array.from({ length: count }, (__, k) =>
      slitBetween(first + k * period, slitMm, [x + bridgeMm / 2, x + width - bridgeMm / 2], (at) => ({
        x: at,
        y: top + row * pitchMm,
      })),
    ).flat();
  }).flat();
}

function crossedIn(lattice: Lattice, { x, y, width, height }: Rect): Point[][] {
  const { slitMm, bridgeMm } = lattice;
  const step = crossedPitchMm(lattice);
  const [columns, rows] = [Math.floor(width / step + 1e-9), Math.floor(height / step + 1e-9)];
  const [left, top] = [x + (width - (columns - 1) * step) / 2, y + (height - (rows - 1) * step) / 2];
  const edge = bridgeMm / 2;
  return Array.from({ length: rows }, (_, row) =>
    Array.from({ length: columns }, (__, column) => {
      const at = { x: left + column * step, y: top + row * step };
      return (row + column) % 2 === 0
        ? slitBetween(at.x - slitMm / 2, slitMm, [x + edge, x + width - edge], (place) => ({ x: place, y: at.y }))
        : slitBetween(at.y - slitMm / 2, slitMm, [y + edge, y + height - edge], (place) => ({ x: at.x, y: place }));
    }).flat(),
  ).flat();
}

/** A slit from a place on, shortened to what lies between two others; none where too little of it is left. */
function slitBetween(
  from: number,
  lengthMm: number,
  [low, high]: readonly [number, number],
  placed: (at: number) => Point,
): Point[][] {
  const [start, end] = [Math.max(from, low), Math.min(from + lengthMm, high)];
  return end - start < SHORTEST_SHARE * lengthMm ? [] : [[placed(start), placed(end)]];
}
