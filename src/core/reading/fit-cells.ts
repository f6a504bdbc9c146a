import { luminance } from '../color/srgb';
import type { Layout } from '../card/layout';
import type { Rectified } from './rectify';

/** How cells really lie along one axis of a straightened card, against how they were told: mm' = start + scale x mm. */
export interface AxisFit {
  readonly startMm: number;
  readonly scale: number;
  /** Width of a cell over what was told. */
  readonly width: number;
  /** Strength of the edges found over what chance finds; near 1 means that no edges were found. */
  readonly clear: number;
}

/** Borders of the cells along an axis, low and high, as told. */
type Borders = readonly (readonly [low: number, high: number])[];

const SMOOTH_MM = 0.12;

/** Mean gradient of brightness along one axis over the bands of the other in which cells lie, smoothed. */
function gradientAlong(image: Rectified, horizontal: boolean, bands: Borders): Float64Array {
  const { data, width, height, pxPerMm } = image;
  const length = horizontal ? width : height;
  const profile = new Float64Array(length);
  for (const [low, high] of bands) {
    // The middle of a band: its ends lie where the other axis is not fitted yet.
    const from = Math.round((low + 0.25 * (high - low)) * pxPerMm);
    const to = Math.round((high - 0.25 * (high - low)) * pxPerMm);
    for (let across = Math.max(0, from); across < Math.min(to, horizontal ? height : width); across++)
      for (let along = 0; along < length; along++) {
        const at = (horizontal ? across * width + along : along * width + across) * 3;
        // Perceived lightness goes with the cube root: pale cells count as well as dark ones.
        profile[along]! += Math.cbrt(luminance(data[at]!, data[at + 1]!, data[at + 2]!));
      }
  }
  const slope = Float64Array.from(
    profile,
    (_, index) => (profile[index + 1] ?? profile[index]!) - (profile[index - 1] ?? profile[index]!),
  );
  const radius = Math.max(1, Math.round(SMOOTH_MM * pxPerMm));
  return Float64Array.from(slope, (_, index) => {
    let sum = 0;
    for (let k = -radius; k <= radius; k++) sum += (slope[index + k] ?? 0) * (radius + 1 - Math.abs(k));
    return sum;
  });
}

/** How strongly borders at these places show: cells darker than what is between them, or brighter, all alike. */
function strength(
  slope: Float64Array,
  pxPerMm: number,
  borders: Borders,
  start: number,
  scale: number,
  width: number,
): number {
  let sum = 0;
  for (const [low, high] of borders) {
    const middle = start + (scale * (low + high)) / 2;
    const half = (scale * width * (high - low)) / 2;
    sum += (slope[Math.round((middle + half) * pxPerMm)] ?? 0) - (slope[Math.round((middle - half) * pxPerMm)] ?? 0);
  }
  return Math.abs(sum);
}

const steps = (from: number, to: number, count: number): number[] =>
  Array.from({ length: count }, (_, index) => from + ((to - from) * index) / (count - 1));

function fitAxis(slope: Float64Array, pxPerMm: number, borders: Borders, reachMm: number): AxisFit {
  const extent = borders.at(-1)![1] - borders[0]![0];
  const near = reachMm / extent;
  let best = { startMm: 0, scale: 1, width: 1, score: -1 };
  const tried: number[] = [];
  const search = (starts: number[], scales: number[], widths: number[]): void => {
    for (const scale of scales)
      for (const startMm of starts)
        for (const width of widths) {
          const score = strength(slope, pxPerMm, borders, startMm, scale, width);
          tried.push(score);
          if (score > best.score) best = { startMm, scale, width, score };
        }
  };
  const origin = borders[0]![0];
  search(
    steps(-reachMm - origin * near, reachMm + origin * near, 33),
    steps(1 - near, 1 + near, 25),
    steps(0.7, 1.3, 13),
  );
  for (let turn = 0, part = 1; turn < 3; turn++, part /= 4) {
    const { startMm, scale, width } = best;
    search(
      steps(startMm - (reachMm * part) / 12, startMm + (reachMm * part) / 12, 9),
      steps(scale - (near * part) / 10, scale + (near * part) / 10, 9),
      steps(width - 0.06 * part, width + 0.06 * part, 7),
    );
  }
  const chance = [...tried].sort((a, b) => a - b)[Math.floor(tried.length * 0.5)]!;
  const { startMm, scale, width, score } = best;
  return { startMm, scale, width, clear: chance > 0 ? score / chance : 1 };
}

/** A fit is believed where its edges stand out from what other places show by this factor. */
export const CLEAR_ENOUGH = 2.5;

/**
 * Fits a card's rows and columns of cells to its straightened picture, from where corners dragged by hand put them: for each axis where
 * the cells begin, how far they reach and how wide they are. Looks as far as half a gap and a quarter of a cell away.
 */
export function fitCells(image: Rectified, layout: Layout): { readonly x: AxisFit; readonly y: AxisFit } {
  const bordersOf = (
    low: (cell: Layout['cells'][number]) => number,
    size: (cell: Layout['cells'][number]) => number,
  ): Borders =>
    [...new Map(layout.cells.map((cell) => [low(cell), [low(cell), low(cell) + size(cell)] as const])).values()].sort(
      (a, b) => a[0] - b[0],
    );
  const columns = bordersOf((cell) => cell.box.x, (cell) => cell.box.width); // prettier-ignore
  const rows = bordersOf((cell) => cell.box.y, (cell) => cell.box.height); // prettier-ignore
  const reach = (borders: Borders): number => {
    const cell = borders[0]![1] - borders[0]![0];
    const gap = borders.length > 1 ? borders[1]![0] - borders[0]![1] : cell;
    return gap / 2 + cell / 4;
  };
  return {
    x: fitAxis(gradientAlong(image, true, rows), image.pxPerMm, columns, reach(columns)),
    y: fitAxis(gradientAlong(image, false, columns), image.pxPerMm, rows, reach(rows)),
  };
}
