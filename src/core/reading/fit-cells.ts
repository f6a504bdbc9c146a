import { luminance } from '../color/srgb';
import type { Layout } from '../card/layout';
import type { Rect } from '../geometry/point';
import { median } from '../stats/robust';
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

/** How strongly borders at these places show: above zero for cells darker than what is between them, below for brighter ones. */
function signedStrength(
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
  return sum;
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
          const score = Math.abs(signedStrength(slope, pxPerMm, borders, startMm, scale, width));
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

/**
 * A fit is believed where its edges stand out from what other places show by this factor. The best of the thousands that are tried in plain
 * noise reaches four to six times their median: about 4 sigma over 0.67; cells of any bench stock ten and more.
 */
export const CLEAR_ENOUGH = 7;

/** Borders of a layout's columns and rows, as told, in order. */
function bordersOfCells({ cells }: Layout): { readonly columns: Borders; readonly rows: Borders } {
  const bordersOf = (spans: readonly (readonly [low: number, size: number])[]): Borders =>
    [...new Map(spans.map(([low, size]) => [low, [low, low + size] as const])).values()].sort((a, b) => a[0] - b[0]);
  return {
    columns: bordersOf(cells.map(({ box }) => [box.x, box.width])),
    rows: bordersOf(cells.map(({ box }) => [box.y, box.height])),
  };
}

/**
 * Fits a card's rows and columns of cells to its straightened picture, from where corners dragged by hand put them: for each axis where
 * the cells begin, how far they reach and how wide they are. Looks as far as half a gap and a quarter of a cell away.
 */
export function fitCells(image: Rectified, layout: Layout): { readonly x: AxisFit; readonly y: AxisFit } {
  const { columns, rows } = bordersOfCells(layout);
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

export type Side = 'left' | 'right' | 'top' | 'bottom';

/** From one column or row to the next; from a lone one twice its width. */
const pitchOf = ([first, second]: Borders): number => (second ? second[0] - first![0] : 2 * (first![1] - first![0]));

/** How far around its cells a card is straightened to see whether more of them follow. */
export function aroundCells(layout: Layout): Rect {
  const { columns, rows } = bordersOfCells(layout);
  const [dx, dy] = [pitchOf(columns), pitchOf(rows)];
  const { x, y, width, height } = layout.inner;
  return { x: x - dx, y: y - dy, width: width + 2 * dx, height: height + 2 * dy };
}

/** Borders beyond the edge are cells where they stand out from chance by this factor and reach this share of the clearest line's. */
const BEYOND_CLEAR = 10;
const BEYOND_SHARE = 0.08;

/**
 * On which sides more cells follow beyond those that were told: there the whole card was fitted beside itself, by a column or a row. Looks
 * for the borders of one line of cells more, at the pitch and of the sense, darker or brighter, of the others; lettering has none of
 * them. `image` shows `aroundCells`. What lies outside the photo cannot be looked at and counts as no cells.
 */
export function cellsBeyond(image: Rectified, layout: Layout): Side[] {
  const around = aroundCells(layout);
  const { columns, rows } = bordersOfCells(layout);
  const moved = (borders: Borders, by: number): Borders => borders.map(([low, high]) => [low - by, high - by]);
  const lines = { x: moved(columns, around.x), y: moved(rows, around.y) };
  const beyond: Side[] = [];
  for (const [axis, low, high] of [
    ['x', 'left', 'right'],
    ['y', 'top', 'bottom'],
  ] as const) {
    const across = lines[axis];
    const along = lines[axis === 'x' ? 'y' : 'x'];
    const pitch = pitchOf(across);
    const strengths = (band: readonly [number, number]): { here: number; chance: number } =>
      strengthHereAndAround(gradientAlong(image, axis === 'y', [band]), image.pxPerMm, along);
    const told = across.map((band) => strengths(band).here);
    const clearest = told.reduce((best, now) => (Math.abs(now) > Math.abs(best) ? now : best), 0);
    const goesOn = ([from, to]: readonly [number, number], by: number): boolean => {
      const { here, chance } = strengths([from + by, to + by]);
      const share = here / clearest;
      return share > BEYOND_SHARE && Math.abs(here) > BEYOND_CLEAR * chance;
    };
    if (goesOn(across[0]!, -pitch)) beyond.push(low);
    if (goesOn(across.at(-1)!, pitch)) beyond.push(high);
  }
  return beyond;
}

/** Signed strength of borders at their places, at best within a little; and what is usual everywhere else. */
function strengthHereAndAround(
  slope: Float64Array,
  pxPerMm: number,
  borders: Borders,
): { here: number; chance: number } {
  const pitch = pitchOf(borders);
  const near = 0.08 * (borders[0]![1] - borders[0]![0]);
  let here = 0;
  const elsewhere: number[] = [];
  for (const start of steps(-pitch / 2, pitch / 2, 81)) {
    const score = signedStrength(slope, pxPerMm, borders, start, 1, 1);
    if (Math.abs(start) > 2 * near) elsewhere.push(Math.abs(score));
    else if (Math.abs(start) <= near && Math.abs(score) > Math.abs(here)) here = score;
  }
  return { here, chance: median(elsewhere) };
}
