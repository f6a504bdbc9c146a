import { LINEAR_OF_BYTE, luminance, LUMINANCE_BLUE, LUMINANCE_GREEN, LUMINANCE_RED } from '../../color/srgb';
import { invertHomography, project, type Homography } from '../../geometry/homography';
import type { Rect } from '../../geometry/point';
import type { RgbImage } from '../../image/raster';
import { rectRing } from '../../card/shape';
import type { LightOfCard } from '../light/light-of-card';

/**
 * The photo's own pixels on a card, for what is finer than the straightened card shows. Nothing is interpolated: each pixel is told with the place
 * it looks at, so that rows that lie askew to the card's lines sample them at every phase.
 */
export interface FineLight {
  /** Photo pixels for each card mm, at the card's middle. */
  readonly pxPerMm: number;
  /**
   * The pixels whose centres look at an area of the card, in card mm, row by row: all of them, or `every` so manieth. Pixels outside the photo are
   * left out.
   */
  pixelsOf(area: Rect, every?: number): FinePixels;
}

/** Pixels of a photo, and where each looks at the card: in arrays and not one by one, since there are a million of them in a photo. */
export interface FinePixels {
  readonly count: number;
  readonly xMm: Float64Array;
  readonly yMm: Float64Array;
  /** Luminance as a share of what bare stock sends back there. */
  readonly share: Float64Array;
}

/** Along a row of pixels light is worked out so far apart, in mm, and straight between. */
const LIGHT_STEP_MM = 0.15;

/** The pixels of a photo under the light that was told of its card; `linear` is the light of each stored byte. */
export function fineLight(
  photo: RgbImage,
  toPhoto: Homography,
  { field, levelling }: Pick<LightOfCard, 'field' | 'levelling'>,
  stockLinear: readonly [number, number, number],
  pxPerMm: number,
  linear: Float32Array = LINEAR_OF_BYTE,
): FineLight {
  const toCard = invertHomography(toPhoto);
  const bareLuminance = luminance(...stockLinear);
  const red = (LUMINANCE_RED * stockLinear[0]) / bareLuminance;
  const green = (LUMINANCE_GREEN * stockLinear[1]) / bareLuminance;
  const blue = (LUMINANCE_BLUE * stockLinear[2]) / bareLuminance;
  const step = Math.max(1, Math.round(LIGHT_STEP_MM * pxPerMm));
  const scales = new Float64Array(4 * (Math.ceil(photo.width / step) + 2));
  const tellScales = ({ v, left, right }: RowPart): void => {
    for (let u = left, at = 0; u < right + 1 + step; u += step, at += 4) {
      const { x, y } = project(toCard, u, v);
      const bare = field.at(x, y);
      const { gain, added } = levelling(x, y);
      const r = red / bare[0];
      const g = green / bare[1];
      const b = blue / bare[2];
      scales[at] = r * gain[0];
      scales[at + 1] = g * gain[1];
      scales[at + 2] = b * gain[2];
      scales[at + 3] = r * added[0] + g * added[1] + b * added[2];
    }
  };
  return {
    pxPerMm,
    pixelsOf(area, every = 1) {
      const rows = rowsIn(area, toPhoto, toCard, photo);
      const most = Math.ceil(rows.reduce((sum, { left, right }) => sum + right - left + 1, 0) / every);
      const [xMm, yMm, share] = [new Float64Array(most), new Float64Array(most), new Float64Array(most)];
      const found = { count: 0, xMm, yMm, share, every, passing: 0 };
      for (const row of rows) {
        tellScales(row);
        addRow(found, area, photo, linear, toCard, row, scales, step);
      }
      return found;
    },
  };
}

/** Pixels that are being looked for; so many are passed by before the next one is taken. */
interface FoundSoFar extends FinePixels {
  count: number;
  readonly every: number;
  passing: number;
}

/**
 * Adds those pixels of a row that look at an area. `scales` has what a pixel's red, green and blue light are taken times for its share of bare
 * stock's, and what was added to that share, at each `step` pixels; between it is straight.
 */
