import type { Layout } from './layout';

/** Boxes that start within this of each other stand in one row or column. */
const ALIKE_MM = 0.2;
/** A row or column is named whole where so much of it is meant. */
const MOST = 0.7;

/** So many cells are named one by one. */
const FEW = 6;

/** Numbers in runs: "2", "2 and 3", "2–4", "1–3, 6". */
function runsOf(numbers: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const last = runs.at(-1);
    if (last && number === last[1] + 1) last[1] = number;
    else runs.push([number, number]);
  }
  return runs
    .map(([from, to]) => (from === to ? `${from}` : to === from + 1 ? `${from} and ${to}` : `${from}–${to}`))
    .join(', ');
}

const named = (one: string, numbers: readonly number[]): string =>
  `${one}${numbers.length > 1 ? 's' : ''} ${runsOf(numbers)}`;

/** The places along one axis at which boxes start, and which of them each box stands at, counted from 1. */
function linesOf(starts: readonly number[]): { readonly count: number; readonly lineOf: (start: number) => number } {
  const places: number[] = [];
  for (const start of [...starts].sort((a, b) => a - b))
    if (places.length === 0 || start - places.at(-1)! > ALIKE_MM) places.push(start);
  return {
    count: places.length,
    lineOf: (start) => places.findIndex((place) => Math.abs(start - place) <= ALIKE_MM) + 1,
  };
}

/**
 * Where some of a card's cells lie, as somebody before it would say: "columns 5–7", "row 2", "columns 1 and 2 in rows 3–4", "cell 9". Columns
 * count from the left, rows from the top, cells as the card numbers them; cells left out count for nothing. '' for none, "all cells" for
 * all, "29 of 42 cells" where they lie in all columns and all rows.
 */
export function cellPlaces({ cells }: Pick<Layout, 'cells'>, indexes: readonly number[]): string {
  const burned = cells.filter((cell) => !cell.leftOut);
  const meant = burned.filter(({ index }) => indexes.includes(index));
  if (meant.length === 0) return '';
  if (meant.length === burned.length) return 'all cells';
  const across = linesOf(burned.map(({ box }) => box.x));
  const down = linesOf(burned.map(({ box }) => box.y));
  const byNumber = named(
    'cell',
    meant.map(({ index }) => index + 1).sort((a, b) => a - b),
  );
  // Cells scattered over the card stand in no rows and columns.
  if (meant.length === 1 || across.count * down.count > 1.5 * burned.length) return byNumber;
  const numbers = (lineOf: (start: number) => number, along: 'x' | 'y'): number[] =>
    [...new Set(meant.map(({ box }) => lineOf(box[along])))].sort((a, b) => a - b);
  const columns = numbers(across.lineOf, 'x');
  const rows = numbers(down.lineOf, 'y');
  if (across.count === 1 || down.count === 1) return byNumber;
  // All over the card there is no place to name.
  if (columns.length === across.count && rows.length === down.count)
    return meant.length <= FEW ? byNumber : `${meant.length} of ${burned.length} cells`;
  const inColumns = burned.filter(({ box }) => columns.includes(across.lineOf(box.x))).length;
  const inRows = burned.filter(({ box }) => rows.includes(down.lineOf(box.y))).length;
  const [ofColumns, ofRows] = [meant.length / inColumns, meant.length / inRows];
  if (ofColumns >= MOST && ofColumns >= ofRows) return named('column', columns);
  if (ofRows >= MOST) return named('row', rows);
  return `${named('column', columns)} in ${named('row', rows)}`;
}
