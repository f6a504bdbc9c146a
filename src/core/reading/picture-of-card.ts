import type { Layout } from '../card/layout';
import { invertHomography, project, type Homography } from '../geometry/homography';
import { median } from '../stats/robust';
import type { Across } from './lines/across';
import { rippled } from './lines/ripple';
import type { Rectified } from './rectify';
import type { SheetPlace } from './sheet/locate-sheet';

/** Why a photo does not show the card itself, but a picture of it. */
export type PictureOfCard = 'screen' | 'not-to-scale';

/** A piece that lies under a frame sheet or stands above it looks smaller or larger by some hundredths; a picture of it by more than this. */
const MOST_OFF_SCALE = 0.06;

/**
 * Whether a card is as large as the frame sheet beside it says: a photo of a printed photo is not, unless it was printed to size. True where there is
 * no sheet to tell.
 */
export function isToScale(toPhoto: Homography, layout: Layout, sheet: SheetPlace | null): boolean {
  if (!sheet) return true;
  const toSheet = invertHomography(sheet.toPhoto);
  const onSheet = (x: number, y: number) => {
    const seen = project(toPhoto, x, y);
    return project(toSheet, seen.x, seen.y);
  };
  const { widthMm, heightMm } = layout;
  const [left, right] = [onSheet(0, heightMm / 2), onSheet(widthMm, heightMm / 2)];
  const [top, bottom] = [onSheet(widthMm / 2, 0), onSheet(widthMm / 2, heightMm)];
  const scales = [
    Math.hypot(right.x - left.x, right.y - left.y) / widthMm,
    Math.hypot(bottom.x - top.x, bottom.y - top.y) / heightMm,
  ];
  return scales.every((scale) => Math.abs(scale - 1) < MOST_OFF_SCALE);
}

/** Bare stock is looked at from here on beside cells. */
const KEEP_OFF_MM = 0.3;
const LEAST_BAND_MM = 0.3;
/** Finest and coarsest stripes that are looked for. */
const PERIODS_MM = { from: 0.11, to: 3 } as const;
/** Stripes of a screen's pixels change the ratio of red to blue by more than this, and stand out so clearly among all periods. */
const LEAST_STRIPES = 0.05;
const CLEAR = 6;

/**
 * Whether bare stock has even coloured stripes along one of its axes, as only the pixels of a screen make them, or what a camera's pixels make of
 * those. Grain and hatches are no stripes of red and blue.
 */
export function isOnScreen(image: Rectified, layout: Layout): boolean {
  return (['x', 'y'] as const).some((axis) => hasStripes(bareBands(image, layout, axis)));
}

/** Adds the pixels of a row to sums along it. */
function addAlong(red: Float64Array, blue: Float64Array, row: Float32Array): void {
  for (let k = 0, at = 0; at < row.length; k++, at += 3) {
    red[k]! += row[at]!;
    blue[k]! += row[at + 2]!;
  }
}

/** Adds all pixels of a row to one sum. */
function addWhole(red: Float64Array, blue: Float64Array, k: number, row: Float32Array): void {
  for (let at = 0; at < row.length; at += 3) {
    red[k]! += row[at]!;
    blue[k]! += row[at + 2]!;
  }
}

/** Red over blue, as a logarithm, along the bare bands between rows or columns of cells. */
function bareBands({ data, width, height, pxPerMm }: Rectified, { cells, inner }: Layout, axis: 'x' | 'y'): Across[] {
  const spans = cells
    .map(({ box }): [number, number] => (axis === 'x' ? [box.y, box.y + box.height] : [box.x, box.x + box.width]))
    .sort((a, b) => a[0] - b[0]);
  const bands: [number, number][] = [];
  let reached = -Infinity;
  for (const [from, to] of spans) {
    const band: [number, number] = [reached + KEEP_OFF_MM, from - KEEP_OFF_MM];
    if (Number.isFinite(band[0]) && band[1] - band[0] >= LEAST_BAND_MM) bands.push(band);
    reached = Math.max(reached, to);
  }
  const pixel = (mm: number): number => Math.round(mm * pxPerMm);
  const along = axis === 'x' ? { at: inner.x, size: inner.width } : { at: inner.y, size: inner.height };
  const first = pixel(along.at);
  const length = Math.min(pixel(along.size), (axis === 'x' ? width : height) - first);
  return bands.map(([from, to]) => {
    const red = new Float64Array(length);
    const blue = new Float64Array(length);
    const [low, high] = [pixel(from), pixel(to)];
    const [left, right, top, bottom] =
      axis === 'x' ? [first, first + length, low, high] : [low, high, first, first + length];
    for (let y = top; y < bottom; y++) {
      const row = data.subarray(3 * (y * width + left), 3 * (y * width + right));
      if (axis === 'x') addAlong(red, blue, row);
      else addWhole(red, blue, y - top, row);
    }
    const share = red.map((sum, k) => Math.log(Math.max(1e-5, sum) / Math.max(1e-5, blue[k]!)));
    return {
      at: Float64Array.from(share, (_, k) => (k + 0.5) / pxPerMm),
      share,
      count: new Float64Array(share.length).fill(1),
    };
  });
}

/** Amplitudes in all bands as one. */
const together = (amplitudes: readonly number[]): number =>
  Math.sqrt(amplitudes.reduce((sum, one) => sum + one ** 2, 0) / amplitudes.length);

/** Whether one period stands out of all of them, in all bands together. */
function hasStripes(bands: readonly Across[]): boolean {
  if (bands.length === 0) return false;
  const waves = bands.map((band) => rippled(band));
  if (together(waves.map(({ mostAmplitude }) => mostAmplitude)) <= LEAST_STRIPES) return false;
  const { spanMm } = waves[0]!;
  const first = Math.ceil(spanMm / PERIODS_MM.to);
  const count = Math.floor(spanMm / PERIODS_MM.from) - first;
  const all = waves.map((wave) => wave.amplitudes(first / spanMm, 0.5 / spanMm, Math.max(0, 2 * count)));
  const heights = all[0]!.map((_, k) => together(all.map((one) => one[k]!)));
  const highest = Math.max(...heights);
  return highest > LEAST_STRIPES && highest > CLEAR * median(heights);
}
