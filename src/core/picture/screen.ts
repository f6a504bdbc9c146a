/** How grey is made of dots that are burned or not. */
export const SCREENS = ['floyd-steinberg', 'bayer'] as const;
export type Screen = (typeof SCREENS)[number];

/** Dots of a picture, row by row: 1 where one is burned. */
export interface Dots {
  readonly columns: number;
  readonly rows: number;
  readonly burned: Uint8Array;
}

/** Wanted coverage at a column and a row, 0 for nothing burned and 1 for all of it. */
export type GreyAt = (column: number, row: number) => number;

/**
 * Shares of a dot's error that its neighbours take: the next one, and the three below, the last one first.
 * Source: R. W. Floyd, L. Steinberg, An adaptive algorithm for spatial grey scale, Proc. SID 17 (1976) 75.
 */
const AHEAD = 7 / 16;
const BELOW = [3 / 16, 5 / 16, 1 / 16] as const;

/** Rows go to and fro, so that dots do not line up in slants. What falls over an edge is lost, as the picture ends there. */
function diffused(grey: GreyAt, columns: number, rows: number): Uint8Array {
  const burned = new Uint8Array(columns * rows);
  let errors = new Float64Array(columns);
  for (let row = 0; row < rows; row++) {
    const next = new Float64Array(columns);
    const way = row % 2 === 0 ? 1 : -1;
    const end = way === 1 ? columns : -1;
    for (let column = way === 1 ? 0 : columns - 1; column !== end; column += way) {
      const wanted = grey(column, row) + errors[column]!;
      const dot = wanted >= 0.5 ? 1 : 0;
      burned[row * columns + column] = dot;
      const error = wanted - dot;
      if (column + way >= 0 && column + way < columns) errors[column + way]! += AHEAD * error;
      BELOW.forEach((share, place) => {
        const below = column + way * (place - 1);
        if (below >= 0 && below < columns) next[below]! += share * error;
      });
    }
    errors = next;
  }
  return burned;
}

/** Side of the square of thresholds: 64 greys. */
const BAYER_SIDE = 8;

/**
 * Where a place comes in the order in which dots of an even grey are added, 0 to 63: each halving of the square adds one bit from the row and one
 * from where row and column differ. Source: B. E. Bayer, Proc. IEEE Int. Conf. Communications (1973) 26-11.
 */
function bayerOrder(column: number, row: number): number {
  let order = 0;
  for (let bit = 1; bit < BAYER_SIDE; bit *= 2) {
    const across = (column & bit) === 0 ? 0 : 1;
    const down = (row & bit) === 0 ? 0 : 1;
    order = 4 * order + 2 * (across ^ down) + down;
  }
  return order;
}

/**
 * Dots for a picture of wanted coverages. Error diffusion keeps the mean coverage but for what falls over the edges; ordered dots keep it to 1/128.
 * Throws RangeError for a size that is not whole, or below 1.
 *
 * An even half by ordered dots is a checkerboard: `screened(() => 0.5, 4, 1, 'bayer').burned` -> 1, 0, 1, 0
 */
export function screened(grey: GreyAt, columns: number, rows: number, screen: Screen): Dots {
  if (!(Number.isInteger(columns) && Number.isInteger(rows) && columns > 0 && rows > 0))
    throw new RangeError(`invalid size: ${columns} by ${rows} dots`);
  if (screen === 'floyd-steinberg') return { columns, rows, burned: diffused(grey, columns, rows) };
  const burned = new Uint8Array(columns * rows);
  const orders = BAYER_SIDE * BAYER_SIDE;
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      if (grey(column, row) > (bayerOrder(column, row) + 0.5) / orders) burned[row * columns + column] = 1;
  return { columns, rows, burned };
}

/** Dots around an even patch that only bring error diffusion to where it is even. */
const RUN_IN = 32;

/**
 * Dots of an even grey, as in the middle of a large area of it: error diffusion that begins at an edge leaves light greys bare there. The first dots
 * are those of the whole pattern's place 0, 0.
 */
export function evenDots(grey: number, columns: number, rows: number, screen: Screen): Dots {
  if (screen !== 'floyd-steinberg') return screened(() => grey, columns, rows, screen);
  const wide = columns + 2 * RUN_IN;
  const { burned } = screened(() => grey, wide, rows + RUN_IN, screen);
  const out = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const from = (row + RUN_IN) * wide + RUN_IN;
    out.set(burned.subarray(from, from + columns), row * columns);
  }
  return { columns, rows, burned: out };
}

/** Runs of burned dots in a row, as first dot and the one after the last. */
export function runsOfRow({ columns, burned }: Dots, row: number): [from: number, to: number][] {
  const runs: [number, number][] = [];
  for (let column = 0; column < columns; column++) {
    if (burned[row * columns + column] === 0) continue;
    const last = runs.at(-1);
    if (last?.[1] === column) last[1] = column + 1;
    else runs.push([column, column + 1]);
  }
  return runs;
}

/** Share of dots that are burned. */
export const coverageOf = ({ burned }: Dots): number =>
  burned.reduce((sum, dot) => sum + dot, 0) / Math.max(1, burned.length);
