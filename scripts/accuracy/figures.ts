import seedrandom from 'seedrandom';
import { LOW_CONFIDENCE, PROMISE } from '../../src/core/reading/observations';
import { quantile } from '../../src/core/stats/robust';

/** One cell that was read, beside what it is. */
export interface CellError {
  readonly stock: string;
  /** L* that was read less L* that is. */
  readonly error: number;
  readonly truth: number;
  readonly sigma: number;
  readonly confidence: number;
}

export const isMarked = ({ confidence }: CellError): boolean => confidence < LOW_CONFIDENCE;
export const isOff = ({ error }: CellError): boolean => Math.abs(error) > PROMISE;
export const isSilent = (cell: CellError): boolean => isOff(cell) && !isMarked(cell);

/** Share of cells of which something holds; 0 for none. */
export const shareOf = (cells: readonly CellError[], holds: (cell: CellError) => boolean): number =>
  cells.length === 0 ? 0 : cells.filter(holds).length / cells.length;

export const percent = (share: number, digits = 1): string => `${(100 * share).toFixed(digits)} %`;

/** Mean, and sizes of errors, as columns of a table. */
export function sizesOf(cells: readonly CellError[]): { mean: string; middle: string; most: string } {
  const sizes = cells.map(({ error }) => Math.abs(error));
  const mean = cells.reduce((sum, { error }) => sum + error, 0) / cells.length;
  return { mean: mean.toFixed(2), middle: quantile(sizes, 0.5).toFixed(2), most: quantile(sizes, 0.95).toFixed(2) };
}

/**
 * Where a figure of photos lies with 95 % certainty: photos are drawn again and again, whole, since the cells of one are alike. A percentile
 * interval of 500 draws from a fixed seed. Source: B. Efron, R. Tibshirani, An Introduction to the Bootstrap (1993), chapter 13.
 */
export function bootstrapped<Photo>(
  photos: readonly Photo[],
  figure: (some: readonly Photo[]) => number,
): [number, number] {
  const random = seedrandom('bootstrap');
  const figures = Array.from({ length: 500 }, () =>
    figure(photos.map(() => photos[Math.floor(random() * photos.length)]!)),
  );
  return [quantile(figures, 0.025), quantile(figures, 0.975)];
}

/** A report's rows: of all, of each seed, and of each stock by name. */
export function rowsBySeedAndStock<One extends { readonly seed: string; readonly stock: string }>(
  all: readonly One[],
  seeds: readonly string[],
  row: (name: string, some: readonly One[]) => string,
): string {
  const names = [...new Set(all.map(({ stock }) => stock))].sort();
  return [
    row('**all**', all),
    ...seeds.map((seed) =>
      row(
        seed,
        all.filter((one) => one.seed === seed),
      ),
    ),
    ...names.map((name) =>
      row(
        name,
        all.filter(({ stock }) => stock === name),
      ),
    ),
  ].join('\n');
}