function addRow(
  found: FoundSoFar,
  area: Rect,
  { data, width }: RgbImage,
  linear: Float32Array,
  [i0, i1, i2, i3, i4, i5, i6, i7, i8]: Homography,
  { v, left, right }: RowPart,
  scales: Float64Array,
  step: number,
): void {
  const { xMm, yMm, share, every } = found;
  const [startX, startY, endX, endY] = [area.x, area.y, area.x + area.width, area.y + area.height];
  const xOfRow = i1 * v + i2;
  const yOfRow = i4 * v + i5;
  const wOfRow = i7 * v + i8;
  let { count, passing } = found;
  let at = (v * width + left) * 3;
  for (let from = left, s = 0; from <= right; from += step, s += 4) {
    let r = scales[s]!;
    let g = scales[s + 1]!;
    let b = scales[s + 2]!;
    let added = scales[s + 3]!;
    const dr = (scales[s + 4]! - r) / step;
    const dg = (scales[s + 5]! - g) / step;
    const db = (scales[s + 6]! - b) / step;
    const dAdded = (scales[s + 7]! - added) / step;
    const end = Math.min(right + 1, from + step);
    for (let u = from; u < end; u++) {
      const w = 1 / (i6 * u + wOfRow);
      const x = (i0 * u + xOfRow) * w;
      const y = (i3 * u + yOfRow) * w;
      if (x >= startX && x < endX && y >= startY && y < endY && passing-- === 0) {
        passing = every - 1;
        xMm[count] = x;
        yMm[count] = y;
        share[count++] = r * linear[data[at]!]! + g * linear[data[at + 1]!]! + b * linear[data[at + 2]!]! - added;
      }
      at += 3;
      r += dr;
      g += dg;
      b += db;
      added += dAdded;
    }
  }
  found.count = count;
  found.passing = passing;
}

/** Pixels of one row, from left to right. */
interface RowPart {
  readonly v: number;
  readonly left: number;
  readonly right: number;
}

/** The parts of a photo's rows that look at an area of the card, to a pixel more on each side. */
function rowsIn(
  area: Rect,
  toPhoto: Homography,
  [i0, i1, i2, i3, i4, i5, i6, i7, i8]: Homography,
  photo: RgbImage,
): RowPart[] {
  const corners = rectRing(area).map(({ x, y }) => project(toPhoto, x, y));
  const us = corners.map(({ x }) => x);
  const vs = corners.map(({ y }) => y);
  const first = Math.max(0, Math.ceil(Math.min(...us)));
  const last = Math.min(photo.width - 1, Math.floor(Math.max(...us)));
  const bottom = Math.min(photo.height - 1, Math.floor(Math.max(...vs)));
  // Before the camera what a place is divided by has one sign.
  const sign = Math.sign(i6 * us[0]! + i7 * vs[0]! + i8);
  const rows: RowPart[] = [];
  for (let v = Math.max(0, Math.ceil(Math.min(...vs))); v <= bottom; v++) {
    let [left, right] = [first, last];
    // Each side of the area is a straight line over the photo: inside it a u + b is above nought.
    const keep = (a: number, b: number): void => {
      if (a > 0) left = Math.max(left, Math.ceil(-b / a) - 1);
      else if (a < 0) right = Math.min(right, Math.floor(-b / a) + 1);
    };
    const w = i7 * v + i8;
    const keepX = (x: number, way: number): void => keep(way * (i0 - x * i6), way * (i1 * v + i2 - x * w));
    const keepY = (y: number, way: number): void => keep(way * (i3 - y * i6), way * (i4 * v + i5 - y * w));
    keepX(area.x, sign);
    keepX(area.x + area.width, -sign);
    keepY(area.y, sign);
    keepY(area.y + area.height, -sign);
    if (left <= right) rows.push({ v, left, right });
  }
  return rows;
}
